# frozen_string_literal: true

require_relative "shapes/smooth"
require_relative "shapes/hold"
require_relative "shapes/straight"
require_relative "shapes/hollow"
require_relative "shapes/curved"
require_relative "shapes/half_wave"
require_relative "shapes/bent_wave"
require_relative "shapes/ess"
require_relative "shapes/cycle"

module KindSatchel
  # How a segment gets from one point to the next. A new shape is one file, one line here and its settings in
  # `schemas/shape.json`. Every shape is a frozen value that answers:
  #
  # - `parts(ends)` the smooth stretches it comes apart into, in order, as {Part}s; everything that is heard or drawn
  #   is made of these
  # - `cut(from, to, whole, piece)` the shape of the stretch between two u in 0..1, so that splitting never changes the
  #   curve; `whole` are the ends of the segment, `piece` has the values of the stretch's own ends
  # - `reversed(ends)` the shape that runs the same way backwards in time, between the exchanged ends
  # - `scaled(factor)` itself when all values are multiplied
  # - `settings`   its own numbers, as a plain hash; `of(settings)` on the class makes it
  # - `text`       how people call it
  #
  # Shapes that are smooth by themselves include {Smooth}.
  module Shapes
    # What a segment runs between: value `a`, value `b`, and `ticks` from one to the other.
    Ends = Struct.new(:a, :b, :ticks)

    # A stretch of a segment that goes one way without a corner: from u = `start` with value `a` to u = `finish` with
    # value `b`, by a {Smooth} shape.
    Part = Struct.new(:start, :finish, :a, :b, :shape)

    ALL = Registry.new("shape", "hold" => Hold, "straight" => Straight, "curved" => Curved, "ess" => Ess,
                                "cycle" => Cycle)

    # @example
    #   Shapes.of({ "shape" => "curved", "curve" => 0.5 }).text #=> "curved 0.50"
    # @param record [Hash] `"shape"` and that shape's own settings
    # @raise [InvalidInput] for an unknown shape or a setting out of range
    def self.of(record) = ALL.fetch(record["shape"]).of(record)

    # Whether a point can have it: parts of a {Cycle} have shapes that are none by themselves.
    def self.own?(shape) = ALL.ids.any? { |id| ALL.fetch(id) == shape.class }

    # @example
    #   Shapes.record(Straight::PLAIN) #=> {"shape"=>"straight"}
    # @return [Hash] plain data: `"shape"` and its own settings
    def self.record(shape) = { "shape" => ALL.id_of(shape.class), **shape.settings }

    # The value of a segment at u in 0..1; on a jump the later one.
    # @example
    #   Shapes.value_at(Straight::PLAIN, Ends.new(0.0, 1.0, 960), 0.25) #=> 0.25
    # @param ends [Ends]
    def self.value_at(shape, ends, position)
      part = shape.parts(ends).reverse_each.find { |entry| entry.start <= position && entry.finish > entry.start }
      part.a + ((part.b - part.a) * part.shape.weight((position - part.start) / (part.finish - part.start).to_f))
    end
  end
end
