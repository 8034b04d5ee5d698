# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts an effect into the chain of a track or clip, before another device or at the end of it; or an instrument at
    # its head, where there is none. What moved a device of the same id before acts again on what answers.
    module AddDevice
      def self.call(song, input)
        owner = Chains.owner!(song, input)
        type = Chains.type!(owner, input[:type], "/type")
        taken!(owner) if type.role == "instrument"
        next_song, notices = Chains.put(song, owner, Chains.fresh(owner.devices.map(&:id), type.id), input[:before])
        [next_song, "put #{type.name.downcase} into #{owner.name}", notices]
      end

      def self.taken!(track)
        return unless track.instrument

        raise InvalidInput.of("already_there", "/type",
                              "#{track.name} has an instrument, #{track.instrument.type_rules.name}; replace it.")
      end
      private_class_method :taken!
    end
  end
end
