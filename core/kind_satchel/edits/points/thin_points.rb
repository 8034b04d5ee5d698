# frozen_string_literal: true

module KindSatchel
  module Edits
    # Leaves out points whose loss moves the curve by no more than a tolerance (a share of the travel): within straight
    # runs by {Thinning}, within held runs where a step is that small. Other shapes stay.
    module ThinPoints
      def self.call(song, input)
        gone = nil
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          kept = selection.runs.flat_map do |first, last|
            kept(envelope.points, first, last, input[:tolerance])
          end.to_h { |i| [i, true] }
          list = envelope.points.each_with_index.reject { |_, i| selection.include?(i) && !kept.key?(i) }.map(&:first)
          gone = envelope.points.size - list.size
          list
        end
        [next_song, "thin #{what} by #{gone}"]
      end

      # Places to keep between two places, both of them included.
      def self.kept(points, first, last, tolerance)
        list = [first]
        while (at = list.last) < last
          finish = at
          finish += 1 while finish < last && points[finish].shape.instance_of?(points[at].shape.class)
          finish - at < 2 ? list << [finish, at + 1].max : list.concat(kept_alike(points, at, finish, tolerance))
        end
        list
      end

      # Places to keep after `from`, up to `to`, where all segments between have one kind of shape.
      def self.kept_alike(points, from, to, tolerance)
        case points[from].shape
        when Shapes::Straight
          part = points[from..to]
          Thinning.keep(part.map(&:tick), part.map(&:value), tolerance)[1..].map { |i| from + i }
        when Shapes::Hold then held(points, from, to, tolerance)
        else ((from + 1)..to).to_a
        end
      end

      def self.held(points, from, to, tolerance)
        level = points[from].value
        ((from + 1)..to).select do |i|
          (i == to || (points[i].value - level).abs > tolerance).tap { |stays| level = points[i].value if stays }
        end
      end
      private_class_method :kept, :kept_alike, :held
    end
  end
end
