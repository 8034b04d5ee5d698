# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts another device in the place of one. Parameters that answer by name and scale keep their values and moves;
    # those of the same name on another scale of the same unit keep their value in that unit. All other moves stay as
    # loose ends, and act again when a device that answers stands there.
    module ReplaceDevice
      def self.call(song, input)
        owner = Chains.owner!(song, input)
        device = Chains.device!(owner, input[:device_id], "/device_id")
        type = Chains.type!(owner, input[:type], "/type")
        same_role!(device, type)
        devices = owner.devices.map { |other| other.equal?(device) ? fresh(device, type) : other }
        homes = Chains.moves_of(song, owner, device.id)
        lost = homes.reject { |home| type.parameters.key?(home.envelope.target.parameter_id) }
        strange = homes.select { |home| strange?(device.type_rules, type, home.envelope.target.parameter_id) }
        [silenced(song.with_owner(owner.with(devices:)), strange),
         "put #{type.name.downcase} in place of #{device.type_rules.name.downcase}",
         RemoveDevice.waiting(lost + strange)]
      end

      def self.same_role!(device, type)
        return if device.type_rules.role == type.role || device.unknown?

        raise InvalidInput.of("wrong_device", "/type",
                              "#{type.name} is an #{type.role}; #{device.type_rules.name} is an " \
                              "#{device.type_rules.role}.")
      end

      def self.fresh(device, type)
        values, held = [device.values, device.held].map { |list| kept(list, device.type_rules, type) }
        Device.new(id: device.id, type: type.id, values:, held:)
      end

      # Values by parameter, as far as the new type answers.
      def self.kept(values, old, type)
        values.filter_map do |id, value|
          was, now = old.parameters[id], type.parameters[id]
          next unless was && now
          next [id, value] if was.scale == now.scale

          [id, now.scale.normalised(was.scale.natural(value)).clamp(0.0, 1.0)] if same_unit?(was.scale, now.scale)
        end.to_h
      end

      def self.same_unit?(one, other)
        other.instance_of?(one.class) && one.respond_to?(:unit) && one.unit == other.unit
      end

      # Whether both have a parameter, each on a scale of its own.
      def self.strange?(old, type, id)
        old.parameters.key?(id) && type.parameters.key?(id) && old.parameters[id].scale != type.parameters[id].scale
      end

      # On another scale a move would mean something else: it waits, switched off.
      def self.silenced(song, homes)
        homes.reduce(song) do |now, home|
          Envelopes.change(now, home.envelope.id) { |envelope| envelope.with(on: false) }
        end
      end
      private_class_method :same_role!, :fresh, :kept, :same_unit?, :strange?, :silenced
    end
  end
end
