# frozen_string_literal: true

module KindSatchel
  module Shapes
    # Corners for e^x from x = 0 on, in its hollow: each inner corner lies `depth` below the curve, and no chord
    # strays more than that above it. Both ends are exact, so the chords there are shorter.
    #
    # Corners are found by their roots e^(x/2), which lie evenly where the errors are even (see {Curved}).
    class Hollow
      # How long a chord with one end on the curve may be, beside one between two corners below it, to begin with.
      END_SHARE = 0.84

      # @param half [Float] the root at the end, less 1
      # @param depth [Float] above 0
      def initialize(half, depth)
        @half = half
        @depth = depth
      end

      # @return [Array<Float>] u, weight, u, weight, ... as {Smooth#chain} has them
      def chain(steepness, whole)
        list, count = [], self.count
        1.upto(count - 1) do |i|
          root = root(i, count)
          list << (Math.log(root) * 2 / steepness) << (((root * root) - @depth - 1) / whole)
        end
        list << 1.0 << 1.0
      end

      private

      # The fewest chords that hold.
      def count
        count = [(@half.abs / (2 * Math.sqrt(@depth))).floor, 2].max
        count += 1 until holds?(count)
        count
      end

      def root(place, count)
        return 1.0 if place.zero?
        return 1 + @half if place == count

        1 + (@half * (END_SHARE + place - 1) / (count - 2 + (2 * END_SHARE)))
      end

      # Errors go one way along the curve, so the first and last chord of each sort tell.
      def holds?(count)
        stray(1.0, root(1, count), 0.0,
              @depth) <= @depth && stray(root(count - 1, count), 1 + @half, @depth, 0.0) <= @depth &&
          (count < 3 || (inner(1, count) <= @depth && inner(count - 2, count) <= @depth))
      end

      def inner(place, count) = stray(root(place, count), root(place + 1, count), @depth, @depth)

      # How far a chord lies above e^x between two roots, its ends that deep below the curve: most where its slope is
      # e^x.
      def stray(from, to, from_depth, to_depth)
        start = 2 * Math.log(from)
        slope = ((to * to) - to_depth - (from * from) + from_depth) / ((2 * Math.log(to)) - start)
        return 0.0 unless slope.positive? # below the curve all the way

        (from * from) - from_depth + (slope * (Math.log(slope) - start)) - slope
      end
    end
  end
end
