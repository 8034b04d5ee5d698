# frozen_string_literal: true

module KindSatchel
  # A device in a track's chain. `values` holds the resting values that differ from the defaults, normalised.
  class Device < Value.of(:id, :type, :values)
    def check
      values.freeze
      type_rules
      values.each do |id, value|
        type_rules.parameter(id) unless id.start_with?(Devices::SEND_PREFIX) && type == "channel"
        number!("/values/#{id}", value, 0..1)
      end
    end

    def type_rules = Devices::TYPES.fetch(type)
  end
end
