# frozen_string_literal: true

module KindSatchel
  module Heard
    # Whatever gives values over a stretch of song without a corner is an arc. It answers:
    #
    # - `from`, `to` song ticks; `source` who acts, a {Source}
    # - `at(tick)` the value; at `to` the one it arrives at
    # - `still?` whether it stays the same, `straight?` whether it moves evenly
    # - `breaks(from, to, worth, tolerance)` ticks strictly between two where a line chain must turn to stay within `tolerance` when
    #   the values are worth `worth` each
    # - `jet(from, to)` what is known of it between two ticks, a {Jet}
    # - `drawn?` whether it is one segment of an envelope, with all that a {Span} tells of it
    #
    # A segment at work is a {Span}; the others are made when settings of a move are moved.
    module Arc
      attr_reader :from, :to, :source

      def drawn? = false
      def plain? = false
      def whole?(_piece) = false
      def still? = false
      def straight? = false

      # Each value times something and something more, over part of the stretch.
      # @return [Arc]
      def lined(from, to, factor, offset) = Lined.new(self, from, to, factor, offset)

      # Writes the values at ticks[first...last] into a list.
      def fill(values, ticks, first, last) = first.upto(last - 1) { |place| values[place] = at(ticks[place]) }

      def breaks(from, to, worth, tolerance)
        return [] if straight?

        Chords.breaks(from, to, tolerance) { |start, finish| jet(start, finish).stray(finish - start) * worth }
      end
    end

    # One value.
    class Level
      include Arc

      attr_reader :value

      def initialize(from, to, value, source = nil)
        @from, @to, @value, @source = from, to, value, source
      end

      def still? = true
      def straight? = true
      def at(_tick) = @value
      def jet(_from, _to) = Jet.level(@value)
      def lined(from, to, factor, offset) = Level.new(from, to, (@value * factor) + offset, source)
    end

    # An arc, each value times something and something more.
    class Lined
      include Arc

      def initialize(arc, from, to, factor, offset)
        @arc, @from, @to, @factor, @offset = arc, from, to, factor, offset
        @source = arc.source
      end

      def still? = @factor.zero? || @arc.still?
      def straight? = @arc.straight?
      def at(tick) = (@arc.at(tick) * @factor) + @offset
      def breaks(from, to, worth, tolerance) = still? ? [] : @arc.breaks(from, to, worth * @factor.abs, tolerance)
      def jet(from, to) = (@arc.jet(from, to) * Jet.level(@factor)) + Jet.level(@offset)
    end

    # What an envelope gives, 0..1, between limits and by a depth that move: low + (high - low) w, drawn towards rest.
    class Limited
      include Arc

      # @param base [Arc] w
      # @param low [Arc] amounts
      # @param high [Arc] amounts
      # @param depth [Arc] 0..1
      # @param rest [Float, nil] nil for the middle of the limits
      # @param line [Array(Float, Float)] what is made of the amount in the end: times, plus
      def initialize(base, from, to, low, high, depth, rest, line)
        @base, @from, @to, @low, @high, @depth, @rest = base, from, to, low, high, depth, rest
        @factor, @offset = line
        @source = base.source
        moving = [base, low, high, depth].reject(&:still?)
        @straight = moving.all?(&:straight?) && (moving.size == 1 || (moving - [low, high]).empty?)
      end

      def straight? = @straight

      # Of a tolerance, what the wave itself may take where limits and depth hardly move along one chord of it.
      WAVE_SHARE = 0.8

      # Where the wave turns, if that is good enough: with the value as a + r w, a chord of w that is good to e strays by no more than r e,
      # and what a and r do meanwhile adds their bends, and a quarter of how far r and w go together.
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
        return [] if range.low.zero? && range.high.zero? && foot.bend.zero?
        return if range.low.zero? && range.high.zero?

        turns = @base.breaks(from, to, range.size * worth, tolerance * WAVE_SHARE)
        room = tolerance * (1 - WAVE_SHARE) / worth
        bend = foot.bend + (range.bend * @base.jet(from, to).size)
        [from, *turns, to].each_cons(2) do |start, finish|
          width = finish - start
          return nil unless (bend * width * width / 8) + (range.slope * width * (@base.at(finish) - @base.at(start)).abs / 4) <= room
        end
        turns
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
