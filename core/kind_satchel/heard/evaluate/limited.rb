# frozen_string_literal: true

module KindSatchel
  module Heard
    # What an envelope gives, 0..1, between limits and by a depth that move: low + (high - low) w, drawn towards rest.
    class Limited
      include Arc

      # `low` and `high` are arcs of amounts, `depth` one of 0..1; `rest` is an amount, nil for the middle of the
      # limits.
      Settings = Struct.new(:low, :high, :depth, :rest)

      # @param base [Arc] w
      # @param settings [Settings]
      # @param line [Array(Float, Float)] what is made of the amount in the end: times, plus
      def initialize(base, from, to, settings, line)
        @base, @from, @to = base, from, to
        @low, @high, @depth, @rest = *settings
        @factor, @offset = line
        @source = base.source
        moving = [base, @low, @high, @depth].reject(&:still?)
        @straight = moving.all?(&:straight?) && (moving.size == 1 || (moving - [@low, @high]).empty?)
      end

      def straight? = @straight

      # Of a tolerance, what the wave itself may take where limits and depth hardly move along one chord of it.
      WAVE_SHARE = 0.8

      # Where the wave turns, if that is good enough: with the value as a + r w, a chord of w that is good to e strays
      # by no more than r e, and what a and r do meanwhile adds their bends, and a quarter of how far r and w go
      # together.
      def breaks(from, to, worth, tolerance)
        return [] if straight?

        turns_of_wave(from, to, worth * @factor.abs, tolerance) || super
      end

      def at(tick)
        low, high, depth = @low.at(tick), @high.at(tick), @depth.at(tick)
        rest = @rest || ((low + high) / 2)
        ((rest + (depth * (low + ((high - low) * @base.at(tick)) - rest))) * @factor) + @offset
      end

      def jet(from, to)
        low, high = @low.jet(from, to), @high.jet(from, to)
        rest = @rest ? Jet.level(@rest) : (low + high) * Jet.level(0.5)
        less = Jet.level(-1.0)
        amount = low + ((high + (low * less)) * @base.jet(from, to))
        ((rest + (@depth.jet(from, to) * (amount + (rest * less)))) * Jet.level(@factor)) + Jet.level(@offset)
      end

      private

      # @return [Array<Numeric>, nil]
      def turns_of_wave(from, to, worth, tolerance)
        return if @base.still?

        range, foot = range_and_foot(from, to)
        return (foot.bend.zero? ? [] : nil) if range.low.zero? && range.high.zero?

        turns = @base.breaks(from, to, range.size * worth, tolerance * WAVE_SHARE)
        bend = foot.bend + (range.bend * @base.jet(from, to).size)
        turns if steady?([from, *turns, to], bend, range.slope, tolerance * (1 - WAVE_SHARE) / worth)
      end

      # Whether what limits and depth do along the chords of the wave stays within the room there is.
      def steady?(ticks, bend, slope, room)
        ticks.each_cons(2).all? do |start, finish|
          width = finish - start
          (bend * width * width / 8) + (slope * width * (@base.at(finish) - @base.at(start)).abs / 4) <= room
        end
      end

      # Of the value as a + r w: r and a.
      def range_and_foot(from, to)
        low, high, depth = @low.jet(from, to), @high.jet(from, to), @depth.jet(from, to)
        rest = @rest ? Jet.level(@rest) : (low + high) * Jet.level(0.5)
        less = Jet.level(-1.0)
        [depth * (high + (low * less)), rest + (depth * (low + (rest * less)))]
      end
    end
  end
end
