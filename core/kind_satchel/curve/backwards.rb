# frozen_string_literal: true

module KindSatchel
  # Points run backwards in time, over the stretch that they cover.
  module Backwards
    module_function

    # @param list [Array<Point>] at least one
    # @return [Array<Point>] from the tick of the first to that of the last
    def of(list)
      sum = list.first.tick + list.last.tick
      turned = list.each_cons(2).to_a.reverse.flat_map { |before, point| segment(before, point, sum - point.tick) }
      turned << Point.new(tick: sum - list.first.tick, value: list.first.value, shape: list.last.shape)
    end

    # A segment that holds comes to its end by a jump; backwards the jump comes first, so it takes a point of its own.
    def segment(before, point, tick)
      ends = Shapes::Ends.new(before.value, point.value, point.tick - before.tick)
      jumps = before.shape.is_a?(Shapes::Hold) && ends.a != ends.b && ends.ticks.positive?
      first = Point.new(tick:, value: point.value, shape: before.shape.reversed(ends))
      jumps ? [first, first.with(value: before.value)] : [first]
    end
    private_class_method :segment
  end
end
