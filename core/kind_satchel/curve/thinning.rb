# frozen_string_literal: true

module KindSatchel
  # Leaves out what matters less than a tolerance: of a line chain, as few corners as keep every other one within
  # `tolerance` of the lines between those that stay.
  #
  # From each corner the line is led as far as some corner can be reached (the cone of slopes that pass all between).
  # Ramer-Douglas-Peucker is run beside it, and the shorter answer taken; so there are never more points than it keeps.
  # Distances are measured in value, along the line of time.
  module Thinning
    # So many corners past the last one reached, the search for a further one ends.
    PATIENCE = 2000

    module_function

    # @example
    #   Thinning.keep([0, 1, 2, 3], [0.0, 0.1, 0.2, 0.9], 0.01) #=> [0, 2, 3]
    # @param ticks [Array<Numeric>] in order
    # @param values [Array<Float>]
    # @param tolerance [Float, Array<Float>] in values, 0 or more; one for all corners, or one for each
    # @return [Array<Integer>] places to keep, the first and the last among them
    def keep(ticks, values, tolerance)
      return (0...ticks.size).to_a if ticks.size < 3

      reached = reach(ticks, values, tolerance.is_a?(Array) ? tolerance : Array.new(ticks.size, tolerance))
      halved(ticks, values, tolerance, reached.size) || reached
    end

    def reach(ticks, values, tolerance)
      list, at, end_place = [0], 0, ticks.size - 1
      list << (at = farthest(ticks, values, tolerance, at)) while at < end_place
      list
    end

    def farthest(ticks, values, tolerance, start)
      x, y = ticks[start], values[start]
      low, high, best = -Float::INFINITY, Float::INFINITY, start + 1
      place, size = start + 1, ticks.size
      while place < size && place - best < PATIENCE
        width = (ticks[place] - x).to_f
        break if width.zero?

        rise = values[place] - y
        slope = rise / width
        best = place if slope.between?(low, high)
        room = tolerance[place]
        lower, upper = (rise - room) / width, (rise + room) / width
        low = lower if lower > low
        high = upper if upper < high
        break if low > high

        place += 1
      end
      best
    end

    # Ramer-Douglas-Peucker; nil once it keeps as many as `most`.
    def halved(ticks, values, tolerance, most)
      ticks = ticks.map(&:to_f)
      kept = [0, ticks.size - 1]
      open = [[0, ticks.size - 1]]
      while (from, to = open.pop)
        place = if tolerance.is_a?(Array)
                  furthest_of(ticks, values, tolerance, from,
                              to)
                else
                  furthest(ticks, values, tolerance, from, to)
                end
        next unless place

        kept << place
        return if kept.size >= most

        open << [from, place] << [place, to]
      end
      kept.sort
    end

    # The corner that lies furthest from the line between two; nil where all keep to the tolerance.
    def furthest(ticks, values, tolerance, from, to)
      slope, foot = line(ticks, values, from, to)
      best, above, below, place = nil, tolerance, -tolerance, from + 1
      while place < to
        distance = values[place] - foot - (slope * ticks[place])
        if distance > above
          best, above, below = place, distance, -distance
        elsif distance < below
          best, above, below = place, -distance, distance
        end
        place += 1
      end
      best
    end

    # The same where each corner has a tolerance of its own: the one furthest outside of it.
    def furthest_of(ticks, values, tolerance, from, to)
      slope, foot = line(ticks, values, from, to)
      best, worst, place = nil, 0.0, from + 1
      while place < to
        outside = (values[place] - foot - (slope * ticks[place])).abs - tolerance[place]
        best, worst = place, outside if outside > worst
        place += 1
      end
      best
    end

    # Slope, and the value at tick 0.
    def line(ticks, values, from, to)
      width = ticks[to] - ticks[from]
      slope = width.zero? ? 0.0 : (values[to] - values[from]) / width
      [slope, values[from] - (slope * ticks[from])]
    end

    private_class_method :reach, :farthest, :halved, :furthest, :furthest_of, :line
  end
end
