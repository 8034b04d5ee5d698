# frozen_string_literal: true

module KindSatchel
  module Edits
    # Places a region's clip once more on its track. Both regions share the clip, its envelopes included.
    module CopyRegion
      def self.call(song, input)
        placed = song.directory.region(input[:region_id])
        region = placed.region.with(id: "region-#{song.next_id}", start_tick: input[:start_tick])
        next_song = Placing.drop(song.with(next_id: song.next_id + 1), placed.track, region)
        [next_song, "copy #{song.clip(region.clip_id).name} to #{song.meter.text(region.start_tick)}"]
      end
    end
  end
end
