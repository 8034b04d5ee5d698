# frozen_string_literal: true

require_relative "lfo_cycle"

module KindSatchel
  module Sources
    # Raised for a stretch with more than {Lfo::MOST_CYCLES} cycles.
    class TooManyCycles < InvalidInput; end

    # A low-frequency oscillator: from the lower limit to the upper one by a wave, over and over, a cycle to
    # `cycle_ticks` of the envelope's own time; a free one `hertz` times a second of clock time, however its clock is
    # stretched. A run of its clock begins at `phase` (0..1 of a cycle); once begun it runs on without a seam.
    #
    # `wave` is sine, triangle, square, saw, ramp (see {Shapes::Cycle}) or random: a level for every cycle, made from
    # `seed`. `skew` lays the peak of sine and triangle; a square is low for the first 1 - skew. `bend` bends what the
    # wave gives, 0..1, as {Shapes::Curved} bends a line: (e^(kw) - 1)/(e^k - 1), k = 8 bend.
    #
    # `restarts` are places in the envelope's own time at which the phase is another, [tick, phase] in order: from one
    # on it runs on from that phase. Phases count whole cycles too, by which the random wave tells its levels.
    #
    # @example
    #   Lfo.plain.with(cycle_ticks: 480).text #=> "sine, 1/8"
    class Lfo < Value.of(:wave, :cycle_ticks, :skew, :bend, :phase, :seed, :hertz, :restarts)
      include LfoCycle

      RANDOM = "random"
      WAVES = %w[sine triangle square saw ramp random].freeze
      # From 32 cycles to a quarter note down to one to 64 quarter notes.
      CYCLE_TICKS = ((Timing::PPQ / 32)..(Timing::PPQ * 64))
      SEEDS = (0..Value::LARGEST)
      # The most cycles that are looked at in one stretch.
      MOST_CYCLES = 100_000
      # What lies so little below the start of a cycle, in cycles, stands on it.
      EDGE = 1e-9
      FULL_CIRCLE = [0.0, 1.0].freeze

      # Of a free one, cycles a second.
      HERTZ = (0.01..40)

      MOST_RESTARTS = 1000
      PHASES = (0..1_000_000_000)
      NO_RESTARTS = [].freeze

      # A stretch of the envelope's own time in which the phase runs on from `phase` at `from`, up to `to`.
      Section = Struct.new(:from, :phase, :to)

      def initialize(hertz: nil, restarts: NO_RESTARTS, **fields) = super

      # As a new one begins.
      def self.plain = new(wave: "sine", cycle_ticks: Timing::PPQ, skew: 0.5, bend: 0.0, phase: 0.0, seed: 1)

      def self.of(record) = plain.with(**record.except("kind").transform_keys(&:to_sym))

      def check
        unless WAVES.include?(wave)
          fault!("unknown_wave", "/wave", "There is no wave #{wave.inspect}; there is #{WAVES.join(', ')}.")
        end
        number!("/cycle_ticks", cycle_ticks, CYCLE_TICKS)
        number!("/hertz", hertz, HERTZ) if hertz
        number!("/skew", skew, 0..1)
        number!("/bend", bend, -1..1)
        number!("/phase", phase, 0..1)
        whole!("/seed", seed)
        check_restarts
      end

      def drawn? = false
      def settings = to_h.compact.reject { |name, value| name == :restarts && value.empty? }.transform_keys(&:to_s)

      # The stretches between restarts, in order; the first from the start of a run on, also where that lies before.
      # @return [Array<Section>]
      def sections
        memo(:sections) do
          starts = [[0, phase], *restarts]
          starts.each_with_index.map do |(tick, phase), i|
            Section.new(tick, phase, starts[i + 1] ? starts[i + 1][0] : Float::INFINITY)
          end
        end
      end

      # @param position [Numeric] in the envelope's own time
      # @return [Section]
      def section_at(position)
        restarts.empty? ? sections[0] : sections.reverse_each.find { |one| one.from <= position } || sections[0]
      end

      # The phase at a position, whole cycles counted, where nothing moves the rate and it goes by note lengths.
      # @example
      #   Lfo.plain.with(cycle_ticks: 480).phase_at(720) #=> 1.5
      def phase_at(position)
        section = section_at(position)
        section.phase + ((position - section.from) / cycle_ticks.to_f)
      end

      # Whether it goes by the clock, and not by note lengths; then `cycle_ticks` waits.
      def free? = !hertz.nil?
      def acts?(_envelope) = true
      def line(envelope) = Limits.line(envelope, 0.0, 1.0)

      # @raise [InvalidInput] where the envelope has points too
      def check_with(envelope)
        return if envelope.points.empty?

        fault!("lfo", "/points", "This move is an LFO, which has no points; turn it into points first.")
      end

      # The amount at a position, right-continuous.
      def at(envelope, position)
        section = section_at(position)
        number = cycle_at(position, section)
        list = cycle(envelope, number)
        within = [position - start_of(number, section), 0].max
        (list.find { |segment| segment.finish > within } || list.last).at(within)
      end

      # @raise [TooManyCycles]
      def each_segment(envelope, run, &)
        return each_in(sections[0], envelope, run, &) if restarts.empty?

        sections.each do |section|
          from = section.equal?(sections[0]) ? run.from : [run.tick(section.from), run.from].max
          to = section.to.infinite? ? run.to : [run.tick(section.to), run.to].min
          each_in(section, envelope, Clocks::Run.new(run.zero, from, to, run.pace, run.ahead), &) if to > from
        end
      end

      # The same of one stretch between restarts.
      # @raise [TooManyCycles]
      def each_in(section, envelope, run)
        number = cycle_at(run.position(run.from), section)
        last = cycle_at(run.position(run.to), section)
        bearable!(last - number)
        while number <= last
          turn = turn(run, number, section)
          cycle(envelope, number).each do |segment|
            yield turn, segment if turn.tick(segment.finish) > run.from && turn.tick(segment.start) < run.to
          end
          number += 1
        end
      end

      # @param cycles [Numeric] in what is asked
      # @raise [TooManyCycles]
      def bearable!(cycles)
        too_many! if cycles > MOST_CYCLES
      end

      # Least and most of all it can give.
      def swing(envelope) = FULL_CIRCLE.map { |level| envelope.amount(level) }.minmax

      # The same stretch as points.
      # @return [Array<Point>] counted from `from`
      def points(envelope, from, to) = LfoPoints.new(self, envelope).between(from, to)

      # @example
      #   Lfo.plain.with(cycle_ticks: 480).rate_text #=> "1/8"
      # @return [String] "1/8", "2 bars", "3.5 Hz"
      def rate_text = free? ? Units::HERTZ.text(hertz) : Timing::NoteLengths.text(cycle_ticks)

      # The wave, the rate and what else is not as it begins, in words.
      # @example
      #   Lfo.plain.with(skew: 0.25).text #=> "sine, 1/4, skew 0.25"
      # @param wave [String, nil] another wave in its place
      # @param rate [String, nil] what is told of the rate
      def text(wave: nil, rate: rate_text)
        more = { "skew" => [skew, 0.5], "bend" => [bend, 0], "phase" => [phase, 0] }.reject do |_, (value, plain)|
          value == plain
        end
        [wave || self.wave, *rate, *more.map { |name, (value, _)| "#{name} #{Units.short(value)}" }].join(", ")
      end

      private

      def check_restarts
        most = MOST_RESTARTS
        fault!("too_many", "/restarts", "An LFO holds at most #{most} restarts.") if restarts.size > most
        restarts.each_with_index do |(tick, phase), i|
          whole!("/restarts/#{i}/0", tick)
          number!("/restarts/#{i}/1", phase, PHASES)
          next unless i.positive? && tick <= restarts[i - 1][0]

          fault!("unsorted", "/restarts/#{i}/0", "Restarts stand in order of time, one to a tick.")
        end
        restarts.freeze
      end

      def too_many!
        raise TooManyCycles.of("too_many_cycles", "/to_tick",
                               "More than #{MOST_CYCLES} cycles of an LFO lie there; ask for a shorter stretch.")
      end

      # A cycle between ticks may end a little before the next begins: then it is made a little longer, and ends where
      # that begins.
      def turn(run, number, section)
        turn = run.counted_from(start_of(number, section))
        return turn if even?

        Clocks::Run.new(turn.zero, turn.from, [turn.to, run.tick(start_of(number + 1, section))].min, turn.pace,
                        turn.ahead)
      end

      def cycle_at(position, section) = (((position - section.from) / cycle_ticks.to_f) + section.phase + EDGE).floor

      # Where a cycle starts, in the envelope's own time.
      def start_of(number, section) = section.from + Grid.ticks((number - section.phase) * cycle_ticks)
    end
  end
end
