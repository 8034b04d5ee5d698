# frozen_string_literal: true

module KindSatchel
  # How alike the shapes of kept moves are, however long and high: each is looked at at {PLACES} places of its length,
  # between its own least and most, and the distance is the root of the mean square of the differences, with the shape
  # moved by up to {SLACK} of its length where that is nearer. 0 is the same shape.
  module Likeness
    PLACES = 64
    # In places.
    SLACK = 3

    module_function

    # @param move [KeptMove]
    # @param others [Array<KeptMove>]
    # @return [Array<KeptMove>] the nearest first
    def nearest(move, others)
      wanted = profile(move)
      others.sort_by.with_index { |other, i| [distance(wanted, profile(other)), i] }
    end

    # @return [Array<Float>] 0..1
    def profile(move)
      move.memo(:profile) do
        list = Array.new(PLACES) { |i| move.at((i + 0.5) / PLACES) }
        low, high = list.minmax
        high - low < 1e-6 ? Array.new(PLACES, 0.5) : list.map { |value| (value - low) / (high - low) }
      end
    end

    # @return [Float] how far two outlines lie apart, moved a little where that helps
    def distance(one, other) = (-SLACK..SLACK).map { |by| apart(one, other, by) + (by.abs * 0.002) }.min

    def apart(one, other, by)
      first, last = [0, by].max, [PLACES, PLACES + by].min
      sum = (first...last).sum { |i| (one[i] - other[i - by])**2 }
      Math.sqrt(sum / (last - first))
    end
    private_class_method :apart
  end
end
