# frozen_string_literal: true

module KindSatchel
  module Edits
    # Cuts a region in two at a tick inside it. Nothing heard changes, whatever the clocks of its envelopes.
    module SplitRegion
      def self.call(song, input)
        placed = song.directory.region(input[:region_id])
        region, tick = placed.region, input[:tick]
        position = song.meters.text(tick)
        unless tick > region.start_tick && tick < region.end_tick
          raise InvalidInput.of("outside", "/tick",
                                "#{position} does not lie inside the region.")
        end

        halves = region.split(tick, "region-#{song.next_id}")
        regions = placed.track.regions.flat_map { |other| other.equal?(region) ? halves : other }
        [song.with(next_id: song.next_id + 1).with_track(placed.track.with(regions:)),
         "split #{song.clip(region.clip_id).name} at #{position}"]
      end
    end
  end
end
