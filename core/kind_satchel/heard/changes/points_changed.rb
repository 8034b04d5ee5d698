# frozen_string_literal: true

module KindSatchel
  module Heard
    class Changes
      # The stretch of its own time in which an envelope differs from what it was.
      module PointsChanged
        module_function

        # @param was [Envelope, nil]
        # @param is [Envelope, nil]
        # @return [Array(Integer, Integer), nil] from, to; nil when it changed as a whole
        def between(was, is)
          return unless was && is && was.points.any? && is.points.any? && was.with(points: []) == is.with(points: [])

          differing(was.points, is.points)
        end

        # Bounds at points that stayed, with a segment that stayed between them and all that changed: so the curve is
        # the same on both sides of a bound, also where it jumps.
        def differing(old, new)
          first = alike_from(old, new) { |i| i }
          last = alike_from(old.drop(first), new.drop(first)) { |i| -1 - i }
          ticks = changed_ticks(old, new, first, last)
          before = old.first(first).map(&:tick).select { |tick| tick < ticks.min }.uniq
          after = new.last(last).map(&:tick).select { |tick| tick > ticks.max }.uniq
          [before[-2] || 0, after[1] || (Timing::LAST_TICK + 1)]
        end

        # How many points are the same things, in the order a block gives.
        def alike_from(old, new)
          shared = [old.size, new.size].min
          (0...shared).find { |i| !old[yield(i)].equal?(new[yield(i)]) } || shared
        end

        def changed_ticks(old, new, first, last)
          ticks = [old, new].flat_map { |points| points[first...(points.size - last)] }.map(&:tick)
          ticks.empty? ? [new[[first - 1, 0].max].tick] : ticks
        end
        private_class_method :differing, :alike_from, :changed_ticks
      end
    end
  end
end
