# frozen_string_literal: true

module KindSatchel
  module Shapes
    # a + (b - a) (e^(ku) - 1)/(e^k - 1) with k = 8 curve, curve in -1..1. At 0 it is straight; with
    # k = ln(b/a) it is exactly an exponential ramp (W3C Web Audio API 1.0, exponentialRampToValueAtTime).
    class Curved < Value.of(:curve)
      include Smooth

      STEEPNESS = 8.0
      # Under this |k| the formula is straight to within a float's precision of the travel.
      FLAT = 1e-15
      # Under this |x|, e^x - 1 is taken through the logarithm, which keeps all its digits.
      SMALL = 0.05

      def self.of(record) = new(curve: record.fetch("curve", 0.0))

      # e^x - 1, with all digits for small x too (Kahan's way by the logarithm).
      def self.exp_less_one(number)
        power = Math.exp(number)
        return power - 1 if number.abs > SMALL

        power == 1 ? number : (power - 1) * number / Math.log(power)
      end

      def check
        number!("/curve", curve, -1..1)
        @steepness = STEEPNESS * curve
        @whole = Curved.exp_less_one(@steepness)
      end

      def weight(position)
        return (Math.exp(@steepness * position) - 1) / @whole if @steepness > SMALL || @steepness < -SMALL
        return position if flat?

        Curved.exp_less_one(@steepness * position) / @whole
      end

      # Both derivatives are largest at an end.
      def slope_most(from, to)
        return 1.0 if flat?

        (@steepness / @whole) * Math.exp(@steepness * (@steepness.positive? ? to : from))
      end

      def bend_most(from, to) = @steepness.abs * slope_most(from, to)

      def position_of(wanted) = flat? ? wanted : Math.log(1 + (wanted * @whole)) / @steepness

      # Corners lie where the root of the second derivative has gathered equal shares, which makes the errors of
      # the chords equal to the first order; then the exact error of each chord is held against the tolerance.
      def breaks(rise, tolerance)
        # A bend lies within |k|/8 of its chord.
        return [] if rise.abs * @steepness.abs <= 8 * tolerance

        memo([rise.abs, tolerance]) { few_corners(rise.abs / @whole.abs, tolerance)[1..-2] }
      end

      def cut(from, to, *) = from.zero? && to == 1 ? self : with(curve: curve * (to - from))
      def straight? = flat?
      def reversed(_ends) = memo(:reversed) { with(curve: -curve) }
      def settings = { "curve" => curve }
      def text = "curved #{format('%.2f', curve)}"

      private

      attr_reader :steepness

      def flat? = @steepness.abs < FLAT

      def few_corners(factor, tolerance)
        count = [estimate(factor, tolerance), 1].max
        loop do
          list = corners(count)
          return list if within?(list, factor, tolerance)

          count += 1
        end
      end

      def estimate(factor, tolerance)
        gathered = 2 * (Math.exp(steepness / 2) - 1).abs * Math.sqrt(factor)
        (gathered / Math.sqrt(8 * tolerance)).floor
      end

      def corners(count)
        top = Math.exp(steepness / 2) - 1
        (0..count).map { |i| Math.log(1 + (top * i / count)) * 2 / steepness }
      end

      # A chord over e^(ku) from u0, wide x = k (u1 - u0), strays by e^(k u0) (1 + s ln s - s), s = (e^x - 1)/x.
      def within?(list, factor, tolerance)
        list.each_cons(2).all? do |from, to|
          width = steepness * (to - from)
          slope = (Math.exp(width) - 1) / width
          factor * Math.exp(steepness * from) * (1 + (slope * Math.log(slope)) - slope).abs <= tolerance
        end
      end
    end
  end
end
