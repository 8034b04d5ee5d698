# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives a track another hue.
    module ColourTrack
      def self.call(song, input)
        track = song.track(input[:track_id])
        [song.with_track(track.with(hue: input[:hue])), "colour #{track.name} #{input[:hue]}"]
      end
    end
  end
end
