# frozen_string_literal: true

module KindSatchel
  # Two moves of one role as one: what scales multiplies, what shifts adds up. Where one of them is level the shapes
  # of the other stay; where both move, straight segments keep to the product or sum within {TOLERANCE}.
  class Blend
    # As a share of the travel.
    TOLERANCE = 0.0005

    # @param role [String] scale or shift
    # @param one [Array<Point>] both from `from` to `to`
    # @param other [Array<Point>]
    # @return [Array<Point>]
    def self.points(role, one, other, from, to) = new(role, one, other).points(from, to)

    def initialize(role, one, other)
      @role = role
      @allowed = Roles::ALL.fetch(role).values
      @lists = [one, other]
    end

    # @return [Array<Point>] from the first tick to the last, counted from the first
    def points(from, to)
      ticks = @lists.flat_map { |list| list.map(&:tick) }.uniq.sort.grep(from..to)
      ticks = [from, *ticks, to].uniq
      list = ticks.each_cons(2).flat_map { |start, finish| stretch(start, finish) }
      Splice.chain([list])
    end

    private

    def stretch(from, to)
      parts = @lists.map { |list| Splice.between(list, from, to).map { |point| point.with(tick: point.tick + from) } }
      level = parts.find { |part| part.size == 2 && level?(part) }
      moving = parts.find { |part| !part.equal?(level) }
      level ? with_level(moving, level.first.value) : chained(parts, from, to)
    end

    def level?((first, last))
      first.shape.is_a?(Shapes::Hold) || (first.value == last.value && !first.shape.is_a?(Shapes::Cycle))
    end

    def with_level(points, amount)
      return points.map { |point| point.with(value: allowed(point.value + amount)) } if @role == "shift"

      points.map do |point|
        Point.new(tick: point.tick, value: allowed(point.value * amount), shape: point.shape.scaled(amount))
      end
    end

    def chained(parts, from, to)
      envelopes = parts.map do |points|
        Envelope.fresh(id: "blend", target: Address.parse("any/any/any"), role: @role, points:)
      end
      lists = envelopes.map { |envelope| segments(envelope, from, to) }
      cuts = lists.flatten.flat_map { |segment| [segment.start, segment.finish] }.uniq.sort
      cuts.each_cons(2).flat_map { |start, finish| lines(lists, start, finish) }
    end

    def segments(envelope, from, to)
      envelope.segments.select { |segment| segment.finish > from && segment.start < to && segment.start >= from }
    end

    # Corners lie on whole ticks, so chords are looked for a little more closely than they must keep to.
    def lines(lists, from, to)
      pair = lists.map { |list| list.find { |segment| segment.start <= from && segment.finish >= to } }.compact
      inner = Chords.breaks(from, to, TOLERANCE * 0.8) do |start, finish|
        blended(pair.map { |one| one.jet(start, finish) }).stray(finish - start)
      end
      [from, *inner.map(&:round), to].uniq.map do |tick|
        Point.new(tick: tick.round, value: sum(pair.map { |one| one.at(tick) }), shape: Shapes::Straight::PLAIN)
      end
    end

    def blended(jets) = jets.reduce { |a, b| @role == "shift" ? a + b : a * b }
    def sum(values) = allowed(@role == "shift" ? values.sum : values.reduce(:*))

    # Within what the role may hold: a shape cut in two comes back to its ends within some billionths.
    def allowed(value) = value.clamp(@allowed)
  end
end
