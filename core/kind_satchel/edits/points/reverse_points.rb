# frozen_string_literal: true

module KindSatchel
  module Edits
    # Runs the stretch from the first to the last chosen point backwards in time, all points in it. Twice is as before.
    module ReversePoints
      def self.call(song, input)
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          first, last = selection.indexes.minmax
          points = envelope.points
          tidy([*points[0...first], *Backwards.of(points[first..last]), *points[(last + 1)..]])
        end
        [next_song, "reverse #{what}"]
      end

      # Leaves out points that only repeat what was held, right before a jump.
      def self.tidy(points)
        points.each_with_index.reject do |point, i|
          before, after = i.positive? ? points[i - 1] : nil, points[i + 1]
          before&.shape.is_a?(Shapes::Hold) && before.value == point.value && before.tick < point.tick &&
            after&.tick == point.tick
        end.map(&:first)
      end
      private_class_method :tidy
    end
  end
end
