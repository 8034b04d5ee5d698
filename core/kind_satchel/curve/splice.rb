# frozen_string_literal: true

module KindSatchel
  # Takes stretches out of a list of points, and puts others in, so that nothing outside the stretch changes: where the
  # cut meets a segment, edge points are made and its shape is cut with it. Ticks are the envelope's own.
  module Splice
    # Values closer than this are the same.
    SAME = 1e-9

    module_function

    # @param points [Array<Point>]
    # @return [Array(Array<Point>, Array<Point>)] what lies up to `tick` and what lies from there on, each with an edge
    #   point at `tick`; the left one has the value that is come to, the right one the value that holds from there
    def split(points, tick)
      return [[], []] if points.empty?

      first = points.bsearch_index { |point| point.tick >= tick } || points.size
      last = points.bsearch_index { |point| point.tick > tick } || points.size
      return [arriving(points[0..first]), points[(last - 1)..]] if last > first

      cut(points[0...first], points[first..], tick)
    end

    # @return [Array<Point>] the stretch by itself, from tick 0, with points at both its ends
    def between(points, from, to)
      _, right = split(points, from)
      middle, = split(right, to)
      middle.map { |point| point.with(tick: point.tick - from) }
    end

    # Puts points in place of a stretch.
    # @param middle [Array<Point>] in from..to
    # @param later [Integer] ticks by which all that follows moves
    def replace(points, from, to, middle, later: 0)
      left, = split(points, from)
      _, right = split(points, to)
      right = right.map { |point| point.with(tick: point.tick + later) } unless later.zero?
      join(join(from.zero? ? [] : left, middle), right)
    end

    # @return [Array<Point>] one after the other; where they meet on one tick with one value, one point
    def join(left, right) = chain([left, right])

    # @param lists [Array<Array<Point>>]
    # @return [Array<Point>] all of them, one after the other
    def chain(lists)
      lists.each_with_object([]) do |more, list|
        a, b = list.last, more.first
        list.pop if a && b && a.tick == b.tick && (a.value - b.value).abs <= SAME
        list.concat(more)
      end
    end

    # After a held stretch the value come to is the held one.
    def arriving(left)
      before, point = left.last(2)
      return left unless point && before.shape.is_a?(Shapes::Hold)

      [*left[0..-2], point.with(value: before.value)]
    end

    # The segment at hand cut in two; beyond the ends the value goes on.
    def cut(left, right, tick)
      before, after = left.last, right.first
      return [[edge(tick, after.value)], [edge(tick, after.value), *right]] unless before
      unless after
        return [[*left[0..-2], before.with(shape: Shapes::Hold::PLAIN), edge(tick, before.value)],
                [edge(tick, before.value)]]
      end

      halves(left, right, tick)
    end

    def halves(left, right, tick)
      before, after = left.last, right.first
      whole = Shapes::Ends.new(before.value, after.value, after.tick - before.tick)
      share = (tick - before.tick).fdiv(whole.ticks)
      value = pointed(Shapes.value_at(before.shape, whole, share), whole)
      first = before.shape.cut(0.0, share, whole, Shapes::Ends.new(whole.a, value))
      second = before.shape.cut(share, 1.0, whole, Shapes::Ends.new(value, whole.b))
      [[*left[0..-2], before.with(shape: first), edge(tick, value)], [Point.new(tick:, value:, shape: second), *right]]
    end

    # A cycle may swing further than a point may lie; its parts swing on from wherever the point is put.
    def pointed(value, ends) = value.clamp(ends.a.negative? || ends.b.negative? ? -1.0 : 0.0, 1.0)

    def edge(tick, value) = Point.new(tick:, value:, shape: Shapes::Hold::PLAIN)

    private_class_method :arriving, :cut, :halves, :pointed, :edge
  end
end
