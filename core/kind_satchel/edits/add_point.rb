# frozen_string_literal: true

module KindSatchel
  module Edits
    # Adds a point to an envelope. It cuts the segment it lies on: placed on the line, it changes nothing.
    module AddPoint
      def self.call(song, input)
        next_song = Moves.change(song, input[:envelope_id]) do |envelope|
          point = Point.new(tick: input[:tick], value: input[:value], shape: Shapes::Straight::PLAIN)
          inserted(envelope, point)
        end
        [next_song, "add a point to #{Moves.name(song, input[:envelope_id])}"]
      end

      def self.inserted(envelope, point)
        points = envelope.points
        after = points.index { |other| other.tick > point.tick } || points.size
        before = after.positive? ? points[after - 1] : nil
        return envelope.with(points: [point, *points]) unless before

        left, right = cut(before, points[after], point.tick)
        envelope.with(points: [*points[0...(after - 1)], before.with(shape: left), point.with(shape: right), *points[after..]])
      end

      def self.cut(before, following, tick)
        return [before.shape, before.shape] unless following && tick > before.tick

        share = (tick - before.tick).fdiv(following.tick - before.tick)
        [before.shape.cut(0.0, share), before.shape.cut(share, 1.0)]
      end
      private_class_method :inserted, :cut
    end
  end
end
