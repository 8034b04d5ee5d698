# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes a track once more, right under it, with or without its moves.
    module DuplicateTrack
      def self.call(song, input)
        track = song.track(input[:track_id])
        [Transfer::TrackCopy.new(song, track, moves: input[:moves]).song,
         "duplicate #{track.name} #{input[:moves] ? 'with' : 'without'} its moves"]
      end
    end
  end
end
