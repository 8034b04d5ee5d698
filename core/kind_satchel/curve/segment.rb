# frozen_string_literal: true

module KindSatchel
  # One smooth stretch of an envelope in its own time: from value `a` at `start` to `b` at `finish`, by a
  # {Shapes::Smooth} shape. A still segment (no rise, or held) has the value `a` throughout.
  class Segment
    attr_reader :start, :finish, :a, :b, :shape, :rise, :length

    # @param start [Numeric] ticks into the envelope
    # @param finish [Numeric] after it; both on the {Grid}
    # @param origin [Numeric] where it starts exactly, between ticks
    # @param length [Float] how long it is exactly
    def initialize(start, finish, a, b, shape, origin: start, length: (finish - start).to_f)
      @start = start
      @finish = finish
      @a = a
      @b = b
      @shape = shape
      @rise = b - a
      @origin = origin
      @length = length
      @still = a == b || shape.still?
      @straight = @still || shape.straight?
    end

    def still? = @still
    def straight? = @straight

    # Whether no value of it lies beyond 0..1.
    def within_travel? = @a.between?(0.0, 1.0) && @b.between?(0.0, 1.0)

    # @param position [Numeric] within start..finish; at `finish` the value the segment arrives at
    def at(position)
      return @a if @still

      share = (position - @origin) / @length
      @a + (@rise * (@straight ? share : @shape.weight(share)))
    end

    # Writes the values at ticks[first...last], `zero` being position 0, into a list; the same as {#at}, many at a time.
    def fill(values, ticks, first, last, zero)
      return values.fill(@a, first, last - first) if @still

      return fill_straight(values, ticks, first, last, zero) if @straight

      origin, length, place = @origin, @length, first
      while place < last
        values[place] = (ticks[place] - zero - origin) / length
        place += 1
      end
      @shape.weigh(values, first, last, @a, @rise)
    end

    # Corners of a line chain that stays within `tolerance`: share of the length, share of the rise, share, share,
    # ...; the last one is the end.
    def chain(tolerance) = @straight ? ENDS : @shape.chain(@rise, tolerance, room?(tolerance))
    ENDS = [1.0, 1.0].freeze

    # @param position [Numeric] ticks
    # @return [Float] 0..1 of the segment
    def share_at(position) = (position - @origin) / @length

    # Positions strictly between two where a line chain must turn to stay within `tolerance`, when the values of this
    # segment are worth `worth` each.
    def breaks(from, to, worth, tolerance)
      return [] if @straight

      # Ends on the {Grid} may lie a little outside.
      u0, u1 = share_at(from).clamp(0.0, 1.0), share_at(to).clamp(0.0, 1.0)
      rise = (@shape.weight(u1) - @shape.weight(u0)) * @rise * worth
      @shape.cut(u0, u1).breaks(rise, tolerance).map { |u| from + ((to - from) * u) }
    end

    # What is known of the curve between two positions, {Jet} per tick of the envelope.
    def jet(from, to)
      return Jet.level(@a) if @still

      u0, u1 = share_at(from).clamp(0.0, 1.0), share_at(to).clamp(0.0, 1.0)
      low, high = [at(from), at(to)].minmax
      size = @rise.abs
      Jet.new(low, high, size * @shape.slope_most(u0, u1) / @length,
              size * @shape.bend_most(u0, u1) / (@length * @length))
    end

    # What never changes of a segment for a scale and a tolerance, kept with it: one thing at a time.
    def keep(scale, tolerance)
      # Read and put in one piece: several threads may ask at a time.
      kept = @kept
      return kept[2] if kept && kept[0].equal?(scale) && kept[1] == tolerance

      made = yield
      @kept = [scale, tolerance, made].freeze
      made
    end

    private

    # Whether corners a little off the curve are still values that can be.
    def room?(tolerance) = [@a, @b].min >= tolerance && [@a, @b].max <= 1 - tolerance

    def fill_straight(values, ticks, first, last, zero)
      a, rise, origin, length = @a, @rise, @origin, @length
      while first < last
        values[first] = a + (rise * ((ticks[first] - zero - origin) / length))
        first += 1
      end
    end
  end
end
