# frozen_string_literal: true

module KindSatchel
  module Edits
    # Adds a point to an envelope. It cuts the segment it lies on. Without a value it lies on the line, and changes
    # nothing.
    module AddPoint
      def self.call(song, input)
        next_song = Envelopes.change(song, input[:envelope_id]) do |envelope|
          envelope.with(points: added(envelope.points, input[:tick], input[:value]))
        end
        [next_song, "add a point to #{Envelopes.name(song, input[:envelope_id])}"]
      end

      # On a tick that has a point already the new one comes after it: a jump. Past the last point the line goes on
      # straight.
      def self.added(points, tick, value)
        if points.empty? && value.nil?
          raise InvalidInput.of("no_value", "/value",
                                "The first point of an envelope needs a value.")
        end

        after = points.bsearch_index { |point| point.tick > tick } || points.size
        there = after.positive? && points[after - 1].tick == tick
        near = value || points[[after - 1, 0].max]&.value
        if there || after.zero?
          return [*points[0...after], Point.new(tick:, value: near, shape: following(points, after)),
                  *points[after..]]
        end
        if after == points.size
          return [*points[0..-2], straight(points.last),
                  Point.new(tick:, value: near, shape: Shapes::Straight::PLAIN)]
        end

        left, right = Splice.split(points, tick)
        value ? [*left[0..-2], right.first.with(value:), *right[1..]] : [*left[0..-2], *right]
      end

      def self.following(points, after) = after.positive? ? points[after - 1].shape : Shapes::Straight::PLAIN
      def self.straight(point) = point.shape.is_a?(Shapes::Hold) ? point : point.with(shape: Shapes::Straight::PLAIN)
      private_class_method :added, :following, :straight
    end
  end
end
