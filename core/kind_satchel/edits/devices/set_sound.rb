# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives a sampler another sound of the store, by its digest or word; without one it is silent.
    module SetSound
      def self.call(song, input)
        owner = Chains.owner!(song, input)
        device = InvalidInput.under("/device_id") { owner.device(input[:device_id]) }
        unless device.type_rules.samples
          raise InvalidInput.of("no_sampler", "/device_id",
                                "#{device.type_rules.name} plays no sound of the store.")
        end

        devices = owner.devices.map { |other| other.equal?(device) ? device.with(sound: input[:sound]) : other }
        words = input[:name] || (input[:sound] ? "another sound" : "no sound")
        [song.with_owner(owner.with(devices:)),
         "give #{words} to the #{device.type_rules.name.downcase} of #{owner.name}"]
      end
    end
  end
end
