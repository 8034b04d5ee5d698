# frozen_string_literal: true

module KindSatchel
  module Checks
    # Fades that do not start level: their first point is a hair off the point before it, so the whole stretch up to the
    # fade drifts. {Edits::LevelPoints} with "before" mends it.
    module UnevenStarts
      # Up to this share of the travel a difference is taken for a slip of the hand.
      HAIR = 0.02
      # From this share of the travel on, a segment counts as a fade.
      MOVE = 0.05
      # What stays level for so many ticks (an eighth note) was meant to be level.
      LEVEL_TICKS = 480

      module_function

      # @param envelope [Envelope]
      # @return [Array<Integer>] places of the points that are off
      def in(envelope)
        (1...(envelope.points.size - 1)).select { |i| uneven?(*envelope.points[(i - 1)..(i + 1)]) }
      end

      def uneven?(before, point, after)
        off = (point.value - before.value).abs
        return false if off <= Splice::SAME || off > HAIR || point.tick - before.tick < LEVEL_TICKS || before.shape.is_a?(Shapes::Cycle)

        (after.value - point.value).abs >= MOVE && after.tick > point.tick && !point.shape.is_a?(Shapes::Hold)
      end
      private_class_method :uneven?
    end
  end
end
