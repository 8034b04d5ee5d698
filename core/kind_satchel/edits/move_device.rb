# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves an effect along its chain: before another device, or to its end.
    module MoveDevice
      def self.call(song, input)
        track = Moves.at("/track_id") { song.track(input[:track_id]) }
        device = Chains.device!(track, input[:device_id], "/device_id")
        raise InvalidInput.of("stays_first", "/device_id", "An instrument stands first in its chain.") if device.type_rules.role == "instrument"

        [Chains.put(song, track, device, input[:before]), "move #{device.type_rules.name.downcase} of #{track.name}"]
      end
    end
  end
end
