# frozen_string_literal: true

module KindSatchel
  module Heard
    # Breaks any smooth curve into few chords. Used where no closed form is at hand: several shapes at once.
    module Fit
      CHECKS = [0.5, 0.25, 0.75, 0.125, 0.375, 0.625, 0.875, 0.0625, 0.9375].freeze
      # The checks stand so close that between them a smooth curve strays at most this much further.
      MARGIN = 0.95
      # Chords are never made shorter than this share of the whole stretch.
      SHORTEST = 1.0 / 4096

      module_function

      # From the left, each chord as long as it can be.
      # @yieldparam tick [Float] yields the curve's value at a tick
      # @return [Array<Float>] ticks strictly between `from` and `to`
      def breaks(from, to, tolerance, &curve)
        list = []
        at = from
        while (at = farthest(at, to, (to - from) * SHORTEST, tolerance * MARGIN, curve)) < to
          list << at
        end
        list
      end

      def farthest(from, to, shortest, tolerance, curve)
        return to if to - from <= shortest || holds?(from, to, tolerance, curve)

        low, high = [from + shortest, to].min, to
        while high - low > shortest
          middle = (low + high) / 2.0
          holds?(from, middle, tolerance, curve) ? low = middle : high = middle
        end
        low
      end

      def holds?(from, to, tolerance, curve)
        a, b = curve.call(from), curve.call(to)
        CHECKS.all? { |u| (curve.call(from + ((to - from) * u)) - a - ((b - a) * u)).abs <= tolerance }
      end

      private_class_method :farthest, :holds?
    end
  end
end
