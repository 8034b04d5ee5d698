# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives the segments that leave some points their shape.
    module ShapeSegments
      def self.call(song, input)
        shape = InvalidInput.under("/shape") { Shapes.of(input[:shape]) }
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          selection.indexes.each { |i| InvalidInput.under("/shape") { check(envelope.ends_at(i), shape) } }
          selection.map { |point| point.with(shape:) }
        end
        [next_song, "make the segment after #{what} #{shape.text}"]
      end

      # A locked count may be more than a long segment can have.
      def self.check(ends, shape)
        shape.count(ends.ticks) if ends && shape.is_a?(Shapes::Cycle)
      end
      private_class_method :check
    end
  end
end
