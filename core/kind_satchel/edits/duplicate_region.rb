# frozen_string_literal: true

module KindSatchel
  module Edits
    # Places a region once more, right after itself.
    module DuplicateRegion
      def self.call(song, input)
        region = song.directory.region(input[:region_id]).region
        next_song, = CopyRegion.call(song, region_id: region.id, start_tick: region.end_tick)
        [next_song, "duplicate #{song.clip(region.clip_id).name}"]
      end
    end
  end
end
