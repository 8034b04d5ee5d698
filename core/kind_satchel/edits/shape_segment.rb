# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives the segment that leaves a point its shape.
    module ShapeSegment
      def self.call(song, input)
        shape = Moves.at("/shape") { Shapes.of(input[:shape]) }
        next_song = Moves.change(song, input[:envelope_id]) do |envelope|
          Moves.points_at!(envelope, [input[:index]], "/index")
          points = envelope.points.dup
          points[input[:index]] = points[input[:index]].with(shape:)
          envelope.with(points:)
        end
        [next_song, "#{verb(input[:shape]['shape'])} of #{Moves.name(song, input[:envelope_id])}"]
      end

      def self.verb(shape) = shape == "curved" ? "bend a segment" : "make a segment #{shape}"
      private_class_method :verb
    end
  end
end
