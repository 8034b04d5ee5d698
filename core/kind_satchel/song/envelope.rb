# frozen_string_literal: true

module KindSatchel
  # A move of one parameter: where its values come from (its `source`: points sorted by tick, or an LFO), and how they act.
  #
  # `target` is an {Address}; `role` and `clock` are registry ids; `limits` = [low, high] are the amounts between which it runs: a
  # point at 0 (of a shift at -1) acts as `low`, one at 1 as `high`, and low > high turns it over. `depth` (0..1) draws every amount
  # towards rest: 0 for a shift, 1 for a scale, the middle of the limits for a set. `own_length_ticks` is nil where the clock needs
  # none. `fader` says of a lane that sets: "follow", it moves the knob; "trim", the knob raises or lowers what it does, as a whole.
  # Before the first point the first value holds, after the last the last; an empty drawn envelope does nothing.
  class Envelope < Value.of(:id, :target, :role, :clock, :own_length_ticks, :limits, :depth, :on, :fader, :source, :points)
    FADERS = %w[follow trim].freeze
    MOST_POINTS = 200_000
    # From so many points on, segments are made as they are asked for.
    MANY = 200

    # A fresh envelope for a parameter: on, over the whole range, restarting with every loop.
    def self.fresh(id:, target:, points: [], role: "set", clock: "each_loop")
      new(id:, target:, role:, clock:, points:, own_length_ticks: nil, limits: Roles.full(role), depth: 1.0, on: true, fader: "follow",
          source: Sources::Drawn::PLAIN)
    end

    def check
      @role_rules = Roles::ALL.fetch(role)
      @clock_rules = Clocks::ALL.fetch(clock)
      fault!("unknown_fader", "/fader", "A fader follows or trims: #{FADERS.join(' or ')}, not #{fader.inspect}.") unless FADERS.include?(fader)
      whole!("/own_length_ticks", own_length_ticks, Timing::SHORTEST_TICKS) if own_length_ticks
      limits.each_with_index { |limit, i| number!("/limits/#{i}", limit, role_rules.values) }
      number!("/depth", depth, 0..1)
      @factor, @offset = source.line(self)
      points.freeze
      check_points
      source.check_with(self)
    end

    def acts? = on && source.acts?(self)
    def lfo? = !source.drawn?
    def trims? = fader == "trim" && role == "set"
    attr_reader :role_rules, :clock_rules

    def full_limits? = limits == Roles.full(role)

    # Whether its values are its amounts: full limits, full depth.
    def plain? = @factor.nil?

    # What a value of its source comes to between the limits, and by the depth.
    # @return [Float]
    def amount(value) = @factor ? (value * @factor) + @offset : value

    # The value of a point that comes to an amount, not limited; the nearest there is where all come to one.
    # @return [Float]
    def value_of(amount)
      return amount if plain?

      @factor.zero? ? 0.0 : (amount - @offset) / @factor
    end

    # @return [Array(Float, Float), nil] amount = value * first + second; nil for plain ones
    def amount_line = plain? ? nil : [@factor, @offset]

    # @return [Array<Point>] the points with limits and depth taken in
    def full_points
      return points if plain?

      least, most = Roles.full(role)
      points.map { |point| Point.new(tick: point.tick, value: amount(point.value).clamp(least, most), shape: point.shape.scaled(@factor)) }
    end

    # @return [Envelope] that gives the same with full limits and full depth
    def unlimited = lfo? || plain? ? self : bare.with(points: full_points)

    # @param to [Integer] so far an LFO is drawn, in ticks of its own time
    # @return [Envelope] of points that give the same up to there
    def drawn(to) = lfo? ? bare.with(source: Sources::Drawn::PLAIN, points: source.points(self, 0, to)) : self

    # @return [Envelope] the points alone, whatever the limits
    def bare = with(limits: Roles.full(role), depth: 1.0)

    # The ends of the segment that leaves a point; nil for the last.
    def ends_at(index)
      a, b = points[index], points[index + 1]
      b && Shapes::Ends.new(a.value, b.value, b.tick - a.tick)
    end

    # The amount at a position, right-continuous: on a jump the later one. Limits and depth applied; nil when empty.
    # @param tick [Numeric] ticks into the envelope
    def at(tick) = source.at(self, tick)

    # Every smooth stretch that reaches into a run, in order, each with the run in whose own time it lies.
    # @param run [Clocks::Run]
    def each_segment(run, &) = source.each_segment(self, run, &)

    # The segment of its points at a position; nil where there are none.
    def segment_at(tick)
      return if points.empty?

      return segment_from(tick) { |segment| return segment } if points.size > MANY && !@memo.key?(:segments)

      list = @memo[:segments] || segments
      list.bsearch { |segment| segment.finish > tick } || list.last
    end

    # Every smooth stretch in order (see {Shapes}), with the held stretches before the first and after the last point. The
    # outer ends lie at 0 and at {Timing::LAST_TICK}. Amounts stay within what the role may hold.
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

    def check_points
      fault!("too_many", "/points", "An envelope holds at most #{MOST_POINTS} points.") if points.size > MOST_POINTS
      faults = []
      allowed = role_rules.values
      before = 0
      points.each_with_index do |point, i|
        faults << Fault.new("unsorted", "/points/#{i}/tick", "Points stand in order of time.") if point.tick < before
        unless allowed.cover?(point.value)
          faults << Fault.new("out_of_range", "/points/#{i}/value", "#{point.value} lies outside #{allowed}, which a #{role} envelope may hold.")
        end
        before = point.tick
        break if faults.size >= Faults::MOST
      end
      raise InvalidInput, faults unless faults.empty?
    end

    def build_segments
      return [] if points.empty?

      list = []
      list << held(0, points.first.tick, points.first) if points.first.tick.positive?
      points.each_cons(2) { |a, b| add_segment(list, a, b) if b.tick > a.tick }
      list << held(points.last.tick, Timing::LAST_TICK + 1, points.last)
    end

    def segments_between(tick, &)
      first, last = points.first, points.last
      after = points.bsearch_index { |point| point.tick > tick } || points.size
      yield held(0, first.tick, first) if after.zero?
      [after, 1].max.upto(points.size - 1) { |i| parts_between(points[i - 1], points[i], tick, &) }
      yield held(last.tick, Timing::LAST_TICK + 1, last)
    end

    def parts_between(from, to, tick)
      return unless to.tick > from.tick

      add_segment([], from, to).each { |segment| yield segment if segment.finish > tick }
    end

    def held(from, to, point)
      value = amount(point.value)
      Segment.new(from, to, value, value, Shapes::Hold::PLAIN)
    end

    # The smooth stretches of the segment between two points.
    def add_segment(list, from, to)
      shape = from.shape
      return list << Segment.new(from.tick, to.tick, amount(from.value), amount(to.value), shape) if shape.is_a?(Shapes::Smooth)

      ticks = to.tick - from.tick
      shape.parts(Shapes::Ends.new(from.value, to.value, ticks)).each { |part| add_part(list, part, from.tick, ticks) }
      list
    end

    def add_part(list, part, tick, ticks)
      limited(part) do |one|
        start, finish = [one.start, one.finish].map { |u| tick + Grid.ticks(ticks * u) }
        next unless finish > start

        list << Segment.new(start, finish, amount(one.a), amount(one.b), one.shape, tick + (ticks * one.start), ticks * (one.finish - one.start).to_f)
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
      part.shape.position_of((limit - part.a) / (part.b - part.a)) if (part.a - limit) * (part.b - limit) < 0 && !part.shape.still?
    end

    def part_between(part, from, to, low, high)
      a, b = [from, to].map { |u| (part.a + ((part.b - part.a) * part.shape.weight(u))).clamp(low, high) }
      width = part.finish - part.start
      shape = (a - b).abs < 1e-12 ? Shapes::Hold::PLAIN : part.shape.cut(from, to)
      Shapes::Part.new(part.start + (width * from), part.start + (width * to), a, b, shape)
    end
  end
end
