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
      # Less than this is level: a share of the travel; of gains that are louder than the silence given, decibels.
      LEVEL = 0.001
      LEVEL_DB = 0.1
      SILENCE_DB = -60.0
      # What stays level for so many ticks (an eighth note) was meant to be level.
      LEVEL_TICKS = 480

      module_function

      # Points that were made by following something count only beyond what they may stray.
      # @param envelope [Envelope]
      # @param scale [Scales::Scale, nil] of what it moves; nil where that is missing
      # @return [Array<Integer>] places of the points that are off
      def in(envelope, scale = nil)
        room = envelope.followed? ? envelope.source.tolerance : LEVEL
        gain = scale if scale&.gain? && envelope.role == "set" && envelope.plain?
        (1...(envelope.points.size - 1)).select { |i| uneven?(*envelope.points[(i - 1)..(i + 1)], gain, room) }
      end

      def level?(one, other, gain, room)
        loud = gain && [one, other].min > gain.normalised(SILENCE_DB)
        return (one - other).abs <= room unless loud

        (room > LEVEL && (one - other).abs <= room) || (gain.natural(one) - gain.natural(other)).abs <= LEVEL_DB
      end

      def uneven?(before, point, after, gain, room)
        off = (point.value - before.value).abs
        if level?(before.value, point.value, gain,
                  room) || off > HAIR || point.tick - before.tick < LEVEL_TICKS || before.shape.is_a?(Shapes::Cycle)
          return false
        end

        (after.value - point.value).abs >= MOVE && after.tick > point.tick && !point.shape.is_a?(Shapes::Hold)
      end
      private_class_method :uneven?, :level?
    end
  end
end
