# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives a track another name.
    module RenameTrack
      def self.call(song, input)
        track = song.track(input[:track_id])
        name = Inputs.name!(input[:name])
        [song.with_track(track.with(name:)), "rename #{track.name} to #{name}"]
      end
    end
  end
end
