# frozen_string_literal: true

module KindSatchel
  module Edits
    # Joins a region with the one right after it, when that goes on with the same clip just where this one ends: as
    # after a split. Nothing heard changes.
    module JoinRegion
      def self.call(song, input)
        placed = song.directory.region(input[:region_id])
        name = song.clip(placed.region.clip_id).name
        following = placed.track.regions.find { |other| goes_on?(placed.region, other) } or
          raise InvalidInput.of("not_joined", "/region_id", "No region goes on with #{name} where this one ends.")
        [song.with_track(placed.track.with(regions: joined(placed.track.regions, placed.region, following))),
         "join #{name}"]
      end

      def self.joined(regions, region, following)
        longer = region.with(length_ticks: region.length_ticks + following.length_ticks)
        (regions - [following]).map { |other| other.equal?(region) ? longer : other }
      end

      def self.goes_on?(region, following)
        unless following.start_tick == region.end_tick &&
               following.offset_ticks == region.offset_ticks + region.length_ticks
          return false
        end

        %i[clip_id looped span_ticks phases].all? { |field| region[field] == following[field] }
      end
      private_class_method :joined, :goes_on?
    end
  end
end
