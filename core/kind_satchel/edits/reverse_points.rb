# frozen_string_literal: true

module KindSatchel
  module Edits
    # Runs the stretch from the first to the last chosen point backwards in time, all points in it. Twice is as before.
    module ReversePoints
      def self.call(song, input)
        next_song, what = Moves.change_points(song, input) do |selection, envelope|
          first, last = selection.indexes.minmax
          points = envelope.points
          tidy([*points[0...first], *backwards(points[first..last]), *points[(last + 1)..]])
        end
        [next_song, "reverse #{what}"]
      end

      def self.backwards(list)
        sum = list.first.tick + list.last.tick
        turned = list.each_cons(2).to_a.reverse.flat_map { |before, point| turned_segment(before, point, sum - point.tick) }
        turned << Point.new(tick: sum - list.first.tick, value: list.first.value, shape: list.last.shape)
      end

      # A segment that holds comes to its end by a jump; backwards the jump comes first, so it takes a point of its own.
      def self.turned_segment(before, point, tick)
        ends = Shapes::Ends.new(before.value, point.value, point.tick - before.tick)
        jumps = before.shape.is_a?(Shapes::Hold) && ends.a != ends.b && ends.ticks.positive?
        first = Point.new(tick:, value: point.value, shape: before.shape.reversed(ends))
        jumps ? [first, first.with(value: before.value)] : [first]
      end

      # Leaves out points that only repeat what was held, right before a jump.
      def self.tidy(points)
        points.each_with_index.reject do |point, i|
          before, after = i.positive? ? points[i - 1] : nil, points[i + 1]
          before&.shape.is_a?(Shapes::Hold) && before.value == point.value && before.tick < point.tick && after&.tick == point.tick
        end.map(&:first)
      end
      private_class_method :backwards, :turned_segment, :tidy
    end
  end
end
