# frozen_string_literal: true

module KindSatchel
  # The smooth stretches that an envelope's points make, its limits and depth taken in. For {Envelope}.
  module PointSegments
    # From so many points on, segments are made as they are asked for.
    MANY = 200

    # The segment of its points at a position; nil where there are none.
    def segment_at(tick)
      return if points.empty?

      return segment_from(tick) { |segment| return segment } if points.size > MANY && !@memo.key?(:segments)

      list = @memo[:segments] || segments
      list.bsearch { |segment| segment.finish > tick } || list.last
    end

    # Every smooth stretch in order (see {Shapes}), with the held stretches before the first and after the last point.
    # The outer ends lie at 0 and at {Timing::LAST_TICK}. Amounts stay within what the role may hold.
    # @return [Array<Segment>]
    def segments = memo(:segments) { build_segments }

    # Segments that reach beyond `position`, in order. Long envelopes make only those that are asked for.
    def segment_from(position, &)
      return segments_between(position, &) if points.size > MANY && !@memo.key?(:segments)

      list = segments
      first = list.bsearch_index { |s| s.finish > position } || (list.size - 1)
      first.upto(list.size - 1) { |i| yield list[i] }
    end

    private

    def build_segments
      return [] if points.empty?

      list = []
      list << level_stretch(0, points.first.tick, points.first) if points.first.tick.positive?
      points.each_cons(2) { |a, b| add_segment(list, a, b) if b.tick > a.tick }
      list << level_stretch(points.last.tick, Timing::LAST_TICK + 1, points.last)
    end

    def segments_between(tick, &)
      first, last = points.first, points.last
      after = points.bsearch_index { |point| point.tick > tick } || points.size
      yield level_stretch(0, first.tick, first) if after.zero?
      [after, 1].max.upto(points.size - 1) { |i| parts_between(points[i - 1], points[i], tick, &) }
      yield level_stretch(last.tick, Timing::LAST_TICK + 1, last)
    end

    def parts_between(from, to, tick)
      return unless to.tick > from.tick

      add_segment([], from, to).each { |segment| yield segment if segment.finish > tick }
    end

    def level_stretch(from, to, point)
      value = amount(point.value)
      Segment.new(from, to, value, value, Shapes::Hold::PLAIN)
    end

    # The smooth stretches of the segment between two points.
    def add_segment(list, from, to)
      shape = from.shape
      if shape.is_a?(Shapes::Smooth)
        return list << Segment.new(from.tick, to.tick, amount(from.value), amount(to.value), shape)
      end

      ticks = to.tick - from.tick
      shape.parts(Shapes::Ends.new(from.value, to.value, ticks)).each { |part| add_part(list, part, from.tick, ticks) }
      list
    end

    def add_part(list, part, tick, ticks)
      limited(part) do |one|
        start, finish = [one.start, one.finish].map { |u| tick + Grid.ticks(ticks * u) }
        next unless finish > start

        exact = { origin: tick + (ticks * one.start), length: ticks * (one.finish - one.start).to_f }
        list << Segment.new(start, finish, amount(one.a), amount(one.b), one.shape, **exact)
      end
    end

    # A cycle may swing further than an amount may go; there it stays at the limit.
    def limited(part, &)
      values = role_rules.values
      return yield(part) if values.cover?(part.a) && values.cover?(part.b)

      low, high = values.min.to_f, values.max.to_f

      places = [0.0, *[low, high].filter_map { |limit| crossing(part, limit) }.sort, 1.0]
      places.each_cons(2) { |u0, u1| yield part_between(part, u0, u1, low, high) if u1 > u0 }
    end

    def crossing(part, limit)
      return unless (part.a - limit) * (part.b - limit) < 0 && !part.shape.still?

      part.shape.position_of((limit - part.a) / (part.b - part.a))
    end

    def part_between(part, from, to, low, high)
      a, b = [from, to].map { |u| (part.a + ((part.b - part.a) * part.shape.weight(u))).clamp(low, high) }
      width = part.finish - part.start
      shape = (a - b).abs < 1e-12 ? Shapes::Hold::PLAIN : part.shape.cut(from, to)
      # The end is the part's own, to the last bit, or a gap would lie between it and the next.
      Shapes::Part.new(part.start + (width * from), to == 1 ? part.finish : part.start + (width * to), a, b, shape)
    end
  end
end
