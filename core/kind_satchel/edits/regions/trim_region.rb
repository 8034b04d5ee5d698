# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves an edge of a region. Material and envelopes stay where they are in song time: at either end a looping clip
    # repeats as far as the region reaches, and stretched envelopes fill it again. What comes to lie under it is
    # trimmed.
    #
    # Before the start of the material there is nothing for a clip that does not loop, and for a move that runs once
    # over all repeats: then the start is refused.
    module TrimRegion
      def self.call(song, input)
        placed = song.directory.region(input[:region_id])
        region = trimmed(placed.region, song.clip(placed.region.clip_id),
                         input.fetch(:start_tick, placed.region.start_tick),
                         input.fetch(:end_tick, placed.region.end_tick))
        ends = [region.start_tick, region.end_tick].map { |tick| song.meters.text(tick) }
        [Placing.drop(song, placed.track, region), "trim #{song.clip(region.clip_id).name} to #{ends.join(' - ')}"]
      end

      def self.trimmed(region, clip, start, finish)
        raise InvalidInput.of("too_short", "/end_tick", "A region ends after it starts.") unless finish > start

        offset = region.offset_ticks + start - region.start_tick
        earlier = offset.negative?
        offset %= period(region, clip, -offset) if earlier
        length = finish - start
        span = finish == region.end_tick && !earlier ? region.span_ticks : offset + length
        onward = offset - (region.offset_ticks + start - region.start_tick)
        region.onward(onward).with(start_tick: start, offset_ticks: offset, length_ticks: length, span_ticks: span)
      end

      # Ticks after which material and moves of a looping clip are as they were.
      def self.period(region, clip, missing)
        unless region.looped
          raise InvalidInput.of("no_material", "/start_tick",
                                "The clip has nothing before its start, #{missing} ticks later.")
        end

        once = clip.envelopes.find { |envelope| envelope.clock == "once" && envelope.acts? }
        if once
          raise InvalidInput.of("runs_once", "/start_tick",
                                "A move of #{clip.name} runs once over all repeats; nothing comes before it.")
        end

        own = clip.envelopes.select do |envelope|
          envelope.clock == "own_length" && envelope.acts?
        end.filter_map(&:own_length_ticks)
        own.reduce(clip.length_ticks, :lcm)
      end
      private_class_method :trimmed, :period
    end
  end
end
