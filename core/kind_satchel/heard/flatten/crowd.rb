# frozen_string_literal: true

module KindSatchel
  module Heard
    # Curves that have more corners than the drawing has pixels. Of each pixel the least and the most are kept.
    class Crowd
      CORNERS_A_PIXEL = 4

      # A chain with at most {CORNERS_A_PIXEL} corners to a pixel: where there are more, the first, the least, the
      # most and the last stay.
      # @param flat [Array<Numeric>] see {Outline}
      # @return [Array<Numeric>]
      def self.thinned(flat, from, to, width_px)
        return flat if flat.size <= 2 * CORNERS_A_PIXEL || flat.size <= 2 * width_px

        pace = width_px.fdiv(to - from)
        flat.each_slice(2).chunk_while { |(a, _), (b, _)| ((a - from) * pace).floor == ((b - from) * pace).floor }
            .flat_map { |corners| kept(corners) }.flatten(1)
      end

      def self.kept(corners)
        return corners if corners.size <= CORNERS_A_PIXEL

        low, high = corners.each_with_index.minmax_by { |(_, value), _| value }.map(&:last)
        [0, low, high, corners.size - 1].uniq.sort.map { |i| corners[i] }
      end
      private_class_method :kept

      # @param resolver [Resolver]
      def initialize(resolver)
        @resolver = resolver
      end

      # The least and the most of each pixel, known from the bounds of what acts there, however often it repeats.
      # @return [Array<Numeric>] two corners to a pixel
      def band(from, to, width_px)
        (0...width_px).flat_map do |i|
          start, finish = [i, i + 1].map { |px| from + ((to - from) * px / width_px) }
          next [] unless finish > start

          low, high = @resolver.between(start, finish)
          [start, low, start, high]
        end
      end
    end
  end
end
