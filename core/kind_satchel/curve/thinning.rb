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

    # @param ticks [Array<Numeric>] in order
    # @param values [Array<Float>]
    # @param tolerance [Float] in values, 0 or more
    # @return [Array<Integer>] places to keep, the first and the last among them
    def keep(ticks, values, tolerance)
      return (0...ticks.size).to_a if ticks.size < 3

      reached = reach(ticks, values, tolerance)
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
        lower, upper = (rise - tolerance) / width, (rise + tolerance) / width
        low = lower if lower > low
        high = upper if upper < high
        break if low > high

        place += 1
      end
      best
    end

    # Ramer-Douglas-Peucker; nil once it keeps as many as `most`.
    def halved(ticks, values, tolerance, most)
      kept = [0, ticks.size - 1]
      open = [[0, ticks.size - 1]]
      while (from, to = open.pop)
        place, distance = furthest(ticks, values, from, to)
        next unless distance > tolerance

        kept << place
        return if kept.size >= most

        open << [from, place] << [place, to]
      end
      kept.sort
    end

    def furthest(ticks, values, from, to)
      x, y, width = ticks[from], values[from], (ticks[to] - ticks[from]).to_f
      slope = width.zero? ? 0.0 : (values[to] - y) / width
      best, worst, place = from, 0.0, from + 1
      while place < to
        distance = values[place] - y - (slope * (ticks[place] - x))
        distance = -distance if distance.negative?
        best, worst = place, distance if distance > worst
        place += 1
      end
      [best, worst]
    end

    private_class_method :reach, :farthest, :halved, :furthest
  end
end
