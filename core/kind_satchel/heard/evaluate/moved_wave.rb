# frozen_string_literal: true

module KindSatchel
  module Heard
    # What an LFO gives, 0..1, while its rate or its wave is moved, or while it goes by the clock. Its phase is the
    # integral of the rate from the start of the run, so it runs on without a jump through every change; a stretched
    # clock stretches it too, but for one that goes by the clock.
    class MovedWave
      # What lies so little below the start of something, in cycles, stands on it.
      EDGE = Sources::Lfo::EDGE

      # @param evaluation [Evaluation] of a frame
      # @param envelope [Envelope] an LFO
      # @param rate [Setting]
      # @param wave [Setting]
      def initialize(evaluation, envelope, rate, wave)
        frame = evaluation.frame
        @lfo = envelope.source
        @wave = wave
        @start = frame.region? ? frame.reach.start_tick : 0
        @anchor = anchor(frame, envelope) if frame.region?
        @cycles = steady(rate.resting, frame.song) unless rate.moved?
        @cycles ||= evaluation.integral(envelope) { Integral.new(rate.signal, @start, law(frame.song)) }
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
        share = ((phase - number - stage.from) / (stage.to - stage.from)).clamp(0.0, 1.0)
        stage.a + ((stage.b - stage.a) * stage.shape.weight(share))
      end

      # @raise [Sources::TooManyCycles]
      def each_arc(run, source, &)
        @lfo.bearable!(pace(run) * cycles(run.from, run.to))
        sections(run) do |start, finish, zero|
          @wave.waves(start, finish).each do |from, to, wave|
            stretches(from, to, Waving.new(waving(wave), pace(run), zero), source, &)
          end
        end
      end

      # The phase at a tick of a run, whole cycles counted.
      def phase(run, tick) = zero(run, @lfo.section_at(run.position(tick))) + (pace(run) * @cycles.at(tick))

      private

      # A free one ignores stretching.
      def pace(run) = @lfo.free? ? 1 : run.pace || 1

      # The phase at no cycles, in one section of a run.
      def zero(run, section)
        if @anchor&.holds?(run) && @lfo.section_at(run.position(@anchor.tick)).equal?(section)
          return @anchor.phase - (pace(run) * @cycles.at(@anchor.tick))
        end

        section.phase - (pace(run) * @cycles.at(run.tick(section.from)))
      end

      # Where the region tells what its phase is.
      def anchor(frame, envelope)
        place, phase = frame.reach.phases[envelope.id]
        place && Anchor.new(frame.reach.start_tick + place, phase,
                            envelope.clock_rules.pass_ticks(frame.reach, frame.clip, envelope))
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
        return Integral::CyclesLaw.new(Settings::RATE.scale) unless @lfo.free?

        Integral::ClockLaw.new(Settings::FREE_RATE.scale, song.tempo)
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
          yield WaveArc.new(from, finish, source, WaveArc::Turn.new(phase, stage, number)) if finish > from
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

        # (see Integral::Stretch#tick_about)
        def tick_about(phase) = @stretch.tick_about((phase - @zero) / @pace)

        # (see Integral::Stretch#place)
        def place(ramp, start, width, list, unit)
          @stretch.place(ramp, (start - @zero) / @pace, width / @pace, list, unit)
        end

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

        # @yieldparam stretch [Integral::Clocked]
        def each(from, to)
          [from, *@tempo.changes(from, to), to].each_cons(2) do |a, b|
            yield Integral::Clocked.new(a, b, at(a), @hertz, @tempo)
          end
        end
      end
      private_constant :Phase, :Steady, :ByClock
    end
  end
end
