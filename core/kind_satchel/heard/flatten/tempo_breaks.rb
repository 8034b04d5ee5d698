# frozen_string_literal: true

module KindSatchel
  module Heard
    # Where a line in ticks must be broken to be a chain of lines in seconds: where the tempo changes, and inside of
    # its ramps.
    class TempoBreaks
      # @param tempo [Timing::TempoMap]
      # @param tolerance [Float] how far the chain may stray, as a share of the travel
      def initialize(tempo, tolerance)
        @tempo = tempo
        @tolerance = tolerance
      end

      # @param rise [Float] by how much the line rises or falls
      # @return [Array<Numeric>] ticks strictly between `start` and `finish`
      def between(start, finish, rise)
        points = @tempo.changes(start, finish)
        [start, *points, finish].each_cons(2).flat_map do |from, to|
          [*(from unless from == start), *even_ticks(from, to, rise * (to - from) / (finish - start))]
        end
      end

      private

      # Over a stretch in which the tempo changes by the factor r, line and chain part by at most |ln r| / 8 of the
      # stretch's rise; cut into even parts, the slowest part changes by the largest factor.
      def even_ticks(from, to, rise)
        slow, fast = [@tempo.bpm_at(from), @tempo.bpm_before(to)].minmax
        return [] if slow == fast

        count = Math.sqrt((fast - slow) / slow / 8 * rise / @tolerance).ceil
        (1...count).map { |i| from + ((to - from) * i / count.to_f) }
      end
    end
  end
end
