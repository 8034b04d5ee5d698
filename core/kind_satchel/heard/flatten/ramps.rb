# frozen_string_literal: true

module KindSatchel
  module Heard
    # Flattens pieces to straight ramps for a sound engine: a flat list of second, value in the engine's unit, second,
    # value, ... with straight ramps between; two corners on one second are a jump.
    #
    # The error, measured as a share of the knob's travel, stays within `tolerance`, everywhere. It is given out in
    # shares: to the shapes (chords of a smooth curve in ticks), to the tempo (a line in ticks is none in seconds
    # while the tempo moves), to the scale (a line on a log or fader scale is a curve in Hz or amplitude). What needs
    # none leaves its share to the others. So the number of ramps follows the bends, not the time.
    class Ramps
      # The stated bound for playback: 1/1000 of the parameter's range.
      TOLERANCE = 0.001
      # What is left of it: corners between ticks lie on the {Grid}, and steep curves go some way in 1/65536 tick.
      WORKED_TO = 0.99
      # What a moving tempo may take of the tolerance.
      TEMPO_SHARE = 0.3

      # @param resolver [Resolver]
      # @param tolerance [Float] share of the knob's travel, 0.000001 to 0.1
      # @raise [InvalidInput]
      def initialize(resolver, tolerance: TOLERANCE)
        unless tolerance.between?(
          1e-6, 0.1
        )
          raise InvalidInput.of("out_of_range", "/tolerance",
                                "The tolerance lies between 0.000001 and 0.1.")
        end

        @scale = resolver.scale
        @tempo = resolver.song.tempo
        @pace = @tempo.steady_pace
        @resolver = resolver
        @tolerance = tolerance *= WORKED_TO
        @tempo_breaks = TempoBreaks.new(@tempo, tolerance * TEMPO_SHARE)
        share = @pace ? 1 : 1 - TEMPO_SHARE
        @straight = [tolerance, @scale.ramp(tolerance * share)].freeze
        @bent = @scale.linear? ? @straight : [tolerance / 2, @scale.ramp(tolerance * share / 2)].freeze
      end

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Float>] second, value, second, value, ... from the start of the song
      def flat(from, to)
        @list = []
        runs = @pace && !@scale.steps && @resolver.acting.runs_alone(from, to)
        return add_runs(runs, from, to) if runs

        pieces = @resolver.pieces(from, to)
        @scale.steps ? add_steps(pieces) : pieces.each { |piece| add_piece(piece) }
        @list
      end

      # @return [Array<Array(Float, Float)>] the same as pairs
      def corners(from, to) = flat(from, to).each_slice(2).to_a

      # @example
      #   Ramps.count([[0.0, 0.5], [1.0, 0.5], [2.0, 0.75]]) #=> 1
      # @return [Integer] how many ramps a chain of corners holds, jumps and level lines left out
      def self.count(corners) = corners.each_cons(2).count { |(s0, v0), (s1, v1)| s1 > s0 && v0 != v1 }

      private

      def seconds(tick) = @pace ? @pace * tick : @tempo.seconds_at(tick)

      def add_steps(pieces)
        Outline.of_pieces(pieces).each_slice(2) { |tick, value| add(seconds(tick), @scale.engine(value)) }
      end

      def add_piece(piece)
        return add_level(piece.from, piece.to, piece.at(piece.from)) if piece.still?

        set = piece.set
        whole = @pace && set && piece.alone? && set.whole?(piece) && set.segment.within_travel?
        return add_kept(set.segment, set.start - set.segment.start) if whole

        add_paced(piece) || add_straight_gain(piece) || add_chain(piece)
      end

      def add_level(from, to, value)
        engine = @scale.engine(value)
        add(seconds(from), engine)
        add(seconds(to), engine)
      end

      # The commonest case by far: one clip envelope at a time sets the value, in the song's own pace. No pieces are
      # made for it.
      def add_runs(runs, from, to)
        rest = @scale.heard(@resolver.knob)
        runs.each do |run, envelope|
          add_level(from, run.from, rest) if run.from > from
          @resolver.pieces(run.from, run.to).each { |piece| add_piece(piece) } if run.pace || !add_run(run, envelope)
          from = run.to
        end
        add_level(from, to, rest) if to > from
        @list
      end

      # @return [Boolean] whether all of it could be taken from what is kept with the segments
      def add_run(run, envelope)
        return false if envelope.points.size > Envelope::MANY

        envelope.each_segment(run) do |turn, segment|
          zero = turn.zero
          whole = zero + segment.start >= run.from && zero + segment.finish <= run.to && segment.within_travel?
          whole ? add_segment(segment, zero) : add_part(turn, segment)
        end
        true
      end

      def add_segment(segment, zero)
        return add_kept(segment, zero) unless segment.still?

        add_level(zero + segment.start, zero + segment.finish, segment.a)
      end

      # The edges of a run cut a segment, or it goes beyond the limits.
      def add_part(run, segment)
        span = Span.new(run, segment, nil)
        add_piece(Piece.new(span.from, span.to, [@scale, @resolver.knob], span)) if span.to > span.from
      end

      # Whole segments inside the travel: their ramps never change, so they stay with them.
      def add_kept(segment, zero)
        ramp = segment.keep(@scale, @tolerance) { segment_ramp(segment) }
        pace, list = @pace, @list
        add(pace * (zero + ramp[0]), ramp[1])
        place, size = 2, ramp.size
        while place < size
          list << (pace * (zero + ramp[place])) << ramp[place + 1]
          place += 2
        end
      end

      # A whole stage of a wave, at a pace that hardly changes within it: its ramps by phase never change, so they
      # stay with it.
      def add_paced(piece)
        arc = piece.set
        return unless @pace && arc.is_a?(WaveArc) && piece.alone? && arc.segment.within_travel? && arc.entire?(piece)

        kept = arc.segment.keep(@scale, -@tolerance) { paced_ramp(arc.segment) }
        return unless arc.even_between?(kept[:apart], @tolerance * (1 - WaveArc::SHAPE_SHARE))

        ramp = kept[:ramp]
        add(seconds(arc.from), ramp[1])
        arc.place(ramp, @list, @pace)
        @list << seconds(arc.to) << ramp[-1]
      end

      # @return [Hash] `:ramp` share, engine, share, engine, ..., `:apart` how far apart corners are at most
      def paced_ramp(segment)
        finer = Ramps.new(@resolver, tolerance: @tolerance * WaveArc::SHAPE_SHARE / WORKED_TO)
        ramp = finer.segment_ramp(segment)
        { ramp:, apart: ramp.each_slice(2).map(&:first).each_cons(2).map { |one, other| other - one }.max }
      end

      protected

      # Position, engine, position, engine, ...
      def segment_ramp(segment)
        shape_share, ramp = shares(segment.straight?)
        start, length, value, rise = segment.start, segment.length, segment.a, segment.rise
        list = [start, @scale.engine(value)]
        chain = segment.chain(shape_share)
        at, from, i = start, value, 0
        while i < chain.size
          finish, arrived = start + (length * chain[i]), value + (rise * chain[i + 1])
          ramp.line(list, at, from, finish, arrived)
          at, from, i = finish, arrived, i + 2
        end
        list
      end

      private

      # What the shapes may take of the tolerance, and what turns lines into ramps with the rest.
      def shares(straight) = straight ? @straight : @bent

      # A gain that rests and is scaled evenly is even in amplitude: one ramp, exactly.
      def add_straight_gain(piece)
        unless @pace && @scale.gain? && piece.scales.size == 1 && piece.scales[0].straight? &&
               piece.rests_but_for?(piece.scales)
          return
        end

        ends = [piece.from, piece.to].map { |tick| [tick, piece.raw(tick)] }
        return if ends.any? { |_, value| value > 1.0 }

        ends.each { |tick, value| add(seconds(tick), @scale.engine(value)) }
      end

      def add_chain(piece)
        shape_share, ramp = shares(piece.straight?)
        shape_share *= 1 - TEMPO_SHARE unless @pace
        chain = Outline.of_pieces([piece], tolerance: shape_share)
        add(seconds(chain[0]), @scale.engine(chain[1]))
        (2...chain.size).step(2) { |i| stretch(*chain[(i - 2)..(i + 1)], ramp) }
      end

      # One line in ticks.
      def stretch(start, from, finish, to, ramp)
        return add(seconds(finish), @scale.engine(to)) if from == to || finish == start

        rise = (to - from) / (finish - start)
        second, value = seconds(start), from
        places = @pace ? [] : @tempo_breaks.between(start, finish, (to - from).abs)
        places.push(finish).each do |tick|
          arrived = tick == finish ? to : from + (rise * (tick - start))
          ramp.line(@list, second, value, second = seconds(tick), arrived)
          value = arrived
        end
      end

      # Leaves out what repeats, and what lies on a level line.
      def add(second, engine)
        list = @list
        size = list.size
        if size.positive? && list[-1] == engine
          return if list[-2] == second

          list.pop(2) if size > 2 && list[-3] == engine
        end
        list << second << engine
      end
    end
  end
end
