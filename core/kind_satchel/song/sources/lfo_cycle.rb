# frozen_string_literal: true

require_relative "random_levels"
require_relative "stage"

module KindSatchel
  module Sources
    # One cycle of an {Lfo}: what its wave, skew and bend make of it.
    module LfoCycle
      # Whether a segment of points can do the same: see {Shapes::Cycle}.
      def shaped? = bend.zero? && wave != Lfo::RANDOM

      # The stages of a cycle, in order, without gaps.
      # @param number [Integer] of the cycle, for the random wave
      # @return [Array<Stage>]
      def stages(number)
        return [Stage.level(bent(RandomLevels.at(seed, number)))] if wave == Lfo::RANDOM

        memo(:stages) do
          stretches(Lfo::EDGE).map { |from, to, a, b, shape| Stage.new(from.to_f, to.to_f, a, b, shape) }
        end
      end

      private

      def even? = Grid.ticks(cycle_ticks) == cycle_ticks
      def end_of_cycle = even? ? Grid.ticks(cycle_ticks) : Grid.ticks(cycle_ticks) + (1 / Grid::TICK)

      # The segments of one cycle, from 0 on.
      # @return [Array<Segment>]
      def cycle(envelope, number)
        return [level(envelope, RandomLevels.at(seed, number))] if wave == Lfo::RANDOM

        envelope.memo(:cycle) do
          stretches(1 / Grid::TICK / cycle_ticks).map do |from, to, a, b, shape|
            segment(envelope, from, to, a, b, shape)
          end
        end
      end

      def level(envelope, random)
        value = envelope.amount(bent(random))
        Segment.new(0, end_of_cycle, value, value, Shapes::Hold::PLAIN)
      end

      def segment(envelope, from, to, *ends, shape)
        start, finish = Grid.ticks(cycle_ticks * from), to == 1 ? end_of_cycle : Grid.ticks(cycle_ticks * to)
        a, b = ends.map { |one| envelope.amount(one) }
        shape = Shapes::Hold::PLAIN if a == b
        # In a stage of less than a tick the ends as they are kept are the ends.
        return Segment.new(start, finish, a, b, shape) if cycle_ticks * (to - from) < 1

        Segment.new(start, finish, a, b, shape, origin: (cycle_ticks * from).to_f,
                                                length: (cycle_ticks * (to - from)).to_f)
      end

      # Of one cycle: from, to, level there, level there, how. A bent line is curved; what falls bends the other way.
      # A stage that is shorter than can be told is none: the other has the whole cycle.
      # @param least [Float] share of the cycle
      def stretches(least)
        list = Shapes::Cycle::WAVES.fetch(wave).call(skew).select { |from, to,| to - from >= least }
        list = [[0, 1, *list[0].drop(2)]] if list.size == 1
        list.map { |from, to, a, b, how| [from, to, a, b, shape(how, a < b ? bend : -bend)] }
      end

      def shape(how, bend)
        return Shapes::BentWave.half(bend) if how == Shapes::HalfWave
        return how::PLAIN if how == Shapes::Hold || bend.zero?

        Shapes::Curved.new(curve: bend)
      end

      def bent(level) = bend.zero? ? level : Shapes::Curved.new(curve: bend).weight(level)
    end
  end
end
