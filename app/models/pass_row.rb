# frozen_string_literal: true

# One parameter of a pass of hands.
class PassRow < ActiveRecord::Base
  self.table_name = "passes"
end
