# frozen_string_literal: true

module KindSatchel
  # A move by itself, kept under a name to be dropped on any parameter: its `source` (points or an LFO),
  # `length_ticks`, the `role` it was made in, and `tags`. `points` hold shares, 0..1 of what the role may hold, from
  # tick 0 to the length. `limits` are the shares between which it ran, depth taken in; low > high is turned over.
  #
  # @example
  #   envelope = song.clips.each_value.flat_map(&:envelopes).find { |one| one.points.any? }
  #   KeptMove.of(envelope, 0, 3840, name: "Slow door", tags: ["swell"]).length_ticks #=> 3840
  class KeptMove < Value.of(:name, :tags, :role, :length_ticks, :limits, :source, :points)
    FULL = [0.0, 1.0].freeze
    LONGEST_NAME = 120
    MOST_TAGS = 12
    LONGEST_TAG = 40
    MOST_POINTS = 20_000

    # @param envelope [Envelope]
    # @param from [Integer] tick of its own time
    # @param to [Integer]
    # @raise [InvalidInput] for an empty envelope, a stretch without length, a name that is none
    def self.of(envelope, from, to, name:, tags: [])
      raise InvalidInput.of("too_short", "/to_tick", "A stretch ends after it starts.") unless to > from
      unless envelope.source.acts?(envelope)
        raise InvalidInput.of("empty", "/envelope_id",
                              "There is nothing to keep: the envelope has no points.")
      end

      role = envelope.role
      ends = envelope.lfo? ? [0.0, 1.0] : Roles.full(role)
      limits = ends.map { |value| share(envelope.amount(value), role) }
      points = envelope.lfo? ? [] : Splice.between(envelope.points, from, to).map { |point| shared(point, role) }
      new(name:, tags:, role:, length_ticks: to - from, limits: limits == FULL ? FULL : limits,
          source: envelope.lfo? ? envelope.source : Sources::Drawn::PLAIN, points:)
    end

    # @return [Float] 0..1 of what a role may be
    def self.share(amount, role) = (role == "shift" ? (amount + 1) / 2.0 : amount).clamp(0.0, 1.0)

    # @return [Point] its value as such a share
    def self.shared(point, role) = role == "shift" ? Snippet.remapped(point, 0.5, 0.5) : point

    def check
      unless name.is_a?(String) && name.strip.size.between?(
        1, LONGEST_NAME
      )
        fault!("bad_name", "/name",
               "A move's name has 1 to #{LONGEST_NAME} characters.")
      end
      check_tags
      Roles::ALL.fetch(role)
      whole!("/length_ticks", length_ticks, 1)
      limits.each_with_index { |limit, i| number!("/limits/#{i}", limit, 0..1) }
      [points, limits, tags].each(&:freeze)
      lfo? ? check_lfo : check_points
    end

    def lfo? = !source.drawn?

    # @return [Array(Float, Float)] what a role may hold between its limits
    def limits_for(role) = role == "shift" ? limits.map { |share| (share * 2) - 1 } : limits

    # @return [Snippet] its points in the amounts of its own role; of an LFO over so many ticks
    # @param ticks [Integer]
    # @param bpm [Float] at which a free LFO is drawn
    def snippet(ticks: length_ticks, bpm: 120.0)
      return Snippet.new(role: own_role, length_ticks:, points:) unless lfo?

      cycle_ticks = (bpm / 60 * Timing::PPQ / source.hertz).clamp(*Sources::Lfo::CYCLE_TICKS.minmax) if source.free?
      paced = source.free? ? source.with(hertz: nil, cycle_ticks:) : source
      blank = Envelope.fresh(id: "kept", target: Address.parse("any/any/any"), clock: "once").with(source: paced)
      Snippet.new(role: own_role, length_ticks: ticks, points: paced.points(blank, 0, ticks))
    end

    # Its points as an envelope of its own.
    # @param bpm [Float] at which a free LFO is drawn
    # @return [Envelope]
    def drawn(bpm: 120.0)
      Envelope.fresh(id: "kept", target: Address.parse("any/any/any"), clock: "once").with(points: snippet(bpm:).points)
    end

    # @return [Float] a share of what its own limits leave as one of the travel
    def between(value) = limits[0] + (value * (limits[1] - limits[0]))

    # @return [Float] the share at a share of its length
    def at(place)
      between(memo(:drawn) { drawn }.at(place * length_ticks))
    end

    private

    # Shares are what a set holds.
    def own_role = "set"

    def check_tags
      fine = tags.is_a?(Array) && tags.size <= MOST_TAGS && tags.all? do |tag|
        tag.is_a?(String) && tag.strip.size.between?(1, LONGEST_TAG)
      end
      return if fine

      fault!("bad_tags", "/tags",
             "A move has at most #{MOST_TAGS} tags of 1 to #{LONGEST_TAG} characters each.")
    end

    def check_lfo = points.empty? || fault!("lfo", "/points", "An LFO has no points.")

    def check_points
      fault!("empty", "/points", "A move has points.") if points.empty?
      fault!("too_many", "/points", "A kept move holds at most #{MOST_POINTS} points.") if points.size > MOST_POINTS
      points.each_with_index do |point, i|
        if point.value.negative?
          fault!("out_of_range", "/points/#{i}/value",
                 "#{point.value} is no share; shares lie between 0 and 1.")
        end
        if i.positive? && point.tick < points[i - 1].tick
          fault!("unsorted", "/points/#{i}/tick",
                 "Points stand in order of time.")
        end
      end
      return unless points.last.tick > length_ticks

      fault!("out_of_range", "/points",
             "Points lie within the length of #{length_ticks} ticks.")
    end
  end
end
