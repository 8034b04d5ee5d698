# frozen_string_literal: true

module KindSatchel
  # What has a chain of devices: a track, and a clip with effects of its own. `chain_id` is the first part of their
  # addresses.
  module Chain
    # The most devices of one chain.
    MOST_DEVICES = 100

    # @raise [NotFound]
    def device(id)
      devices.find { |device| device.id == id } or
        raise NotFound.of("unknown_device", "",
                          "#{name} has no device #{id.inspect}; it has #{devices.map(&:id).join(', ')}.")
    end

    # Where the first effect stands, or would: after macros, note effects and the instrument.
    def first_effect
      devices.take_while { |device| %w[macros note-effect instrument].include?(device.type_rules.role) }.size
    end

    # At its head.
    # @return [Array<Device>]
    def macro_strips = devices.take_while { |device| device.type_rules.role == "macros" }

    # What stands before its instrument, in order.
    # @return [Array<Device>]
    def note_effects = devices.select { |device| device.type_rules.role == "note-effect" }

    # @return [Device, nil]
    def instrument = devices.find { |device| device.type_rules.role == "instrument" }

    # Where one more effect comes to stand at the end.
    def end_of_effects = devices.index { |device| device.type == "channel" } || devices.size

    # Its effects, in order.
    # @return [Array<Device>]
    def effects = devices[first_effect...end_of_effects]

    private

    def check_chain
      if devices.map(&:id).uniq.size < devices.size
        fault!("duplicate_id", "/devices",
               "The devices of #{name} need different ids.")
      end
      return unless devices.size > MOST_DEVICES

      fault!("too_many_devices", "/devices",
             "A chain has at most #{MOST_DEVICES} devices.")
    end
  end
end
