# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts an effect into a track's chain, before another device or at the end of it; or an instrument at its head, where there is
    # none. What moved a device of the same id before acts again on what answers.
    module AddDevice
      def self.call(song, input)
        track = Moves.at("/track_id") { song.track(input[:track_id]) }
        type = Chains.type!(track, input[:type], "/type")
        taken!(track) if type.role == "instrument"
        [Chains.put(song, track, Chains.fresh(track.devices.map(&:id), type.id), input[:before]), "put #{type.name.downcase} into #{track.name}"]
      end

      def self.taken!(track)
        first = track.devices.first
        return unless first.type_rules.role == "instrument"

        raise InvalidInput.of("already_there", "/type", "#{track.name} has an instrument, #{first.type_rules.name}; replace it.")
      end
      private_class_method :taken!
    end
  end
end
