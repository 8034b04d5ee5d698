# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes a region off its track. Its clip stays in the song.
    module RemoveRegion
      def self.call(song, input)
        placed = song.directory.region(input[:region_id])
        track = placed.track.with(regions: placed.track.regions.reject { |region| region.equal?(placed.region) })
        [song.with_track(track), "remove #{song.clip(placed.region.clip_id).name} at #{song.meter.text(placed.region.start_tick)}"]
      end
    end
  end
end
