# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves a track to another place, right above another track: with what it takes in, if it is a group. It comes to
    # sound into what that track sounds into; right above a group that is the group itself if it was its member
    # before, else what the group goes to.
    module MoveTrack
      def self.call(song, input)
        track = song.track(input[:track_id])
        goal = InvalidInput.under("/before") { song.track(input[:before]) }
        stays!(track, goal, song)
        moving = song.tracks.select { |other| song.way_out(other).include?(track) }
        rest = song.tracks - moving
        tracks = rest.dup.insert(rest.index(goal), *moving.map do |other|
          other.equal?(track) ? track.with(output: output(song, track, goal, rest)) : other
        end)
        [song.with(tracks:), "move #{track.name}"]
      end

      def self.stays!(track, goal, song)
        raise InvalidInput.of("master_last", "/track_id", "The master stands last.") if track.kind == "master"
        return unless song.way_out(goal).include?(track)

        raise InvalidInput.of("bad_place", "/before", "#{track.name} cannot go inside itself.")
      end

      # Outputs lead downwards: what it sounded into holds while that still stands below.
      def self.output(song, track, goal, rest)
        return track.output if %w[return carrier].include?(track.kind)
        return goal.output if goal.output && goal.output != song.tracks.last.id && goal.kind != "return"

        now = rest.index { |other| other.id == track.output }
        member = now && rest[now].kind == "group" && now == rest.index(goal)
        member ? track.output : song.tracks.last.id
      end
      private_class_method :stays!, :output
    end
  end
end
