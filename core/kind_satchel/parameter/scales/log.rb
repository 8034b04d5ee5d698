# frozen_string_literal: true

module KindSatchel
  module Scales
    # low (high/low)^n: cutoff, rates, delay time. Equal travel is an equal musical interval.
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
        count = ((to - from).abs / widest(tolerance)).ceil
        return [] if count < 2

        Array.new(count - 1) { |i| from + ((to - from) * (i + 1) / count) }
      end

      # Equal steps of travel are equal factors in the engine's unit.
      def ramp(tolerance) = Ramp.new(@engine_low, Math.log(@ratio), widest(tolerance))

      # Lines of travel as ramps, see {Scale#ramp}.
      class Ramp
        def initialize(low, octaves, widest)
          @low = low
          @octaves = octaves
          @widest = widest
        end

        def line(list, start, from, finish, to)
          rise = to - from
          inner(list, start, finish, rise, (rise.abs / @widest).ceil) if rise > @widest || rise < -@widest
          list << finish << (@low * Math.exp(to * @octaves))
        end

        private

        def inner(list, start, finish, rise, count)
          engine, factor = list[-1], Math.exp(rise / count * @octaves)
          width, i = (finish - start) / count.to_f, 1
          while i < count
            list << (start + (width * i)) << (engine *= factor)
            i += 1
          end
        end
      end

      private

      def widest(tolerance) = memo(tolerance) { search_widest(tolerance) }

      def search_widest(tolerance)
        low_step, high_step = 0.0, 1.0
        40.times do
          middle = (low_step + high_step) / 2
          stray(middle) <= tolerance ? low_step = middle : high_step = middle
        end
        low_step
      end

      def stray(step)
        log_q = step * Math.log(@ratio)
        return 0.0 if log_q < 1e-9

        slope = (Math.exp(log_q) - 1) / log_q
        (Math.log(slope) - 1 + (1 / slope)) / Math.log(@ratio)
      end
    end
  end
end
