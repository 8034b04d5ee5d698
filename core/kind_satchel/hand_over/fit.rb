# frozen_string_literal: true

module KindSatchel
  module HandOver
    # As few straight lines as keep a course within a tolerance; where only so many points are allowed, or only so near to each other, those
    # that matter most: from the ends on, always the corner that lies furthest from the lines so far (the order in which
    # Ramer-Douglas-Peucker finds them).
    class Fit
      # A stretch between two points, and its worst corner; corners `low` to `high` lie inside.
      Gap = Struct.new(:worst, :corner, :from, :to, :low, :high)

      # @param course [Course]
      # @param tempo [Timing::TempoMap, Heard::SongClock]
      # @param limits [Limits]
      def initialize(course, tempo, limits)
        @ticks = course.ticks
        @values = course.values
        @course = course
        @tempo = tempo
        @limits = limits
        @apart = limits.points_per_second && ((1.0 / limits.points_per_second) - 1e-9)
        @apart_ticks = @apart && tempo.steady_pace && (@apart / tempo.steady_pace).ceil
        @most = limits.points_per_lane || Float::INFINITY
      end

      # @return [Array<Array(Integer, Float)>] tick and value, in order, straight lines between; values as the other side keeps them
      def points
        places = plain || chosen
        @limits.largest ? places.map { |tick, value| [tick, @limits.rounded(value)] } : places
      end

      private

      # The fewest within the tolerance, where these are few enough and far enough apart.
      def plain
        return if @apart && crowded?

        kept = Thinning.keep(@ticks, @values, @limits.tolerance)
        kept.map { |i| [@ticks[i], @values[i]] } if kept.size <= @most
      end

      def crowded? = @ticks.each_cons(2).any? { |from, to| to == from || @tempo.seconds_at(to) - @tempo.seconds_at(from) < @apart }

      def chosen
        ends = [[@ticks[0], @values[0]], [@ticks[-1], @values[-1]]]
        kept = ends.dup
        @open = []
        look(*ends, 1, @ticks.size - 2)
        while kept.size < @most && (gap = @open.pop)
          point, before, after = place(gap)
          next unless point

          kept << point
          look(gap.from, point, gap.low, before)
          look(point, gap.to, after, gap.high)
        end
        ordered(kept.sort_by.with_index { |(tick, _), i| [tick, i] })
      end

      # Two on one tick stand in the order of the course.
      def ordered(list)
        list.each_cons(2).with_index do |(one, other), i|
          next unless one[0] == other[0]

          before = @values[@ticks.bsearch_index { |tick| tick >= one[0] }]
          list[i], list[i + 1] = other, one if (one[1] - before).abs > (other[1] - before).abs
        end
        list
      end

      # Finds the worst corner of a stretch, and has it wait for its turn: the worst first, where not all come to it.
      def look(from, to, first, last)
        return if first > last || (@apart && to[0] - from[0] < 2 * (@apart_ticks || 1))

        width = (to[0] - from[0]).to_f
        slope = width.zero? ? 0.0 : (to[1] - from[1]) / width
        foot, above, corner = from[1] - (slope * from[0]), @limits.tolerance, nil
        below = -above
        i = first
        while i <= last
          off = @values[i] - foot - (slope * @ticks[i])
          above, below, corner = off.abs, -off.abs, i if off > above || off < below
          i += 1
        end
        wait(Gap.new(above, corner, from, to, first, last)) if corner
      end

      def wait(gap)
        return @open << gap if @most == Float::INFINITY

        @open.insert(@open.bsearch_index { |other| other.worst >= gap.worst } || @open.size, gap)
      end

      # @return [Array, nil] the point, and the corners before and after it; nil where there is no room
      def place(gap)
        i = gap.corner
        return [[@ticks[i], @values[i]], i - 1, i + 1] unless @apart

        tick = room(gap, @ticks[i]) or return
        return [[tick, @values[i]], i - 1, i + 1] if tick == @ticks[i]

        after = (gap.low..gap.high).bsearch { |corner| @ticks[corner] > tick } || (gap.high + 1)
        [[tick, @course.at(tick)], after - 1, after]
      end

      # The nearest tick that keeps its distance on both sides.
      def room(gap, tick)
        return tick.clamp(gap.from[0] + @apart_ticks, gap.to[0] - @apart_ticks) if @apart_ticks

        least = @tempo.tick_at(@tempo.seconds_at(gap.from[0]) + @apart).ceil
        most = @tempo.tick_at(@tempo.seconds_at(gap.to[0]) - @apart).floor
        tick.clamp(least, most) if least <= most
      end
    end
  end
end
