# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves an edge of a region. Material and envelopes stay where they are in song time: at the start, the offset goes
    # along; at the end, a looping clip repeats as far as the region reaches, and stretched envelopes fill it anew. What comes to lie under it is trimmed.
    module TrimRegion
      def self.call(song, input)
        placed = song.directory.region(input[:region_id])
        region = trimmed(placed.region, input.fetch(:start_tick, placed.region.start_tick), input.fetch(:end_tick, placed.region.end_tick))
        ends = [region.start_tick, region.end_tick].map { |tick| song.meter.text(tick) }
        [Placing.drop(song, placed.track, region), "trim #{song.clip(region.clip_id).name} to #{ends.join(' - ')}"]
      end

      def self.trimmed(region, start, finish)
        raise InvalidInput.of("too_short", "/end_tick", "A region ends after it starts.") unless finish > start

        offset = region.offset_ticks + start - region.start_tick
        raise InvalidInput.of("no_material", "/start_tick", "The clip has nothing before its start, #{-offset} ticks later.") if offset.negative?

        length = finish - start
        span = finish == region.end_tick ? region.span_ticks : offset + length
        region.with(start_tick: start, offset_ticks: offset, length_ticks: length, span_ticks: span)
      end
      private_class_method :trimmed
    end
  end
end
