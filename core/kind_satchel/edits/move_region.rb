# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves a region along its track, its envelopes with it.
    module MoveRegion
      def self.call(song, input)
        placed = song.directory.region(input[:region_id])
        region = placed.region.with(start_tick: input[:start_tick])
        [Placing.drop(song, placed.track, region), "move #{song.clip(region.clip_id).name} to #{song.meter.text(region.start_tick)}"]
      end
    end
  end
end
