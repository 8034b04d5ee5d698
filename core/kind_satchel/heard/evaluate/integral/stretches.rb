# frozen_string_literal: true

module KindSatchel
  module Heard
    class Integral
      # What any stretch can do. Each answers
      #
      # - `from`, `to` song ticks; `total` the sum at `to`
      # - `sum_at(tick)` what has added up by then, `tick_of(wanted)` where it is `wanted`
      # - `pace_at(tick)` how much is added a tick; `pace_jet(from, to)` what is known of that between two ticks
      # - `bend` the most that its sum bends (its second derivative), nil where that is known in closed form
      module Stretch
        # Where a sum is reached, near enough for a corner to be put there.
        def tick_about(wanted) = tick_of(wanted)

        # Writes the inner corners of a chain: position, value, ... becomes tick times `unit`, value, ...; the sum at
        # a position is `first` and `step` times it.
        def place(ramp, first, step, list, unit)
          place, size = 2, ramp.size - 2
          while place < size
            list << (unit * tick_of(first + (step * ramp[place]))) << ramp[place + 1]
            place += 2
          end
        end
      end
      # The same pace throughout.
      Even = Struct.new(:from, :to, :before, :pace) do
        include Stretch

        def sum_at(tick) = before + (pace * (tick - from))
        def tick_of(wanted) = from + ((wanted - before) / pace)
        def total = sum_at(to)
        def even? = true
        def pace_jet(_from, _to) = Jet.level(pace)
      end

      # A pace that grows exponentially by `growth` a tick: the integral is pace (e^(growth d) - 1) / growth.
      class Growing
        include Stretch

        attr_reader :from, :to

        def initialize(from, to, sum, pace, growth)
          @from, @to, @sum, @pace, @growth = from, to, sum, pace, growth
        end

        def sum_at(tick) = @sum + (@pace / @growth * Growing.less_one(@growth * (tick - @from)))

        # Never where the pace dies away before.
        def tick_of(wanted)
          share = @growth * (wanted - @sum) / @pace
          one = 1 + share
          return Float::INFINITY unless one.positive?

          @from + ((one == 1 ? share : Math.log(one) * share / (one - 1)) / @growth)
        end

        # The same as for any, many at a time: all of them are reached.
        def place(ramp, first, step, list, unit)
          place, size = 2, ramp.size - 2
          base, share_step = @growth * (first - @sum) / @pace, @growth * step / @pace
          unit_step, start = unit / @growth, unit * @from
          while place < size
            share = base + (share_step * ramp[place])
            one = 1 + share
            list << (start + (unit_step * (one == 1 ? share : Math.log(one) * share / (one - 1)))) << ramp[place + 1]
            place += 2
          end
        end

        def total = sum_at(@to)
        def even? = false

        def pace_jet(from, to)
          paces = [from, to].map { |tick| @pace * Math.exp(@growth * (tick - @from)) }
          low, high = paces.minmax
          Jet.new(low, high, @growth.abs * high, @growth * @growth * high)
        end

        # e^x - 1, exact for small x too (Kahan's formula, from memory).
        def self.less_one(number)
          power = Math.exp(number)
          power == 1 || power.zero? ? (power.zero? ? -1.0 : number) : (power - 1) * number / Math.log(power)
        end
      end
    end
  end
end
