# frozen_string_literal: true

module KindSatchel
  module Heard
    # What a parameter's heard value adds up to over song ticks, and back: the phase of an LFO is the integral of its
    # rate. Exact where there is a closed form, by Gauss-Legendre quadrature good to {BOUND} elsewhere, cut at every
    # corner, limit and step.
    #
    # Stretches are made as they are asked for, from the first tick on.
    #
    # A `law` makes the stretches of one arc: see {Integral::CyclesLaw}, {Integral::ClockLaw}.
    class Integral
      # Of each stretch.
      BOUND = 1e-11
      # So far is looked ahead at a time, in ticks.
      AHEAD = 4 * 4 * Timing::PPQ

      # @param signal [#pieces] of the rate, see {Evaluation}
      # @param from [Integer] where it is 0
      def initialize(signal, from, law)
        @signal = signal
        @end = from
        @law = law
        @stretches = []
        @lock = Mutex.new
      end

      # @param tick [Numeric] from the first on
      # @return [Float]
      def at(tick) = stretch_at(tick).sum_at(tick)

      # How far it is worked out, in ticks.
      def reached = @end

      # The stretches that reach into from...to, in order.
      # @yieldparam stretch [#from, #to, #sum_at, #tick_of, #pace_jet]
      def each(from, to)
        extend_to(to)
        place = @stretches.bsearch_index { |one| one.to > from } || (@stretches.size - 1)
        while place < @stretches.size && @stretches[place].from < to
          yield @stretches[place]
          place += 1
        end
      end

      # The stretch that holds from a tick on.
      def stretch_at(tick)
        extend_to(tick + 1)
        @stretches.bsearch { |one| one.to > tick } || @stretches.last
      end

      # The stretch that comes to a tick.
      def stretch_before(tick)
        extend_to(tick)
        @stretches.bsearch { |one| one.to >= tick } || @stretches.last
      end

      # The stretch in which a sum is reached; the last one where it never is.
      def stretch_of(sum)
        extend_to(@end + AHEAD) while @end <= Timing::LAST_TICK && (@stretches.empty? || @stretches.last.total < sum)
        @stretches.bsearch { |one| one.total >= sum } || @stretches.last
      end

      private

      # One thread at a time: songs are read by several.
      def extend_to(tick)
        @lock.synchronize { extend_by_turns(tick) } if @end < tick
      end

      def extend_by_turns(tick)
        while @end < tick
          to = [[@end + AHEAD, tick].max.ceil, Timing::LAST_TICK + 1].min
          Within.arcs(@signal, @end, to).each { |arc| @law.stretches(arc, sum) { |stretch| @stretches << stretch } }
          @end = to
          break if to > Timing::LAST_TICK
        end
      end

      def sum = @stretches.empty? ? 0.0 : @stretches.last.total
    end
  end
end
