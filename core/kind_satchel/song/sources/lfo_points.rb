# frozen_string_literal: true

module KindSatchel
  module Sources
    # A stretch of an LFO as points: a segment of cycles where there is a shape for its wave, else the wave drawn with
    # straight lines, levels held.
    class LfoPoints
      # By how much of the travel waves without a shape of their own may stray.
      STRAY = 0.0005
      # The most cycles of one segment.
      MOST_IN_A_SEGMENT = 1000

      # @param lfo [Lfo]
      # @param envelope [Envelope] whose limits and role it runs between
      def initialize(lfo, envelope)
        @lfo = lfo
        @envelope = envelope
      end

      # @param from [Numeric] in the envelope's own time
      # @param to [Numeric] in the same
      # @return [Array<Point>] counted from `from`
      def between(from, to)
        return [] unless to > from

        @lfo.shaped? ? cycles(from, to) : chain(from, to)
      end

      private

      # One point to so many cycles.
      def cycles(from, to)
        zero = from.round
        ticks = [*from.step(to - 1, [(MOST_IN_A_SEGMENT * @lfo.cycle_ticks).floor, 1].max), *@lfo.restarts.map(&:first),
                 to].map(&:round).uniq.sort
        parts = ticks.select { |tick| tick.between?(zero, to.round) }.each_cons(2).map do |start, finish|
          a, b = @lfo.at(@envelope, start), arriving(finish)
          [Point.new(tick: start - zero, value: a, shape: counted(start, finish, a, b)),
           Point.new(tick: finish - zero, value: b, shape: Shapes::Hold::PLAIN)]
        end
        Splice.chain(parts)
      end

      # As one segment from one level to another.
      def counted(start, finish, first, last)
        low, high = [0.0, 1.0].map { |level| @envelope.amount(level) }
        Shapes::Cycle.new(wave: @lfo.wave, cycles: (finish - start) / @lfo.cycle_ticks.to_f, note_ticks: nil,
                          skew: @lfo.skew.to_f, phase: Grid.turn(@lfo.phase_at(start)),
                          foot: low - first, top: high - last)
      end

      # The amount that it comes to, of a restart the one before it.
      def arriving(tick)
        before = @lfo.restarts.take_while { |at, _| at < tick }
        here = @lfo.restarts[before.size]&.first == tick
        (here ? @lfo.with(restarts: before) : @lfo).at(@envelope, tick)
      end

      # Levels are held, lines stay lines; waves are drawn with straight ones.
      def chain(from, to)
        lists = []
        @lfo.each_segment(@envelope, Clocks::Run.new(0, from, to, nil)) do |run, segment|
          start, finish = [run.zero + segment.start, run.from, from].max, [run.zero + segment.finish, run.to, to].min
          next unless finish > start

          places = drawn(segment, start - run.zero, finish - run.zero, @envelope.role_rules.values)
          lists << places.map { |place, value, shape| [(run.zero + place).round - from.round, value, shape] }
        end
        Splice.chain(lists.map { |list| list.map { |tick, value, shape| Point.new(tick:, value:, shape:) } })
      end

      def drawn(segment, start, finish, allowed)
        return [[start, segment.a, Shapes::Hold::PLAIN], [finish, segment.a, Shapes::Hold::PLAIN]] if segment.still?

        places = [start, *segment.breaks(start, finish, 1.0, STRAY), finish]
        places.map { |place| [place, segment.at(place).clamp(allowed), Shapes::Straight::PLAIN] }
      end
    end
  end
end
