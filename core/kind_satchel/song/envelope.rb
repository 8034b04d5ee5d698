# frozen_string_literal: true

module KindSatchel
  # A move of one parameter: where its values come from (its `source`: points sorted by tick, or an LFO), and how they
  # act.
  #
  # `target` is an {Address}; `role` and `clock` are registry ids; `limits` = [low, high] are the amounts between
  # which it runs: a point at 0 (of a shift at -1) acts as `low`, one at 1 as `high`, and low > high turns it over.
  # `depth` (0..1) draws every amount towards rest: 0 for a shift, 1 for a scale, the middle of the limits for a set.
  # `own_length_ticks` is nil where the clock needs none. `fader` says of a lane that sets: "follow", it moves the
  # knob; "trim", the knob raises or lowers what it does, as a whole. `held` are its settings that a hand holds,
  # normalised, by name (see {Settings}). Before the first point the first value holds, after the last the last; an
  # empty drawn envelope does nothing.
  class Envelope < Value.of(:id, :target, :role, :clock, :own_length_ticks, :limits, :depth, :on, :fader, :source,
                            :points, :held)
    include PointSegments

    FADERS = %w[follow trim].freeze
    MOST_POINTS = 200_000

    NOTHING = {}.freeze

    def initialize(held: NOTHING, **fields) = super

    # A fresh envelope for a parameter: on, over the whole range, restarting with every loop.
    # @example
    #   Envelope.fresh(id: "e1", target: Address.parse("rope-bass/synth/cutoff")).role #=> "set"
    def self.fresh(id:, target:, points: [], role: "set", clock: "each_loop")
      new(id:, target:, role:, clock:, points:, own_length_ticks: nil, limits: Roles.full(role), depth: 1.0, on: true,
          fader: "follow",
          source: Sources::Drawn::PLAIN)
    end

    def check
      @role_rules = Roles::ALL.fetch(role)
      @clock_rules = Clocks::ALL.fetch(clock)
      unless FADERS.include?(fader)
        fault!("unknown_fader", "/fader",
               "A fader follows or trims: #{FADERS.join(' or ')}, not #{fader.inspect}.")
      end
      whole!("/own_length_ticks", own_length_ticks, Timing::SHORTEST_TICKS) if own_length_ticks
      limits.each_with_index { |limit, i| number!("/limits/#{i}", limit, role_rules.values) }
      number!("/depth", depth, 0..1)
      @factor, @offset = source.line(self)
      points.freeze
      check_points
      held.freeze
      held.each { |name, value| number!("/held/#{name}", value, 0..1) }
      source.check_with(self)
    end

    def acts? = on && source.acts?(self)
    def lfo? = !source.drawn?

    # How many cycles its points draw for each tick of its own time, over all of them.
    # @return [Float]
    def drawn_cycles
      memo(:drawn_cycles) do
        count = points.each_cons(2).sum(0.0) do |point, following|
          point.shape.is_a?(Shapes::Cycle) ? point.shape.count(following.tick - point.tick) : 0.0
        end
        count.zero? ? 0.0 : count / [points.last.tick - points.first.tick, 1].max
      end
    end

    # Whether its points were made by following something, and are as they were made.
    def followed? = source.is_a?(Sources::Followed) && source.made?(points)
    def trims? = fader == "trim" && role == "set"
    # Whether what it gives hangs on more than its own time: a hand on its settings, or the clock.
    def live? = !held.empty? || (lfo? && source.free?)
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
      points.map do |point|
        Point.new(tick: point.tick, value: amount(point.value).clamp(least, most), shape: point.shape.scaled(@factor))
      end
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

    private

    def check_points
      fault!("too_many", "/points", "An envelope holds at most #{MOST_POINTS} points.") if points.size > MOST_POINTS
      faults = []
      allowed = role_rules.values
      before = 0
      points.each_with_index do |point, i|
        faults << Fault.new("unsorted", "/points/#{i}/tick", "Points stand in order of time.") if point.tick < before
        unless allowed.cover?(point.value)
          faults << Fault.new("out_of_range", "/points/#{i}/value",
                              "#{point.value} lies outside #{allowed}, which a #{role} envelope may hold.")
        end
        before = point.tick
        break if faults.size >= Faults::MOST
      end
      raise InvalidInput, faults unless faults.empty?
    end
  end
end
