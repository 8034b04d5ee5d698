# frozen_string_literal: true

module KindSatchel
  # A stretch of a move by itself, independent of parameter and place: points from tick 0 to `length_ticks`, and the
  # role whose amounts their values are.
  class Snippet < Value.of(:role, :length_ticks, :points)
    # @param envelope [Envelope]
    # @raise [InvalidInput] for an empty envelope or a stretch without length
    def self.of(envelope, from, to)
      raise InvalidInput.of("too_short", "/to_tick", "A stretch ends after it starts.") unless to > from
      unless envelope.source.acts?(envelope)
        raise InvalidInput.of("empty", "/envelope_id",
                              "There is nothing to copy: the envelope has no points.")
      end

      points = envelope.lfo? ? envelope.source.points(envelope, from, to) : Splice.between(envelope.points, from, to)
      new(role: envelope.role, length_ticks: to - from, points:)
    end

    def check
      Roles::ALL.fetch(role)
      whole!("/length_ticks", length_ticks, 1)
      points.freeze
      fault!("empty", "/points", "A stretch of a move has points.") if points.empty?
      points.each_cons(2).with_index(1) do |(a, b), i|
        fault!("unsorted", "/points/#{i}/tick", "Points stand in order of time.") if b.tick < a.tick
      end
      return unless points.last.tick > length_ticks

      fault!("out_of_range", "/points",
             "Points lie within the length of #{length_ticks} ticks.")
    end

    # The same move for an envelope of another role or parameter: values keep their share of the whole travel, and a
    # switch flips where the shape crosses the middle.
    # @param scale [Scales::Scale] of the parameter it comes to
    # @return [Array<Point>]
    def points_for(role, scale)
      list = role == self.role ? points : points.map { |point| Snippet.shared(point, self.role, role) }
      scale.steps == 1 ? flips(list) : list
    end

    # @return [Snippet] stretched to another length
    def stretched(ticks)
      pace = ticks / length_ticks.to_r
      with(length_ticks: ticks, points: points.map { |point| point.with(tick: (point.tick * pace).round) })
    end

    # @return [Point] of another role
    def self.shared(point, from, to)
      return point if (from == "shift") == (to == "shift")

      from == "shift" ? remapped(point, 0.5, 0.5) : remapped(point, 2, -1.0)
    end

    # @return [Point] its value times `factor` and `offset` more, limited to -1..1
    def self.remapped(point, factor, offset)
      value = ((point.value * factor) + offset).clamp(-1.0, 1.0)
      Point.new(tick: point.tick, value:, shape: point.shape.scaled(factor))
    end

    private

    # Held values, turning where the curve crosses one half.
    def flips(list)
      segments = Envelope.new(**blank, points: list).segments.select { |segment| segment.start < length_ticks }
      turns = segments.flat_map { |segment| [[segment.start, segment.a], *crossing(segment)] }
      # Of what happens at one tick the last counts.
      turns = turns.map do |tick, value|
        [tick.round, value >= 0.5 ? 1.0 : 0.0]
      end.reverse.uniq(&:first).reverse.chunk_while { |a, b| a[1] == b[1] }.map(&:first)
      made = turns.map { |tick, value| Point.new(tick:, value:, shape: Shapes::Hold::PLAIN) }
      made + [made.last.with(tick: length_ticks)]
    end

    def crossing(segment)
      return [] if segment.still? || (segment.a >= 0.5) == (segment.b >= 0.5)

      from, to = [segment.start, [segment.finish, length_ticks].min].map(&:to_f)
      40.times do
        middle = (from + to) / 2
        (segment.at(middle) >= 0.5) == (segment.a >= 0.5) ? from = middle : to = middle
      end
      [[to, segment.b]]
    end

    def blank
      Envelope.fresh(id: "snippet", target: Address.parse("any/any/any"), points: [], clock: "once").to_h
    end
  end
end
