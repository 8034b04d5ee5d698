# frozen_string_literal: true

module KindSatchel
  # A device in a track's chain. `values` holds the resting values that differ from the defaults, normalised; `held` the values
  # of parameters that are held by hand, by id: what moves them waits until they are handed back, and the resting value too.
  class Device < Value.of(:id, :type, :values, :held)
    def check
      values.freeze
      held.freeze
      type_rules
      check_values("/values", values)
      check_values("/held", held)
    end

    def type_rules = Devices::TYPES.fetch(type)

    private

    def check_values(path, list)
      list.each do |id, value|
        type_rules.parameter(id) unless id.start_with?(Devices::SEND_PREFIX) && type == "channel"
        number!("#{path}/#{id}", value, 0..1)
      end
    end
  end
end
