# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes a track lane for a parameter: one that sets, unless another role is asked for. It starts as one point that
    # changes nothing: the knob's resting value, 100 %, or 0. One for a setting of a move lies by the move, or on the
    # track that is named.
    module AddLane
      def self.call(song, input)
        address = Inputs.target(song, input[:address])
        laned!(song, address)
        track = place(song, address, input)
        role = Inputs.role(song, address, input)
        name = song.parameter(address).name
        taken = Transfer::Lanes.lane(song, address, role)
        if taken
          raise InvalidInput.of("already_there", "/address",
                                "#{song.directory.envelope(taken.id).track.name} already has a lane that #{role}s " \
                                "#{name}.")
        end

        [Transfer::Lanes.with_lane(song, address, role, track), "add a lane for #{name} of #{song.owner_name(address)}"]
      end

      def self.place(song, address, input)
        return song.owned(address).lane_track unless input.key?(:track_id) && address.setting?

        song.track(input[:track_id])
      end

      # @raise [InvalidInput] for effects of a clip
      def self.laned!(song, address)
        return unless address.clip_id

        raise InvalidInput.of("no_lane_here", "/address",
                              "The effects of #{song.owner_name(address)} are the clip's own: envelopes in the clip " \
                              "move them, and carriers, but no lane.")
      end
      private_class_method :place, :laned!
    end
  end
end
