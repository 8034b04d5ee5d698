# frozen_string_literal: true

module KindSatchel
  module Heard
    # One stage of a wave at work, by a phase that moves as it likes.
    class WaveArc
      include Arc

      # Of a tolerance, what the shape may take; the rest is for a rate that moves within it.
      SHAPE_SHARE = 0.9
      # So many times as many corners, and so many more, are put in for a rate that moves; of more it is better looked
      # for the fewest: by what is known of so many parts, as long as no more chords lie in one.
      MOST_TIMES = 2
      MOST_MORE = 4
      PARTS = 8
      MOST_IN_PART = 16

      # The stage as a segment from 0 to 1, whatever its pace.
      attr_reader :segment

      # One stage of one cycle: `number` is that of the cycle, `phase` a {MovedWave::Phase}.
      Turn = Struct.new(:phase, :stage, :number)
      PLAIN = [1.0, 0.0].freeze

      # @param turn [Turn]
      # @param line [Array(Float, Float)] what each level is multiplied with, and what is added then
      def initialize(from, to, source, turn, line = PLAIN)
        @from, @to, @source, @turn, @line = from, to, source, turn, line
        @phase, stage, number = *turn
        @segment = stage.segment(*line)
        @shape, @a, @rise = @segment.shape, @segment.a, @segment.rise
        @start = number + stage.from
        @width = stage.to - stage.from
      end

      def lined(from, to, factor, offset)
        WaveArc.new(from, to, source, @turn, [@line[0] * factor, (@line[1] * factor) + offset])
      end

      # Whether the whole stage sounds in a piece.
      def entire?(piece) = piece.from == @from && piece.to == @to && share(@from) < TINY && share(@to) > 1 - TINY
      # Ends lie on the {Grid}, up to 1/131072 tick off: so much of a stage at the fastest rate, and far less than any
      # tolerance.
      TINY = 2e-6

      # Writes the inner corners of a chain: share of the stage, value, ... becomes tick times `unit`, value, ...
      def place(ramp, list, unit) = @phase.place(ramp, @start, @width, list, unit)

      # Whether the pace hardly changes between shares so far apart: what is straight by phase strays no more than
      # `tolerance` then.
      def even_between?(apart, tolerance)
        return true if @phase.even?

        jet = @phase.pace_jet(@from, @to)
        keeps?(jet, apart, @shape.slope_most(0.0, 1.0) * @rise.abs, tolerance)
      end

      def still? = @rise.zero? || @shape.still?
      def straight? = still? || (@phase.even? && @shape.straight?)
      def at(tick) = still? ? @a : @a + (@rise * @shape.weight(share(tick)))

      # Corners of the shape by phase, where the rate hardly moves within a chord; else by what is known for certain.
      def breaks(from, to, worth, tolerance)
        return [] if straight?

        ends = [share(from), share(to)]
        room = @phase.even? ? tolerance : tolerance * SHAPE_SHARE
        shares = [ends[0], *@shape.cut(*ends).breaks(rise(ends) * worth, room).map do |u|
          ends[0] + ((ends[1] - ends[0]) * u)
        end, ends[1]]
        shares = near_enough(from, to, shares, worth, tolerance - room) unless @phase.even?
        return by_parts(from, to, worth, tolerance) || super unless shares

        shares[1..-2].map { |u| tick_about(u) }
      end

      # By the chain rule: u moves by pace / width a tick.
      def jet(from, to)
        return Jet.level(@a) if still?

        ends = [share(from), share(to)]
        low, high = ends.map { |u| @a + (@rise * @shape.weight(u)) }.minmax
        pace, bend = paces(from, to)
        slope, size = @shape.slope_most(*ends), @rise.abs
        Jet.new(low, high, size * slope * pace, size * ((@shape.bend_most(*ends) * pace * pace) + (slope * bend)))
      end

      private

      def share(tick) = ((@phase.at(tick) - @start) / @width).clamp(0.0, 1.0)
      def rise(ends) = (@shape.weight(ends[1]) - @shape.weight(ends[0])) * @rise

      # How fast u moves at most, and how fast that changes.
      def paces(from, to)
        jet = @phase.pace_jet(from, to)
        [jet.high * @phase.pace / @width, jet.slope * @phase.pace / @width]
      end

      # Between two corners u strays from even by at most its second derivative times the square of the time over 8:
      # corners are put in where they are too far apart for that.
      # @return [Array<Float>, nil] nil where these would be too many
      def near_enough(from, to, shares, worth, tolerance)
        jet = @phase.pace_jet(from, to)
        slope = @shape.slope_most(shares.first, shares.last) * @rise.abs * worth
        bend = jet.slope * @phase.pace / @width * slope
        return shares if bend.zero?

        apart = Math.sqrt(8 * tolerance / bend) * jet.low * @phase.pace / @width
        return unless apart.positive?

        parted(shares, apart)
      end

      # @return [Array<Float>, nil] with so many more that no two are further apart; nil where these would be too many
      def parted(shares, apart)
        most = (MOST_TIMES * shares.size) + MOST_MORE
        parts = shares.each_cons(2).map { |one, other| ((other - one) / apart).ceil.clamp(1, most) }
        return if parts.sum > most

        shares.each_cons(2).zip(parts).flat_map do |(one, other), count|
          Array.new(count) { |i| one + ((other - one) * i / count) }
        end << shares.last
      end

      # Where corners come by what is known of equal parts of the stretch: a chord strays by no more than the most
      # bend of the parts it touches times the square of its width over 8.
      # @return [Array<Float>, nil] nil where that is not known
      def by_parts(from, to, worth, tolerance)
        width = (to - from) / PARTS.to_f
        widths = Array.new(PARTS) do |i|
          Math.sqrt(8 * tolerance / (jet(from + (i * width), from + ((i + 1) * width)).bend * worth))
        end
        return if widths.any? { |one| one < width / MOST_IN_PART || one.nan? }

        list = [from]
        list << longest(list.last, from, to, widths) while list.last < to
        list[1..-2]
      end

      # The end of the longest chord from a tick on: into a part that bends more it goes only as far as that allows.
      def longest(at, from, to, widths)
        width = (to - from) / PARTS.to_f
        place = ((at - from) / width).floor.clamp(0, PARTS - 1)
        finish = at + widths[place]
        while (place += 1) < PARTS && finish > (edge = from + (place * width))
          finish = (at + widths[place]).clamp(edge, finish)
        end
        [finish, to].min
      end

      def tick_about(share) = @phase.tick_about(@start + (share * @width))

      def keeps?(jet, apart, slope, tolerance)
        ticks = apart * @width / (jet.low * @phase.pace)
        ticks * ticks / 8 * jet.slope * @phase.pace / @width * slope <= tolerance
      end
    end
  end
end
