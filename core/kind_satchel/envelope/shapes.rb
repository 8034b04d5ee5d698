# frozen_string_literal: true

require_relative "shapes/hold"
require_relative "shapes/straight"
require_relative "shapes/curved"

module KindSatchel
  # How a segment gets from one point to the next. A new shape is one file and one line here. Every shape is a
  # frozen value that answers:
  #
  # - `weight(u)`  how far from the first value to the second the segment has come at u in 0..1
  # - `breaks(rise, tolerance)` the u strictly between 0 and 1 where a line chain must turn to stay within
  #   `tolerance` of a segment that rises by `rise`
  # - `cut(from, to)` the shape of the stretch between two u, so that splitting never changes the curve
  # - `still?`     whether it stays on its first value until the next point
  # - `reversed`   the shape that runs the same way backwards in time
  # - `settings`   its own numbers, as a plain hash; `of(settings)` on the class makes it
  module Shapes
    ALL = Registry.new("shape", "hold" => Hold, "straight" => Straight, "curved" => Curved)

    # @param record [Hash] `"shape"` and that shape's own settings
    # @raise [InvalidInput] for an unknown shape or a setting out of range
    def self.of(record) = ALL.fetch(record["shape"]).of(record)

    def self.record(shape) = { "shape" => ALL.id_of(shape.class), **shape.settings }
  end
end
