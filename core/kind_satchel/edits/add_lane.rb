# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes a track lane for a parameter. It starts as one point with the knob's resting value.
    module AddLane
      def self.call(song, input)
        address = Moves.target(song, input[:address])
        track = song.track(address.track_id)
        name = song.parameter(address).name
        taken = track.lanes.any? { |lane| lane.target == address }
        raise InvalidInput.of("already_there", "/address", "#{track.name} already has a lane for #{name}.") if taken

        lane = Moves.resting(song, address).with(clock: "once")
        [song.with(next_id: song.next_id + 1).with_track(track.with(lanes: [*track.lanes, lane])), "add a lane for #{name} of #{track.name}"]
      end
    end
  end
end
