# frozen_string_literal: true

# The mappings of one song, or without a song those for all.
class MappingRow < ActiveRecord::Base
  self.table_name = "mappings"
end
