# frozen_string_literal: true

module KindSatchel
  module Heard
    class Integral
      # An arc without a closed form, short enough for one Gauss-Legendre sum.
      class Quadrature
        include Stretch

        NODES = 12
        # What a series may leave out of a stretch, in cycles.
        ROOM = 2e-11
        SHORTEST = 1 / 1024.0
        # Shorter stretches, in ticks, are judged by sums too.
        HALVED = 1.0
        NEWTON = 60
        # In ticks: after a step this short the next is of no account, as it goes with its square.
        NEAR = 1e-5

        # Places and weights on -1..1, the roots of the Legendre polynomial by Newton's method (Abramowitz and Stegun
        # 25.4.29).
        TABLE = (1..NODES).map do |i|
          x = Math.cos(Math::PI * (i - 0.25) / (NODES + 0.5))
          slope = nil
          20.times do
            p0, p1 = 1.0, x
            (2..NODES).each { |k| p0, p1 = p1, ((((2 * k) - 1) * x * p1) - ((k - 1) * p0)) / k }
            slope = NODES * ((x * p1) - p0) / ((x * x) - 1)
            x -= p1 / slope
          end
          [x, 2 / ((1 - (x * x)) * slope * slope)].freeze
        end.freeze

        # Halves an arc until the series of each part is good; where that would go on for ever, until the sum over the
        # whole agrees with that over its halves.
        def self.stretches(arc, sum, law, from = arc.from, to = arc.to)
          todo = [[from.to_f, to.to_f]]
          until todo.empty?
            from, to = todo.pop
            one = new(arc, from, to, sum, law)
            if to - from > SHORTEST && !one.good?
              middle = (from + to) / 2
              todo << [middle, to] << [from, middle]
            else
              yield one
              sum = one.total
            end
          end
        end

        attr_reader :from, :to

        def initialize(arc, from, to, sum, law)
          @arc, @from, @to, @sum, @law = arc, from, to, sum, law
        end

        def sum_at(tick) = @sum + (series ? series.sum(tick) : gauss(@from, tick))
        def total = @total ||= sum_at(@to)
        def even? = false

        # By Newton's method, kept inside by halving; never where it is not reached.
        def tick_of(wanted)
          return Float::INFINITY if wanted > total

          low, high, tick = bracket(wanted)
          goal = wanted - @sum
          NEWTON.times do
            apart = (series ? series.sum(tick) : gauss(@from, tick)) - goal
            step = apart / (series ? series.pace(tick) : @law.pace_at(@arc, tick))
            return tick - step if step.abs < NEAR

            apart.positive? ? high = tick : low = tick
            tick -= step
            tick = (low + high) / 2 unless tick > low && tick < high
          end
          tick
        end

        # (see Stretch#tick_about)
        def tick_about(wanted) = wanted <= total && series ? series.about(wanted - @sum) : tick_of(wanted)

        def pace_jet(from, to) = @law.pace_jet(@arc, from, to)

        # Between which ticks a sum is reached, and about where.
        def bracket(wanted)
          if series
            series.bracket(wanted - @sum)
          else
            [@from, @to,
             @from + ((@to - @from) * ((wanted - @sum) / (total - @sum)).clamp(0.0, 1.0))]
          end
        end

        # Whether it needs not be halved.
        def good?
          return true if series

          middle = (@from + @to) / 2
          @to - @from < HALVED && (gauss(@from, middle) + gauss(middle, @to) - gauss(@from, @to)).abs < BOUND
        end

        # The pace as a series, worked out once: asked for at many ticks it costs far less than as many sums. nil
        # where it would not be as good.
        def series
          return @series unless @series.nil?

          made = Series.new(@from, @to) { |tick| @law.pace_at(@arc, tick) }
          @series = made.rest < ROOM && made.ready
        end

        # @return [Float] the integral by Gauss-Legendre (Abramowitz and Stegun, 25.4.30)
        def gauss(from, to)
          half, middle = (to - from) / 2.0, (from + to) / 2.0
          TABLE.sum { |place, weight| weight * @law.pace_at(@arc, middle + (half * place)) } * half
        end
      end
    end
  end
end
