# frozen_string_literal: true

# One part of a song (see KindSatchel::Parts): its record as JSON.
class PartRow < ActiveRecord::Base
  self.table_name = "parts"
end
