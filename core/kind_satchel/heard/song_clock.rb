# frozen_string_literal: true

module KindSatchel
  module Heard
    # The tempo of a song whatever moves it, and with it the bridge between ticks and seconds: seconds are the
    # integral of 60 / tempo over quarter notes. It answers what {Timing::TempoMap} does, which stands in its place
    # where a lane of held and straight segments is all that moves it.
    class SongClock
      # How far the tempo may lie from a line between two of {#changes}, as a share of its travel.
      TOLERANCE = 2e-6
      # The most lines that one curve is taken for.
      MOST_LINES = 4000
      PPQ = Timing::PPQ

      # @param song [Song]
      # @return [Timing::TempoMap, SongClock]
      def self.of(song) = plain(song) || new(song)

      # @return [Timing::TempoMap, nil] nil where more moves it
      def self.plain(song)
        return Timing::TempoMap.steady(song.held_bpm) if song.held_bpm

        directory = song.directory
        return if directory.movers(Address.tempo).any? do |clip, envelope|
          clip.carrier? && envelope.acts?
        end || directory.driver(Address.tempo)

        lanes = song.lanes_of(Address.tempo).select(&:acts?)
        return Timing::TempoMap.steady(song.bpm) if lanes.empty?

        TempoLane.map(lanes[0].points) if lanes.size == 1 && simple?(song, lanes[0])
      end

      # Whether a lane is drawn, sets, and nothing moves it.
      def self.simple?(song, lane)
        lane.role == "set" && lane.plain? && !lane.lfo? && !lane.live? && !song.directory.moved_settings.key?(lane.id)
      end
      private_class_method :simple?

      def initialize(song)
        @song = song
        @scale = song.parameter(Address.tempo).scale
        @law = Law.new(@scale)
        @integral = Integral.new(Resolver.new(song, Address.tempo), 0, @law)
        @first = pace(0)
      end

      # @param tick [Numeric]
      # @return [Float] quarter notes per minute
      def bpm_at(tick) = 60.0 / PPQ / (tick.positive? ? pace(tick) : @first)

      # The tempo come to at a tick, before any jump there.
      def bpm_before(tick) = 60.0 / PPQ / (tick.positive? ? @integral.stretch_before(tick).pace_at(tick) : @first)

      # @return [Float] seconds from the start of the song; before it the first tempo holds
      def seconds_at(tick) = tick.positive? ? @integral.at(tick) : @first * tick

      # @return [Float] ticks, the inverse of {#seconds_at}
      def tick_at(seconds) = seconds.positive? ? @integral.stretch_of(seconds).tick_of(seconds) : seconds / @first

      # @param list [Array<Numeric>] seconds, in order
      def ticks_at(list) = list.map { |seconds| tick_at(seconds) }

      # Ticks strictly between two at which it turns: between two of them it is straight, within {TOLERANCE}.
      # @return [Array<Numeric>]
      def changes(from, to)
        list = []
        @integral.each([from, 0].max, [to, 1].max) do |stretch|
          list << stretch.from
          list.concat(lines(stretch))
        end
        list.select { |tick| tick > from && tick < to }
      end

      # @return [Float, nil] seconds a tick, nil where it changes
      def steady_pace = nil

      # The tick -> seconds relation as corners of a line chain that stays within `tolerance` seconds, over the whole
      # song.
      def clock(tolerance: 0.0005)
        list = []
        @integral.each(0, reach) { |stretch| list.concat(even(stretch, bends(stretch, tolerance))) }
        [*list, reach].uniq.map { |tick| [tick, seconds_at(tick)] }
      end

      private

      def pace(tick) = @integral.stretch_at(tick).pace_at(tick)

      # So far something may move it.
      def reach
        @reach ||= [@song.length_ticks, *@song.lanes_of(Address.tempo).filter_map do |lane|
          lane.points.last&.tick
        end].max + PPQ
      end

      # How the clock bends there, in lines.
      def bends(stretch, tolerance)
        width = stretch.to - stretch.from
        (width * Math.sqrt(stretch.pace_jet(stretch.from, stretch.to).slope / 8 / tolerance)).ceil
      end

      def even(stretch, count)
        count = count.clamp(1, MOST_LINES)
        (0...count).map { |i| stretch.from + ((stretch.to - stretch.from) * i / count.to_f) }
      end

      def lines(stretch)
        return [] unless stretch.bend

        width = stretch.to - stretch.from
        even(stretch, (width * Math.sqrt(stretch.bend / 8 / TOLERANCE)).ceil).drop(1)
      end

      # Seconds a tick of a tempo between its limits.
      class Law
        def initialize(scale)
          @scale = scale
        end

        # @return [Float] seconds a tick
        def pace(value) = 60.0 / PPQ / @scale.natural(value)
        def pace_at(arc, tick) = pace(arc.at(tick).clamp(0.0, 1.0))

        # Of k / x, where x is what is known of the tempo: slope k x' / x^2, bend k (x'' / x^2 + 2 x'^2 / x^3).
        def pace_jet(arc, from, to)
          known = arc.jet(from, to)
          low, high = [known.low, known.high].map { |value| @scale.natural(value.clamp(0.0, 1.0)) }
          slope, bend = [known.slope, known.bend].map { |value| value * (@scale.high - @scale.low) }
          unit = 60.0 / PPQ
          Jet.new(unit / high, unit / low, unit * slope / (low**2),
                  unit * ((bend / (low**2)) + (2 * slope * slope / (low**3))))
        end

        def stretches(arc, sum, &)
          return curved(arc, sum, &) unless arc.still? || arc.straight?

          first, last = [arc.from, arc.still? ? arc.from : arc.to].map do |tick|
            TempoLane.bpm(arc.at(tick).clamp(0.0, 1.0))
          end
          yield first == last ? Steady.new(arc.from, arc.to, sum,
                                           60.0 / PPQ / first) : Straight.new(arc.from, arc.to, sum, first, last)
        end

        private

        def curved(arc, sum)
          Integral::Quadrature.stretches(arc, sum, self) { |stretch| yield Curved.new(stretch, arc, self) }
        end
      end

      # The same tempo throughout.
      class Steady < Integral::Even
        def pace_at(_tick) = pace
        def bend = nil
      end

      # A tempo that goes straight in ticks: see {Timing::TempoMap}.
      class Straight
        attr_reader :from, :to

        def initialize(from, to, before, first, last)
          @from, @to, @before, @first = from, to, before, first
          @slope = (last - first) / (to - from).to_f
        end

        def pace_at(tick) = 60.0 / PPQ / (@first + (@slope * (tick - @from)))
        def sum_at(tick) = @before + (60.0 / PPQ / @slope * log_of_one_and(@slope * (tick - @from) / @first))
        def tick_of(wanted) = @from + (@first / @slope * less_one((wanted - @before) * @slope * PPQ / 60))
        def total = sum_at(@to)
        def bend = nil

        def pace_jet(from, to)
          slow, fast = [from, to].map { |tick| @first + (@slope * (tick - @from)) }.minmax
          unit = 60.0 / PPQ
          Jet.new(unit / fast, unit / slow, unit * @slope.abs / (slow**2), 2 * unit * @slope * @slope / (slow**3))
        end

        private

        # ln(1 + x), exact for small x too.
        def log_of_one_and(number)
          sum = 1 + number
          sum == 1 ? number : Math.log(sum) * number / (sum - 1)
        end

        def less_one(number) = Integral::Growing.less_one(number)
      end

      # Any other, by quadrature.
      class Curved
        def initialize(quadrature, arc, law)
          @quadrature, @arc, @law = quadrature, arc, law
        end

        def from = @quadrature.from
        def to = @quadrature.to
        def sum_at(tick) = @quadrature.sum_at(tick)
        def total = @quadrature.total
        def tick_of(wanted) = [@quadrature.tick_of([wanted, total].min), to].min
        def pace_at(tick) = @law.pace_at(@arc, tick)
        def pace_jet(from, to) = @law.pace_jet(@arc, from, to)
        # Of the tempo itself, as a share of its travel.
        def bend = @arc.jet(from, to).bend
      end
    end
  end

  Song.clock = ->(song) { Heard::SongClock.of(song) }
end
