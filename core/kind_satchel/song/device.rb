# frozen_string_literal: true

module KindSatchel
  # A device in a track's chain. `values` holds the resting values that differ from the defaults, normalised; `held` the
  # ids of parameters that are held by hand: what moves them waits until they are handed back.
  class Device < Value.of(:id, :type, :values, :held)
    def check
      values.freeze
      held.freeze
      type_rules
      values.each do |id, value|
        type_rules.parameter(id) unless id.start_with?(Devices::SEND_PREFIX) && type == "channel"
        number!("/values/#{id}", value, 0..1)
      end
    end

    def type_rules = Devices::TYPES.fetch(type)
  end
end
