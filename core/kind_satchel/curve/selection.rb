# frozen_string_literal: true

module KindSatchel
  # Some points of an envelope: runs of places, [first, last] each.
  class Selection
    attr_reader :points, :indexes

    # @param points [Array<Point>] all of the envelope's
    # @param runs [Array<Array(Integer, Integer)>]
    # @raise [NotFound] for places that hold no point
    def initialize(points, runs)
      @points = points
      check(runs)
      @indexes = if runs.size == 1
                   (runs[0][0]..runs[0][1]).to_a
                 else
                   runs.flat_map { |first, last| (first..last).to_a }.sort.uniq
                 end
    end

    # @return [Integer] how many points are chosen
    def size = indexes.size

    # @return [Point]
    def first = points[indexes.first]

    # @return [Point]
    def last = points[indexes.last]

    # @return [Array<Point>]
    def chosen = indexes.map { |i| points[i] }

    # @return [Array<Float>] theirs
    def values = indexes.map { |i| points[i].value }
    def include?(index) = marks[index]

    # @return [Array<Array(Integer, Integer)>] the fewest runs that name the same points
    def runs = indexes.slice_when { |a, b| b > a + 1 }.map { |list| [list.first, list.last] }

    # The envelope's points with the chosen ones made anew.
    # @yieldparam point [Point]
    # @yieldparam index [Integer]
    # @yieldreturn [Point]
    def map
      list = points.dup
      indexes.each { |i| list[i] = yield(points[i], i) }
      list
    end

    # The chosen points with new values, kept in `range`; the shapes between two of them are scaled along.
    # @yieldparam point [Point]
    # @yieldreturn [Numeric]
    def revalued(range, factor: 1)
      low, high = range.min.to_f, range.max.to_f
      map do |point, i|
        shape = factor != 1 && include?(i + 1) ? point.shape.scaled(factor) : point.shape
        Point.new(tick: point.tick, value: yield(point).clamp(low, high), shape:)
      end
    end

    # The chosen points at new ticks; each stops at what stands before it and at the next point that stays.
    # @yieldparam point [Point]
    # @yieldreturn [Integer]
    def retimed
      low = 0
      room = room_after
      points.each_with_index.map do |point, i|
        unless include?(i)
          low = point.tick
          next point
        end

        tick = yield(point).clamp(low, [room[i], low].max)
        low = tick
        Point.new(tick:, value: point.value, shape: point.shape)
      end
    end

    private

    # By place, the tick of the next point that stays.
    def room_after
      room = Timing::LAST_TICK
      (points.size - 1).downto(0).each_with_object([]) do |i, list|
        list[i] = room
        room = points[i].tick unless include?(i)
      end
    end

    # By place, whether the point is chosen.
    def marks = @marks ||= Array.new(points.size, false).tap { |list| indexes.each { |i| list[i] = true } }

    def check(runs)
      faults = runs.each_with_index.filter_map do |(first, last), i|
        next if first <= last && last < points.size

        Fault.new("unknown_point", "/runs/#{i}",
                  "The envelope has #{points.size} points; #{first} to #{last} names others.")
      end
      raise NotFound, faults unless faults.empty?
    end
  end
end
