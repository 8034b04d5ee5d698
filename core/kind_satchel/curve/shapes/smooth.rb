# frozen_string_literal: true

module KindSatchel
  module Shapes
    # A shape without a corner that goes one way. It answers, on top of what every shape does:
    #
    # - `weight(u)`  how far from the first value to the second the segment has come at u in 0..1
    # - `weigh(values, first, last, a, rise)` puts a + rise * weight(u) in place of every u of values[first...last]
    # - `slope_most(u0, u1)`, `bend_most(u0, u1)` upper bounds of the first and second derivative of the weight there
    # - `breaks(rise, tolerance)` the u strictly between 0 and 1 where a line chain must turn to stay within
    #   `tolerance` of a segment that rises by `rise`
    # - `position_of(wanted)` the u at which the weight is `wanted`, 0..1
    # - `still?`     whether it stays on its first value until the next point
    # - `straight?`  whether it needs no breaks at all
    module Smooth
      def parts(ends) = [Part.new(0, 1, ends.a, ends.b, self)]
      def scaled(_factor) = self
      def still? = false
      def straight? = false

      def weigh(values, first, last, start, rise)
        while first < last
          values[first] = start + (rise * weight(values[first]))
          first += 1
        end
      end

      # @param _room [Boolean] whether corners may lie off the curve
      # @return [Array<Float>] u, weight, u, weight, ... of the corners of such a chain, after the first; the last is
      #   1, 1
      def chain(rise, tolerance, _room) = breaks(rise, tolerance).flat_map { |u| [u, weight(u)] }.push(1.0, 1.0)

      # The position at which the weight is reached; found by halving, since the weight goes one way.
      # @param wanted [Float] 0..1
      def position_of(wanted)
        low, high = 0.0, 1.0
        53.times do
          middle = (low + high) / 2
          weight(middle) < wanted ? low = middle : high = middle
        end
        high
      end
    end
  end
end
