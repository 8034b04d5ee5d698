# frozen_string_literal: true

module KindSatchel
  module Heard
    class Integral
      # A rate in cycles to a quarter note on a logarithmic scale, as cycles to a tick: low * ratio^n / 960.
      class CyclesLaw
        # @param scale [Scales::Log]
        def initialize(scale)
          @low = scale.low / Timing::PPQ.to_f
          @power = Math.log(scale.ratio)
        end

        # @return [Float] cycles a tick
        def pace(value) = @low * Math.exp(@power * value)

        # @return [Float] cycles a tick
        def pace_at(arc, tick) = pace(arc.at(tick))
        def pace_jet(arc, from, to) = arc.jet(from, to).power(@power) * Jet.level(@low)

        # @param arc [Arc] normalised
        # @yieldparam stretch
        def stretches(arc, sum, &)
          return yield(Even.new(arc.from, arc.to, sum, pace(arc.at(arc.from)))) if arc.still?
          return Quadrature.stretches(arc, sum, self, &) unless arc.straight?

          first, last = arc.at(arc.from), arc.at(arc.to)
          growth = @power * (last - first) / (arc.to - arc.from)
          yield growth.zero? ? Even.new(arc.from, arc.to, sum,
                                        pace(first)) : Growing.new(arc.from, arc.to, sum, pace(first), growth)
        end
      end

      # A rate in Hz of clock time on a logarithmic scale, as cycles to a tick: what the tempo makes of it. Exact
      # while the rate rests.
      class ClockLaw
        # @param scale [Scales::Log]
        # @param tempo [Timing::TempoMap]
        def initialize(scale, tempo)
          @low, @power, @tempo = scale.low.to_f, Math.log(scale.ratio), tempo
        end

        # @return [Float] cycles a second
        def hertz(value) = @low * Math.exp(@power * value)
        def pace_at(arc, tick) = hertz(arc.at(tick)) * Clocked.beat(@tempo, tick)

        def pace_jet(arc, from, to)
          arc.jet(from, to).power(@power) * Jet.level(@low) * Clocked.beat_jet(@tempo, from, to)
        end

        # @param arc [Arc] normalised
        # @yieldparam stretch
        def stretches(arc, sum, &block)
          [arc.from, *@tempo.changes(arc.from, arc.to), arc.to].each_cons(2) do |from, to|
            still = arc.still? ? [Clocked.new(from, to, sum, hertz(arc.at(from)), @tempo)] : nil
            (still || Quadrature.enum_for(:stretches, arc, sum, self, from, to)).each do |stretch|
              block.call(stretch)
              sum = stretch.total
            end
          end
        end
      end
    end
  end
end
