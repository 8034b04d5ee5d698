# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives a track another name.
    module RenameTrack
      def self.call(song, input)
        track = song.track(input[:track_id])
        raise InvalidInput.of("bad_name", "/name", "A name is not blank.") if input[:name].strip.empty?

        [song.with_track(track.with(name: input[:name].strip)), "rename #{track.name} to #{input[:name].strip}"]
      end
    end
  end
end
