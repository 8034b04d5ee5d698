# frozen_string_literal: true

module KindSatchel
  module Scales
    # low (high/low)^n: cutoff, rates, delay time. Equal travel is an equal musical interval.
    #
    # @example
    #   Log.new(low: 20, high: 20_000, unit: Units::HERTZ).text(0.5) #=> "632 Hz"
    class Log < Value.of(:low, :high, :unit)
      include Scale

      def check
        number!("/low", low, 1e-6..1e9)
        fault!("out_of_range", "/high", "A log scale ends above its start.") unless high > low
        @ratio = high / low.to_f
        @engine_low = low * unit.engine_factor
      end

      attr_reader :ratio

      def engine(value) = @engine_low * (@ratio**value)
      def natural(value) = low * (@ratio**value)
      def normalised(natural) = natural.positive? ? Math.log(natural / low.to_f) / Math.log(@ratio) : -Float::INFINITY

      def linear? = false

      # A straight ramp in natural units under an exponential strays by the same share of travel wherever it
      # stands, so equal steps are the fewest. With q = ratio^step and s = (q - 1)/ln q, the ramp 1 + (q - 1)u
      # strays from q^u by at most (ln s - 1 + 1/s)/ln ratio of the travel: where both logarithms rise alike.
      def breaks(from, to, tolerance)
        count = ((to - from).abs / ramp(tolerance).alone).ceil
        return [] if count < 2

        Array.new(count - 1) { |i| from + ((to - from) * (i + 1) / count) }
      end

      # Equal steps of travel are equal factors in the engine's unit.
      def ramp(tolerance) = memo(tolerance) { Ramp.new(@engine_low, Math.log(@ratio), tolerance) }

      # Lines of travel as ramps, see {Scale#ramp}. An exponential lies under its chords; inner corners lie as far
      # below it as the chords between them stray above, both ends on it.
      class Ramp
        # @return [Float] the widest step with both ends on the curve
        attr_reader :alone

        # @param low [Float] the engine's value at 0
        # @param power [Float] ln of what it grows by over the travel
        def initialize(low, power, tolerance)
          @low = low
          @power = power
          @tolerance = tolerance
          @alone = widest { |step| stray(step * power, 0.0) <= tolerance }
          @inner = widest { |step| stray(step * power, 0.0) <= 2 * tolerance }
          @outer = widest do |step|
            [tolerance, -tolerance].all? { |depth| stray(step * power, depth) + [depth, 0.0].min <= tolerance }
          end
        end

        def line(list, start, from, finish, to)
          width = (to - from).abs
          inner(list, start, from, finish, to) if width > @alone
          list << finish << (@low * Math.exp(to * @power))
        end

        private

        def inner(list, start, from, finish, to)
          room = [from, to].min >= @tolerance
          shares(room, (to - from).abs) do |share|
            value = from + ((to - from) * share)
            list << (start + ((finish - start) * share)) <<
              (@low * Math.exp((room ? value - @tolerance : value) * @power))
          end
        end

        # Places of the corners: where there is room a short step, long ones, a short one; else even steps.
        def shares(room, width, &)
          return even((width / @alone).ceil, &) unless room

          count = [((width - (2 * @outer)) / @inner).ceil, 0].max
          whole = (2 * @outer) + (count * @inner)
          0.upto(count) { |i| yield (@outer + (i * @inner)) / whole }
        end

        def even(count) = 1.upto(count - 1) { |i| yield i / count.to_f }

        # How far a chord lies above the exponential, in travel: its start on the curve, its end `depth` below. With q
        # the factor to its end and s = (q - 1)/ln(factor of the curve), it is (ln s - 1 + 1/s)/ln ratio: where both
        # logarithms rise alike.
        def stray(log_factor, depth)
          return 0.0 if log_factor < 1e-9

          slope = (Math.exp(log_factor - (depth * @power)) - 1) / log_factor
          slope.positive? ? (Math.log(slope) - 1 + (1 / slope)) / @power : 0.0
        end

        # The widest step that holds, found by halving.
        def widest
          low, high = 0.0, 1.0
          50.times do
            middle = (low + high) / 2
            yield(middle) ? low = middle : high = middle
          end
          low
        end
      end
    end
  end
end
