# frozen_string_literal: true

# One lap of a pass: what the hand did with its parameter.
class TakeRow < ActiveRecord::Base
  self.table_name = "takes"
end
