# frozen_string_literal: true

module KindSatchel
  # One segment in some time: from value `a` at `start` to `b` at `finish`, by `shape`. A still segment (no rise,
  # or held) has the value `a` throughout.
  Segment = Struct.new(:start, :finish, :a, :b, :shape) do
    def self.still(value) = new(0, 1, value, value, Shapes::Hold::PLAIN)

    def still? = a == b || shape.still?

    def straight? = still? || shape.straight?

    # @param tick [Numeric] within start..finish; at `finish` the value the segment arrives at
    def at(tick)
      return a if still?

      a + ((b - a) * shape.weight((tick - start).fdiv(finish - start)))
    end

    # The segment in another time: `from` there is 0 here, and `rate` ticks here pass per tick there.
    def placed(from, rate)
      return Segment.new(start + from, finish + from, a, b, shape) if rate == 1

      Segment.new(from + (start.to_r / rate), from + (finish.to_r / rate), a, b, shape)
    end

    # Ticks strictly between `from` and `to` where a line chain must turn to stay within `tolerance`, when the
    # values of this segment are worth `worth` each.
    def breaks(from, to, worth, tolerance)
      return [] if straight?

      length = finish - start
      u0, u1 = (from - start).fdiv(length), (to - start).fdiv(length)
      rise = (shape.weight(u1) - shape.weight(u0)) * (b - a) * worth
      shape.cut(u0, u1).breaks(rise, tolerance).map { |u| from + ((to - from) * u) }
    end
  end
end
