# frozen_string_literal: true

module KindSatchel
  module Shapes
    # a + (b - a) (e^(ku) - 1)/(e^k - 1) with k = 8 curve, curve in -1..1. At 0 it is straight; with
    # k = ln(b/a) it is exactly an exponential ramp (W3C Web Audio API 1.0, exponentialRampToValueAtTime).
    #
    # @example
    #   Curved.new(curve: 0.5).weight(0.5).round(3) #=> 0.119
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
        @half = Math.exp(@steepness / 2) - 1
        @steep = @steepness.abs > SMALL
      end

      def weight(position)
        return (Math.exp(@steepness * position) - 1) / @whole if @steep
        return position if flat?

        Curved.exp_less_one(@steepness * position) / @whole
      end

      def weigh(values, first, last, start, rise)
        return super unless @steep

        steepness, whole = @steepness, @whole
        while first < last
          values[first] = start + (rise * ((Math.exp(steepness * values[first]) - 1) / whole))
          first += 1
        end
      end

      # Both derivatives are largest at an end.
      def slope_most(from, to)
        return 1.0 if flat?

        (@steepness / @whole) * Math.exp(@steepness * (@steepness.positive? ? to : from))
      end

      def bend_most(from, to) = @steepness.abs * slope_most(from, to)

      def position_of(wanted) = flat? ? wanted : Math.log(1 + (wanted * @whole)) / @steepness

      # Corners lie where the root of the second derivative has gathered equal shares, which makes the errors of
      # the chords equal to the first order; then the exact error of the largest is held against the tolerance.
      # With r = 1 + (e^(k/2) - 1) i/count the corner lies at 2 ln r / k, and has the weight (r^2 - 1)/(e^k - 1).
      def breaks(rise, tolerance)
        count = corner_count(rise, tolerance)
        (1...count).map { |i| Math.log(root(i, count)) * 2 / @steepness }
      end

      # Where the values leave room, inner corners stand as far off the curve on its hollow side as the chords between
      # them stray on the other, which takes fewer of them.
      def chain(rise, tolerance, room)
        return [1.0, 1.0] if corner_count(rise, tolerance) == 1
        return outer_chain(rise, tolerance) unless room

        Hollow.new(@half, tolerance * @whole.abs / rise.abs).chain(@steepness, @whole)
      end

      def cut(from, to, *) = from.zero? && to == 1 ? self : with(curve: curve * (to - from))
      def straight? = flat?
      def reversed(_ends) = memo(:reversed) { with(curve: -curve) }
      def settings = { "curve" => curve }
      def text = "curved #{format('%.2f', curve)}"

      private

      def flat? = @steepness.abs < FLAT

      def root(place, count) = 1 + (@half * place / count)

      # Corners on the curve.
      def outer_chain(rise, tolerance)
        count = corner_count(rise, tolerance)
        inner = (1...count).flat_map do |i|
          root(i, count).then { |root| [Math.log(root) * 2 / @steepness, ((root * root) - 1) / @whole] }
        end
        inner << 1.0 << 1.0
      end

      # The first and the last of so many chords.
      def chords(count) = [[1.0, root(1, count)], [root(count - 1, count), 1 + @half]]

      # The errors of chords with equal shares go one way from the first to the last, so the two of them tell.
      def corner_count(rise, tolerance)
        size = rise.abs
        # A bend lies within |k|/8 of its chord.
        return 1 if size * @steepness.abs <= 8 * tolerance

        factor = size / @whole.abs
        count = [(2 * @half.abs * Math.sqrt(factor / (8 * tolerance))).floor, 1].max
        count += 1 until chords(count).all? { |ends| stray(*ends) * factor <= tolerance }
        count
      end

      # A chord over e^(ku) from u0, wide x = k (u1 - u0), strays by e^(k u0) (1 + s ln s - s), s = (e^x - 1)/x; here
      # by the roots e^(k u0 / 2) and e^(k u1 / 2).
      def stray(from, to)
        pace = to / from
        slope = ((pace * pace) - 1) / (2 * Math.log(pace))
        from * from * (1 + (slope * Math.log(slope)) - slope).abs
      end
    end
  end
end
