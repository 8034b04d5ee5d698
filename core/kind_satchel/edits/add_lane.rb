# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes a track lane for a parameter: one that sets, unless another role is asked for. It starts as one point that changes
    # nothing: the knob's resting value, 100 %, or 0.
    module AddLane
      def self.call(song, input)
        address = Moves.target(song, input[:address])
        laned!(song, address)
        track = song.track(address.owner_id)
        role = Moves.role(song, address, input)
        name = song.parameter(address).name
        taken = track.lane_for(address, role)
        raise InvalidInput.of("already_there", "/address", "#{track.name} already has a lane that #{role}s #{name}.") if taken

        [Transfer::Lanes.with_lane(song, address, role), "add a lane for #{name} of #{track.name}"]
      end

      # @raise [InvalidInput] for effects of a clip
      def self.laned!(song, address)
        return unless address.clip_id

        raise InvalidInput.of("no_lane_here", "/address",
                              "The effects of #{song.owner(address).name} are the clip's own: envelopes in the clip move them, and carriers, but no lane.")
      end
      private_class_method :laned!
    end
  end
end
