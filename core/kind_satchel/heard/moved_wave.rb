# frozen_string_literal: true

module KindSatchel
  module Heard
    # What an LFO gives, 0..1, while its rate or its wave is moved, or while it goes by the clock. Its phase is the integral of the
    # rate from the start of the run, so it runs on without a jump through every change; a stretched clock stretches it too, but for
    # one that goes by the clock.
    class MovedWave
      # What lies so little below the start of something, in cycles, stands on it.
      EDGE = Sources::Lfo::EDGE

      # @param frame [Frame]
      # @param envelope [Envelope] an LFO
      # @param rate [Setting]
      # @param wave [Setting]
      def initialize(frame, envelope, rate, wave)
        @lfo = envelope.source
        @wave = wave
        @start = frame.region? ? frame.reach.start_tick : 0
        @anchor = anchor(frame, envelope) if frame.region?
        @cycles = steady(rate.resting, frame.song) unless rate.moved?
        @cycles ||= frame.integral(envelope) { Integral.new(rate.resolver, @start, law(frame.song)) }
      end

      # @return [Float] how many between two song ticks
      def cycles(from, to) = @cycles.at(to) - @cycles.at(from)

      # @param run [Clocks::Run]
      # @return [Float] 0..1
      def at(run, tick)
        phase = phase(run, tick)
        lfo = waving(@wave.at(tick))
        number = (phase + EDGE).floor
        stage = stage_at(lfo, number, phase - number)
        stage.a + ((stage.b - stage.a) * stage.shape.weight(((phase - number - stage.from) / (stage.to - stage.from)).clamp(0.0, 1.0)))
      end

      # @raise [Sources::TooManyCycles]
      def each_arc(run, source, &)
        @lfo.bearable!(pace(run) * cycles(run.from, run.to))
        sections(run) do |start, finish, zero|
          @wave.waves(start, finish).each { |from, to, wave| stretches(from, to, Waving.new(waving(wave), pace(run), zero), source, &) }
        end
      end

      # The phase at a tick of a run, whole cycles counted.
      def phase(run, tick) = zero(run, @lfo.section_at(run.position(tick))) + (pace(run) * @cycles.at(tick))

      private

      # A free one ignores stretching.
      def pace(run) = @lfo.free? ? 1 : run.pace || 1

      # The phase at no cycles, in one section of a run.
      def zero(run, section)
        return @anchor.phase - (pace(run) * @cycles.at(@anchor.tick)) if @anchor&.holds?(run) && @lfo.section_at(run.position(@anchor.tick)).equal?(section)

        section.phase - (pace(run) * @cycles.at(run.tick(section.from)))
      end

      # Where the region tells what its phase is.
      def anchor(frame, envelope)
        place, phase = frame.reach.phases[envelope.id]
        place && Anchor.new(frame.reach.start_tick + place, phase, envelope.clock_rules.pass_ticks(frame.reach, frame.clip, envelope))
      end

      Anchor = Struct.new(:tick, :phase, :pass) do
        # Whether it lies in a run, as far as that goes.
        def holds?(run) = pass.nil? || (tick - run.zero).between?(0, pass - 1)
      end

      # One wave, with the pace of its run and the phase at no cycles.
      Waving = Struct.new(:lfo, :pace, :zero)
      def waving(wave) = wave == @lfo.wave ? @lfo : @lfo.with(wave:)

      # The stretches of a run between restarts.
      def sections(run)
        first = @lfo.sections[0]
        @lfo.sections.each do |section|
          from = section.equal?(first) ? run.from : [run.tick(section.from), run.from].max
          to = section.to.infinite? ? run.to : [run.tick(section.to), run.to].min
          yield from, to, zero(run, section) if to > from
        end
      end

      def stretches(from, to, waving, source, &)
        @cycles.each(from, to) do |stretch|
          phase = Phase.new(stretch, waving.pace, waving.zero)
          wander([stretch.from, from].max, [stretch.to, to].min, waving.lfo, phase, source, &)
        end
      end

      def law(song)
        @lfo.free? ? Integral::ClockLaw.new(Settings::FREE_RATE.scale, song.tempo) : Integral::CyclesLaw.new(Settings::RATE.scale)
      end

      def steady(rate, song) = @lfo.free? ? ByClock.new(rate, song.tempo) : Steady.new(rate / Timing::PPQ)

      def stage_at(lfo, number, share)
        list = lfo.stages(number)
        list.find { |stage| stage.to > share + EDGE } || list.last
      end

      # The stages of the wave between two ticks, one smooth stretch of the phase.
      def wander(from, to, lfo, phase, source)
        at = phase.at(from)
        number = (at + EDGE).floor
        place = lfo.stages(number).index(stage_at(lfo, number, at - number))
        while from < to
          stage = lfo.stages(number)[place]
          finish = [phase.edge(number + stage.to), to].min
          yield WaveArc.new(from, finish, source, phase, stage, number, 1.0, 0.0) if finish > from
          from = finish if finish > from
          place, number = stage.to < 1 ? [place + 1, number] : [0, number + 1]
        end
      end

      # The phase of a run over one stretch of the integral: the integral times `pace` and `zero` more.
      class Phase
        attr_reader :pace

        def initialize(stretch, pace, zero)
          @stretch, @pace, @zero = stretch, pace, zero
        end

        def at(tick) = @zero + (@pace * @stretch.sum_at(tick))
        def tick_of(phase) = @stretch.tick_of((phase - @zero) / @pace)
        def tick_about(phase) = @stretch.tick_about((phase - @zero) / @pace)
        def place(ramp, start, width, list, unit) = @stretch.place(ramp, (start - @zero) / @pace, width / @pace, list, unit)
        def even? = @stretch.even?
        def pace_jet(from, to) = @stretch.pace_jet(from, to)

        # Where a phase is reached: at a whole tick that is as good as there.
        def edge(phase)
          tick = tick_of(phase)
          return tick if tick.infinite?

          whole = tick.round
          (at(whole) - phase).abs < EDGE ? whole : Grid.ticks(tick)
        end
      end

      # A rate that stays, as an integral.
      class Steady
        def initialize(pace) = @pace = pace
        def at(tick) = @pace * tick
        def each(from, to) = yield(Integral::Even.new(from, to, @pace * from, @pace))
      end

      # So many cycles a second, as an integral.
      class ByClock
        def initialize(hertz, tempo)
          @hertz, @tempo = hertz, tempo
        end

        def at(tick) = @hertz * @tempo.seconds_at(tick)

        def each(from, to)
          [from, *@tempo.changes(from, to), to].each_cons(2) { |a, b| yield Integral::Clocked.new(a, b, at(a), @hertz, @tempo) }
        end
      end
      private_constant :Phase, :Steady, :ByClock
    end

    # One stage of a wave at work, by a phase that moves as it likes.
    class WaveArc
      include Arc

      # Of a tolerance, what the shape may take; the rest is for a rate that moves within it.
      SHAPE_SHARE = 0.9
      # So many times as many corners, and so many more, are put in for a rate that moves; of more it is better looked for the fewest: by
      # what is known of so many parts, as long as no more chords lie in one.
      MOST_TIMES = 2
      MOST_MORE = 4
      PARTS = 8
      MOST_IN_PART = 16

      # The stage as a segment from 0 to 1, whatever its pace.
      attr_reader :segment

      # @param number [Integer] of the cycle
      # @param factor [Float] what each level is multiplied with
      # @param offset [Float] what is added then
      def initialize(from, to, source, phase, stage, number, factor, offset)
        @from, @to, @source, @phase, @stage, @number, @factor, @offset = from, to, source, phase, stage, number, factor, offset
        @segment = stage.segment(factor, offset)
        @shape, @a, @rise = @segment.shape, @segment.a, @segment.rise
        @start = number + stage.from
        @width = stage.to - stage.from
      end

      def lined(from, to, factor, offset)
        WaveArc.new(from, to, source, @phase, @stage, @number, @factor * factor, (@offset * factor) + offset)
      end

      # Whether the whole stage sounds in a piece.
      def entire?(piece) = piece.from == @from && piece.to == @to && share(@from) < TINY && share(@to) > 1 - TINY
      # Ends lie on the {Grid}, up to 1/131072 tick off: so much of a stage at the fastest rate, and far less than any tolerance.
      TINY = 2e-6

      # Writes the inner corners of a chain: share of the stage, value, ... becomes tick times `unit`, value, ...
      def place(ramp, list, unit) = @phase.place(ramp, @start, @width, list, unit)

      # Whether the pace hardly changes between shares so far apart: what is straight by phase strays no more than `tolerance` then.
      def even_between?(apart, tolerance)
        return true if @phase.even?

        jet = @phase.pace_jet(@from, @to)
        keeps?(jet, apart, @shape.slope_most(0.0, 1.0) * @rise.abs, tolerance)
      end

      def still? = @rise.zero? || @shape.still?
      def straight? = still? || (@phase.even? && @shape.straight?)
      def at(tick) = still? ? @a : @a + (@rise * @shape.weight(share(tick)))

      # Corners of the shape by phase, where the rate hardly moves within a chord; else by what is known for certain.
      def breaks(from, to, worth, tolerance)
        return [] if straight?

        ends = [share(from), share(to)]
        room = @phase.even? ? tolerance : tolerance * SHAPE_SHARE
        shares = [ends[0], *@shape.cut(*ends).breaks(rise(ends) * worth, room).map { |u| ends[0] + ((ends[1] - ends[0]) * u) }, ends[1]]
        shares = near_enough(from, to, shares, worth, tolerance - room) unless @phase.even?
        return by_parts(from, to, worth, tolerance) || super unless shares

        shares[1..-2].map { |u| tick_about(u) }
      end

      # By the chain rule: u moves by pace / width a tick.
      def jet(from, to)
        return Jet.level(@a) if still?

        ends = [share(from), share(to)]
        low, high = ends.map { |u| @a + (@rise * @shape.weight(u)) }.minmax
        pace, bend = paces(from, to)
        slope, size = @shape.slope_most(*ends), @rise.abs
        Jet.new(low, high, size * slope * pace, size * ((@shape.bend_most(*ends) * pace * pace) + (slope * bend)))
      end

      private

      def share(tick) = ((@phase.at(tick) - @start) / @width).clamp(0.0, 1.0)
      def rise(ends) = (@shape.weight(ends[1]) - @shape.weight(ends[0])) * @rise

      # How fast u moves at most, and how fast that changes.
      def paces(from, to)
        jet = @phase.pace_jet(from, to)
        [jet.high * @phase.pace / @width, jet.slope * @phase.pace / @width]
      end

      # Between two corners u strays from even by at most its second derivative times the square of the time over 8: corners are put in
      # where they are too far apart for that.
      # @return [Array<Float>, nil] nil where these would be too many
      def near_enough(from, to, shares, worth, tolerance)
        jet = @phase.pace_jet(from, to)
        slope = @shape.slope_most(shares.first, shares.last) * @rise.abs * worth
        bend = jet.slope * @phase.pace / @width * slope
        return shares if bend.zero?

        apart = Math.sqrt(8 * tolerance / bend) * jet.low * @phase.pace / @width
        return unless apart.positive?

        most = (MOST_TIMES * shares.size) + MOST_MORE
        parts = shares.each_cons(2).map { |one, other| ((other - one) / apart).ceil.clamp(1, most) }
        return if parts.sum > most

        shares.each_cons(2).zip(parts).flat_map { |(one, other), count| Array.new(count) { |i| one + ((other - one) * i / count) } } << shares.last
      end

      # Where corners come by what is known of equal parts of the stretch: a chord strays by no more than the most bend of the parts it
      # touches times the square of its width over 8.
      # @return [Array<Float>, nil] nil where that is not known
      def by_parts(from, to, worth, tolerance)
        width = (to - from) / PARTS.to_f
        widths = Array.new(PARTS) { |i| Math.sqrt(8 * tolerance / (jet(from + (i * width), from + ((i + 1) * width)).bend * worth)) }
        return if widths.any? { |one| one < width / MOST_IN_PART || one.nan? }

        list = [from]
        list << longest(list.last, from, to, widths) while list.last < to
        list[1..-2]
      end

      # The end of the longest chord from a tick on: into a part that bends more it goes only as far as that allows.
      def longest(at, from, to, widths)
        width = (to - from) / PARTS.to_f
        place = ((at - from) / width).floor.clamp(0, PARTS - 1)
        finish = at + widths[place]
        while (place += 1) < PARTS && finish > (edge = from + (place * width))
          finish = (at + widths[place]).clamp(edge, finish)
        end
        [finish, to].min
      end

      def tick_about(share) = @phase.tick_about(@start + (share * @width))

      def keeps?(jet, apart, slope, tolerance)
        ticks = apart * @width / (jet.low * @phase.pace)
        ticks * ticks / 8 * jet.slope * @phase.pace / @width * slope <= tolerance
      end
    end
  end
end
