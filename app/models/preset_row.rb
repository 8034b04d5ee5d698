# frozen_string_literal: true

# A setting kept under a name: devices in order, each its type and values, as JSON.
class PresetRow < ActiveRecord::Base
  self.table_name = "presets"

  # @return [Hash] what the list of presets tells of it
  def entry = { "id" => id, "name" => name, "device" => device, "devices" => JSON.parse(chain), "shipped" => false }
end
