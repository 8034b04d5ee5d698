# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves points together in time and value; their differences stay. They stop together where the first of them meets
    # a point that stays, or an end of the travel. With `push`, all later points come along in time.
    module ShiftPoints
      def self.call(song, input)
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          later = input.fetch(:push, false) ? envelope.points.size - 1 : nil
          moving = later ? Selection.new(envelope.points, [[selection.indexes.first, later]]) : selection
          ticks = possible_ticks(moving, input[:ticks])
          value = possible_value(selection, input[:value], envelope.role_rules.values)
          shifted(envelope.points, moving, ticks, selection, value)
        end
        [next_song, "move #{what}"]
      end

      def self.shifted(points, moving, ticks, selection, value)
        points.each_with_index.map do |point, i|
          next point unless moving.include?(i)

          Point.new(tick: point.tick + ticks, value: selection.include?(i) ? point.value + value : point.value,
                    shape: point.shape)
        end
      end

      # The wish, cut short where one of the runs would pass a point that stays.
      def self.possible_ticks(selection, wish)
        points = selection.points
        low = selection.runs.map { |first, _| (first.zero? ? 0 : points[first - 1].tick) - points[first].tick }.max
        high = selection.runs.map { |_, last| (points[last + 1]&.tick || Timing::LAST_TICK) - points[last].tick }.min
        wish.clamp(low, high)
      end

      def self.possible_value(selection, wish, range)
        low, high = selection.values.minmax
        wish.clamp(range.min - low, range.max - high)
      end
      private_class_method :shifted, :possible_ticks, :possible_value
    end
  end
end
