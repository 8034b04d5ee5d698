# frozen_string_literal: true

module KindSatchel
  module Heard
    # What a parameter's heard value adds up to over song ticks, and back: the phase of an LFO is the integral of its rate. Exact where
    # there is a closed form, by Gauss-Legendre quadrature good to {BOUND} elsewhere, cut at every corner, limit and step.
    #
    # Stretches are made as they are asked for, from the first tick on.
    #
    # A `law` makes the stretches of one arc: see {Integral::CyclesLaw}, {Integral::ClockLaw}.
    class Integral
      # Of each stretch.
      BOUND = 1e-11
      # So far is looked ahead at a time, in ticks.
      AHEAD = 4 * 4 * Timing::PPQ

      # @param resolver [Resolver]
      # @param from [Integer] where it is 0
      def initialize(resolver, from, law)
        @resolver = resolver
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
          Within.arcs(@resolver, @end, to).each { |arc| @law.stretches(arc, sum) { |stretch| @stretches << stretch } }
          @end = to
          break if to > Timing::LAST_TICK
        end
      end

      def sum = @stretches.empty? ? 0.0 : @stretches.last.total

      # A rate in cycles to a quarter note on a logarithmic scale, as cycles to a tick: low * ratio^n / 960.
      class CyclesLaw
        # @param scale [Scales::Log]
        def initialize(scale)
          @low = scale.low / Timing::PPQ.to_f
          @power = Math.log(scale.ratio)
        end

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
          yield growth.zero? ? Even.new(arc.from, arc.to, sum, pace(first)) : Growing.new(arc.from, arc.to, sum, pace(first), growth)
        end
      end

      # A rate in Hz of clock time on a logarithmic scale, as cycles to a tick: what the tempo makes of it. Exact while the rate rests.
      class ClockLaw
        # @param scale [Scales::Log]
        # @param tempo [Timing::TempoMap]
        def initialize(scale, tempo)
          @low, @power, @tempo = scale.low.to_f, Math.log(scale.ratio), tempo
        end

        def hertz(value) = @low * Math.exp(@power * value)
        def pace_at(arc, tick) = hertz(arc.at(tick)) * Clocked.beat(@tempo, tick)
        def pace_jet(arc, from, to) = arc.jet(from, to).power(@power) * Jet.level(@low) * Clocked.beat_jet(@tempo, from, to)

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

      # The same number of cycles a second, between two changes of tempo.
      class Clocked
        # @return [Float] seconds a tick
        def self.beat(tempo, tick) = 60.0 / Timing::PPQ / tempo.bpm_at([tick, 0].max)

        # With the tempo straight in ticks, 1 / tempo bends as its slope squared over its cube.
        # @return [Jet] the same between two ticks
        def self.beat_jet(tempo, from, to)
          ends = [tempo.bpm_at([from, 0].max), tempo.bpm_before([to, 0].max)]
          slow, fast = ends.minmax
          slope = (fast - slow) / (to - from)
          unit = 60.0 / Timing::PPQ
          Jet.new(unit / fast, unit / slow, unit * slope / (slow**2), 2 * unit * slope * slope / (slow**3))
        end

        attr_reader :from, :to

        def initialize(from, to, before, hertz, tempo)
          @from, @to, @before, @hertz, @tempo = from, to, before, hertz, tempo
          @start = tempo.seconds_at(from)
          @even = tempo.bpm_at([from, 0].max) == tempo.bpm_before([to, 0].max)
        end

        def sum_at(tick) = @before + (@hertz * (@tempo.seconds_at(tick) - @start))
        def tick_of(wanted) = @tempo.tick_at(@start + ((wanted - @before) / @hertz))
        def total = sum_at(@to)
        def even? = @even
        def pace_jet(from, to) = Clocked.beat_jet(@tempo, from, to) * Jet.level(@hertz)
      end

      # What any stretch can do.
      module Stretch
        # Where a sum is reached, near enough for a corner to be put there.
        def tick_about(wanted) = tick_of(wanted)

        # Writes the inner corners of a chain: position, value, ... becomes tick times `unit`, value, ...; the sum at a position is `first` and
        # `step` times it.
        def place(ramp, first, step, list, unit)
          place, size = 2, ramp.size - 2
          while place < size
            list << (unit * tick_of(first + (step * ramp[place]))) << ramp[place + 1]
            place += 2
          end
        end
      end
      Clocked.include(Stretch)

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
          base, share_step, unit_step, start = @growth * (first - @sum) / @pace, @growth * step / @pace, unit / @growth, unit * @from
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

      # A smooth curve over a stretch as a Chebyshev series, and its integral from the start on (Abramowitz and Stegun 22.13; Clenshaw's
      # recurrence, 1955, from memory).
      class Series
        TERMS = 20
        ANGLES = Array.new(TERMS) { |j| Math::PI * (j + 0.5) / TERMS }.freeze
        COSINES = Array.new(TERMS) { |k| ANGLES.map { |angle| Math.cos(k * angle) }.freeze }.freeze

        # @yieldparam tick [Float]
        # @yieldreturn [Float]
        def initialize(from, to)
          @middle, @half = (from + to) / 2.0, (to - from) / 2.0
          values = COSINES[1].map { |place| yield @middle + (@half * place) }
          @last = [TERMS - 2, TERMS - 1].sum { |k| term(k, values).abs } * @half / TERMS
          @values = values
        end

        # What is left out at most, of the integral over the whole stretch, judged by the last terms.
        def rest = @last

        # Worked out only for a series that is used. Of the last terms those are left out that come to nothing beside what is left out anyway.
        def ready
          @terms = Array.new(TERMS) { |k| term(k, @values) }
          @terms[0] /= 2
          @sums = shortened(integrated(@terms))
          @terms = shortened(@terms)
          @values = nil
          self
        end

        # So little, in cycles, over a whole stretch.
        NOTHING = 1e-12

        # So many equal parts are marked.
        PARTS = 16

        # The sums at the ends of equal parts.
        # @return [Array<Float>]
        def marks = @marks ||= ends.map { |tick| sum(tick) }

        # Between which ticks a sum is reached, with a hair of room as marks are rounded, and where the cubic that has the paces of the ends
        # comes to it (Hermite interpolation of the tick by the sum).
        def bracket(wanted)
          place = part_of(wanted)
          low, width = ends[place - 1], 2 * @half / PARTS
          room = width * 1e-6
          [low - room, low + width + room, guess(place, wanted)]
        end

        # Where a sum is reached, by one step from there: so near that nothing is to be seen or heard of the rest, which goes with the square of
        # how far the cubic was off.
        def about(wanted)
          place = part_of(wanted)
          tick = guess(place, wanted)
          low, width = ends[place - 1], 2 * @half / PARTS
          u = (tick - low) / width
          slope = ((1 - u) * @slopes[place - 1]) + (u * @slopes[place])
          (tick - ((sum(tick) - wanted) * slope)).clamp(low, low + width)
        end

        def ends = @ends ||= Array.new(PARTS + 1) { |i| @middle + (@half * ((2.0 * i / PARTS) - 1)) }

        def pace(tick) = clenshaw(@terms, tick)
        def sum(tick) = @half * clenshaw(@sums, tick)

        private

        def part_of(wanted) = (marks.bsearch_index { |sum| sum > wanted } || PARTS).clamp(1, PARTS)

        def guess(place, wanted)
          @slopes ||= ends.map { |tick| 1 / pace(tick) }
          low, width, from, rise = ends[place - 1], 2 * @half / PARTS, @marks[place - 1], @marks[place] - @marks[place - 1]
          u = ((wanted - from) / rise).clamp(0.0, 1.0)
          rest = 1 - u
          tick = low + (u * u * (3 - (2 * u)) * width) + (rise * u * rest * ((rest * @slopes[place - 1]) - (u * @slopes[place])))
          tick.between?(low, low + width) ? tick : low + (u * width)
        end

        def term(number, values)
          row, sum, j = COSINES[number], 0.0, 0
          while j < TERMS
            sum += row[j] * values[j]
            j += 1
          end
          sum * 2.0 / TERMS
        end

        def shortened(terms)
          rest, size = 0.0, terms.size
          size -= 1 while size > 2 && (rest += terms[size - 1].abs) * @half < NOTHING
          terms.first(size)
        end

        # The integral of T_k is (T_k+1 / (k + 1) - T_k-1 / (k - 1)) / 2; the constant makes it 0 at the start.
        def integrated(terms)
          padded = [2 * terms[0], *terms.drop(1), 0.0, 0.0]
          sums = [0.0, *(1..TERMS).map { |k| (padded[k - 1] - padded[k + 1]) / (2.0 * k) }]
          sums[0] = sums.each_with_index.sum { |term, k| k.even? ? -term : term }
          sums
        end

        def clenshaw(terms, tick)
          double = 2 * ((tick - @middle) / @half)
          one, other, k = 0.0, 0.0, terms.size - 1
          while k.positive?
            one, other, k = terms[k] + (double * one) - other, one, k - 1
          end
          terms[0] + (double / 2 * one) - other
        end
      end

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

        # Places and weights on -1..1, the roots of the Legendre polynomial by Newton's method (Abramowitz and Stegun 25.4.29).
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

        # Halves an arc until the series of each part is good; where that would go on for ever, until the sum over the whole agrees with that
        # over its halves.
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

        def tick_about(wanted) = wanted <= total && series ? series.about(wanted - @sum) : tick_of(wanted)

        def pace_jet(from, to) = @law.pace_jet(@arc, from, to)

        # Between which ticks a sum is reached, and about where.
        def bracket(wanted)
          series ? series.bracket(wanted - @sum) : [@from, @to, @from + ((@to - @from) * ((wanted - @sum) / (total - @sum)).clamp(0.0, 1.0))]
        end

        # Whether it needs not be halved.
        def good?
          return true if series

          middle = (@from + @to) / 2
          @to - @from < HALVED && (gauss(@from, middle) + gauss(middle, @to) - gauss(@from, @to)).abs < BOUND
        end

        # The pace as a series, worked out once: asked for at many ticks it costs far less than as many sums. nil where it would not be
        # as good.
        def series
          return @series unless @series.nil?

          made = Series.new(@from, @to) { |tick| @law.pace_at(@arc, tick) }
          @series = made.rest < ROOM && made.ready
        end

        def gauss(from, to)
          half, middle = (to - from) / 2.0, (from + to) / 2.0
          TABLE.sum { |place, weight| weight * @law.pace_at(@arc, middle + (half * place)) } * half
        end
      end
    end
  end
end
