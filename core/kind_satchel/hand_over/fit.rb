# frozen_string_literal: true

module KindSatchel
  module HandOver
    # As few straight lines as keep a course within a tolerance; where only so many points are allowed, or only so
    # near to each other, those that matter most: from the ends on, always the corner that lies furthest from the
    # lines so far (the order in which Ramer-Douglas-Peucker finds them).
    class Fit
      # A stretch between two points, and its worst corner; corners `low` to `high` lie inside.
      Gap = Struct.new(:worst, :corner, :from, :to, :low, :high)

      # Corners of a stretch; and how many points have room in it at least.
      STRETCH = 64
      LEAST_STRETCHES = 16

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

      # @return [Array<Array(Integer, Float)>] tick and value, in order, straight lines between; values as the other
      #   side keeps them
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

      def crowded?
        @ticks.each_cons(2).any? { |from, to| to == from || @tempo.seconds_at(to) - @tempo.seconds_at(from) < @apart }
      end

      def chosen
        ends = [[@ticks[0], @values[0]], [@ticks[-1], @values[-1]]]
        kept = ends.dup
        @open = []
        started(kept)
        while kept.size < @most && (gap = @open.pop)
          point, before, after = place(gap)
          next unless point

          kept << point
          look(gap.from, point, gap.low, before)
          look(point, gap.to, after, gap.high)
        end
        ordered(kept.sort_by.with_index { |(tick, _), i| [tick, i] })
      end

      # Where there may be any number of points, a long course is looked at in stretches from one sharp corner to the
      # next, which are few: each corner is then looked at some times less.
      def started(kept)
        from, low = kept[0], 1
        sharp.each do |i|
          to = [@ticks[i], @values[i]]
          kept << to
          look(from, to, low, i - 1)
          from, low = to, i + 1
        end
        look(from, kept[1], low, @ticks.size - 2)
      end

      # In each stretch of so many corners the one at which the course turns most, none near to another.
      def sharp
        return [] unless @apart && @most == Float::INFINITY

        last = @ticks[0]
        (STRETCH...(@ticks.size - STRETCH)).step(STRETCH).filter_map do |first|
          i = (first...(first + (STRETCH / 2))).max_by { |corner| turn(corner) }
          next if @ticks[i] - last < LEAST_STRETCHES * (@apart_ticks || @ticks[-1])

          last = @ticks[i]
          i
        end
      end

      # By how much the pace of the course changes at a corner; 0 beside a jump.
      def turn(corner)
        one, two = @ticks[corner] - @ticks[corner - 1], @ticks[corner + 1] - @ticks[corner]
        return 0 if one.zero? || two.zero?

        (((@values[corner + 1] - @values[corner]) / two) - ((@values[corner] - @values[corner - 1]) / one)).abs
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

        after = after(gap, tick)
        [[tick, between(after, tick)], after - 1, after]
      end

      # The first corner past a tick, looked for from the worst one on, which is near.
      def after(gap, tick)
        after = gap.corner
        after -= 1 while after > gap.low && @ticks[after - 1] > tick
        after += 1 while after <= gap.high && @ticks[after] <= tick
        after
      end

      # On the line that leads to a corner; of a jump the later value.
      def between(after, tick)
        from, to = @ticks[after - 1], @ticks[after]
        @values[after - 1] + ((@values[after] - @values[after - 1]) * (tick - from) / (to - from).to_f)
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
