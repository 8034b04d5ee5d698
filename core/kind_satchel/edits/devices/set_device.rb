# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts all knobs of a device on values at once, those not named on their defaults: a preset, say. What a hand
    # holds is let go of; what moves the device goes on moving it. Of a macro strip `macros` are its names and drives.
    module SetDevice
      def self.call(song, input)
        owner = Chains.owner!(song, input)
        device = InvalidInput.under("/device_id") { owner.device(input[:device_id]) }
        values = Chains.values!(device.type_rules, input[:values], "/values")
        macros, notices = Chains.macros(song, owner, device, input[:macros], "/macros")
        sends = device.values.select { |id, _| Devices.send_parts(device, id) }
        devices = owner.devices.map do |other|
          if other.equal?(device)
            device.with(values: sends.merge(values), held: {},
                        sound: input.fetch(:sound, device.sound), macros:)
          else
            other
          end
        end
        [song.with_owner(owner.with(devices:)),
         "set #{device.type_rules.name.downcase} of #{owner.name}#{" to #{input[:name]}" if input[:name]}", notices]
      end
    end
  end
end
