# frozen_string_literal: true

# A set of limits that people keep under a name.
class LimitSetRow < ActiveRecord::Base
  self.table_name = "limit_sets"

  # @return [Hash] as it is told to the page
  def entry = { "id" => id, "name" => name, "limits" => JSON.parse(limits) }
end
