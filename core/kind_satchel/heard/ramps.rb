# frozen_string_literal: true

module KindSatchel
  module Heard
    # Flattens pieces to straight ramps for a sound engine: a flat list of second, value in the engine's unit, second, value, ...
    # with straight ramps between; two corners on one second are a jump.
    #
    # The error, measured as a share of the knob's travel, stays within `tolerance`, everywhere. It is given out in shares: to the
    # shapes (chords of a smooth curve in ticks), to the tempo (a line in ticks is none in seconds while the tempo moves), to the
    # scale (a line on a log or fader scale is a curve in Hz or amplitude). What needs none leaves its share to the others. So
    # the number of ramps follows the bends, not the time.
    class Ramps
      # The stated bound for playback: 1/1000 of the parameter's range.
      TOLERANCE = 0.001

      # @param resolver [Resolver]
      # @param tolerance [Float] share of the knob's travel, 0.000001 to 0.1
      def initialize(resolver, tolerance: TOLERANCE)
        raise InvalidInput.of("out_of_range", "/tolerance", "The tolerance lies between 0.000001 and 0.1.") unless tolerance.between?(1e-6, 0.1)

        @scale = resolver.scale
        @tempo = resolver.song.tempo
        @pace = @tempo.steady_pace
        @resolver = resolver
        @tolerance = tolerance
      end

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Float>] second, value, second, value, ... from the start of the song
      def flat(from, to)
        @list = []
        pieces = @resolver.pieces(from, to)
        @scale.steps ? add_steps(pieces) : pieces.each { |piece| add_piece(piece) }
        @list
      end

      # @return [Array<Array(Float, Float)>] the same as pairs
      def corners(from, to) = flat(from, to).each_slice(2).to_a

      # @return [Integer] how many ramps a chain of corners holds, jumps and level lines left out
      def self.count(corners) = corners.each_cons(2).count { |(s0, v0), (s1, v1)| s1 > s0 && v0 != v1 }

      private

      def seconds(tick) = @pace ? @pace * tick : @tempo.seconds_at(tick)

      def add_steps(pieces)
        Outline.of_pieces(pieces).each_slice(2) { |tick, value| add(seconds(tick), @scale.engine(value)) }
      end

      def add_piece(piece)
        set = piece.set
        return add_kept(set) if @pace && set && piece.alone? && set.whole?(piece) && inside?(set.segment) && !set.still?

        if piece.still?
          engine = @scale.engine(piece.at(piece.from))
          add(seconds(piece.from), engine)
          return add(seconds(piece.to), engine)
        end
        add_straight_gain(piece) || add_chain(piece)
      end

      # The commonest piece by far: one whole segment, alone, inside the travel. Its ramps never change, so they stay with it.
      def add_kept(span)
        ramp = span.segment.keep([@scale, @tolerance]) { segment_ramp(span.segment) }
        pace, zero = @pace, span.start - span.segment.start
        add(pace * (zero + ramp[0]), ramp[1])
        place, size, list = 2, ramp.size, @list
        while place < size
          list << (pace * (zero + ramp[place])) << ramp[place + 1]
          place += 2
        end
      end

      def inside?(segment) = segment.a.between?(0.0, 1.0) && segment.b >= 0.0 && segment.b <= 1.0

      # Position, engine, position, engine, ...
      def segment_ramp(segment)
        list = [segment.start, @scale.engine(segment.a)]
        shape_share, scale_share = shares(segment.straight?)
        position, value = segment.start, segment.a
        [*segment.breaks(segment.start, segment.finish, 1.0, shape_share), segment.finish].each do |finish|
          arrived = segment.at(finish)
          line_ramp(list, position, value, finish, arrived, scale_share)
          position, value = finish, arrived
        end
        list
      end

      def line_ramp(list, start, from, finish, to, tolerance)
        pace = (finish - start) / (to - from)
        @scale.each_break(from, to, tolerance) { |value, engine| list << (start + (pace * (value - from))) << engine } unless from == to
        list << finish << @scale.engine(to)
      end

      # What the shapes and the scale may each take of the tolerance.
      def shares(straight)
        return [@tolerance, @tolerance] if straight || @scale.linear?

        [@tolerance / 2, @tolerance / 2]
      end

      # A gain that rests and is scaled evenly is even in amplitude: one ramp, exactly.
      def add_straight_gain(piece)
        return unless @pace && @scale.gain? && piece.scales.size == 1 && piece.scales[0].straight? && piece.rests_but_for?(piece.scales)

        ends = [piece.from, piece.to].map { |tick| [tick, piece.raw(tick)] }
        return if ends.any? { |_, value| value > 1.0 }

        ends.each { |tick, value| add(seconds(tick), @scale.engine(value)) }
      end

      def add_chain(piece)
        straight = piece.straight?
        shape_share, scale_share = shares(straight)
        shape_share, scale_share, tempo_share = shape_share * 0.7, scale_share * 0.7, @tolerance * 0.3 unless @pace
        chain = Outline.of_pieces([piece], tolerance: shape_share)
        add(seconds(chain[0]), @scale.engine(chain[1]))
        (2...chain.size).step(2) { |i| stretch(*chain[(i - 2)..(i + 1)], scale_share, tempo_share) }
      end

      # One line in ticks.
      def stretch(start, from, finish, to, scale_share, tempo_share)
        return add(seconds(finish), @scale.engine(to)) if from == to || finish == start

        rise = (to - from) / (finish - start)
        second, value = seconds(start), from
        places = @pace ? [] : tempo_breaks(start, finish, (to - from).abs, tempo_share)
        places.push(finish).each do |tick|
          arrived = tick == finish ? to : from + (rise * (tick - start))
          line_ramp(@list, second, value, second = seconds(tick), arrived, scale_share)
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

      # Where the tempo changes, and inside of its ramps: while the tempo moves, straight in ticks is not straight in seconds.
      # Over a stretch in which the tempo changes by the factor r, the two part by at most |ln r| / 8 of the stretch's rise;
      # cut into even parts, the slowest part changes by the largest factor.
      def tempo_breaks(start, finish, rise, tolerance)
        points = @tempo.changes(start, finish)
        [start, *points, finish].each_cons(2).flat_map do |from, to|
          [*(from unless from == start), *even_ticks(from, to, rise * (to - from) / (finish - start), tolerance)]
        end
      end

      def even_ticks(from, to, rise, tolerance)
        slow, fast = [@tempo.bpm_at(from), @tempo.bpm_before(to)].minmax
        return [] if slow == fast

        count = Math.sqrt((fast - slow) / slow / 8 * rise / tolerance).ceil
        (1...count).map { |i| from + ((to - from) * i / count.to_f) }
      end
    end
  end
end
