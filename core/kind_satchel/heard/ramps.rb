# frozen_string_literal: true

module KindSatchel
  module Heard
    # Flattens pieces to straight ramps for a sound engine: corners of [seconds, value in the engine's unit], with
    # straight ramps between; two corners on one second are a jump.
    #
    # The error, measured as a share of the knob's travel, stays within `tolerance`. Half of it goes to the shapes
    # (chords of a smooth curve, as many as its bend asks for), half to the scale (a straight stretch on a log or
    # fader scale is a curve in Hz or amplitude); where the shape is straight, the scale has it all. So the number of
    # ramps follows the bends, not the time.
    class Ramps
      # The stated bound for playback: 1/1000 of the parameter's range.
      TOLERANCE = 0.001

      # @param resolver [Resolver]
      # @param tolerance [Float] share of the knob's travel, above 0
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
      # @return [Array<Array(Float, Float)>] corners, in seconds from the start of the song
      def corners(from, to)
        pieces = @resolver.pieces(from, to)
        return Outline.of_pieces(pieces, tolerance: @tolerance / 2).map { |tick, value| corner(tick, value) } if @scale.steps

        list = []
        pieces.each { |piece| add_piece(list, piece) }
        list
      end

      # @return [Integer] how many ramps a chain of corners holds, jumps and level lines left out
      def self.count(corners) = corners.each_cons(2).count { |(s0, v0), (s1, v1)| s1 > s0 && v0 != v1 }

      private

      def corner(tick, value) = [@pace ? @pace * tick : @tempo.seconds_at(tick), @scale.engine(value)]

      def add_piece(list, piece)
        straight = piece.straight?
        return add_straight(list, piece) if straight && within?(piece)

        chain = Outline.of_pieces([piece], tolerance: @tolerance / 2)
        add_corner(list, corner(*chain.first))
        chain.each_cons(2) { |(t0, v0), (t1, v1)| stretch(list, t0, v0, t1, v1, straight ? @tolerance : @tolerance / 2) }
      end

      # The commonest piece by far: one line inside the travel.
      def add_straight(list, piece)
        from, to = piece.raw(piece.from), piece.raw(piece.to)
        add_corner(list, corner(piece.from, from))
        stretch(list, piece.from, from, piece.to, to, @tolerance)
      end

      def within?(piece) = piece.raw(piece.from).between?(0.0, 1.0) && piece.raw(piece.to).between?(0.0, 1.0)

      # Leaves out what repeats, and what lies on a level line.
      def add_corner(list, corner)
        last = list.last
        return list << corner unless last && last[1] == corner[1]
        return if last[0] == corner[0]

        list.pop if list.size > 1 && list[-2][1] == corner[1]
        list << corner
      end

      def stretch(list, start, from, finish, to, tolerance)
        return add_corner(list, corner(finish, to)) if from == to || finish == start

        pace = (finish - start) / (to - from)
        if @pace
          @scale.each_break(from, to, tolerance) { |value, engine| list << [@pace * (start + (pace * (value - from))), engine] }
        else
          inner = @scale.breaks(from, to, tolerance).map { |value| start + (pace * (value - from)) }
          bent(list, start, from, pace, inner + tempo_breaks(start, finish, (to - from).abs))
        end
        list << corner(finish, to)
      end

      def bent(list, start, from, pace, ticks)
        ticks.sort.uniq.each { |tick| list << corner(tick, from + ((tick - start) / pace)) }
      end

      # While the tempo moves, straight in ticks is not straight in seconds. Over a stretch in which the tempo
      # changes by the factor r, the two part by at most |ln r| / 8 of the stretch's rise; cut into even parts, the
      # slowest part changes by the largest factor.
      def tempo_breaks(start, finish, rise)
        @tempo.ramps.flat_map do |ramp_start, ramp_end, _, _|
          from, to = [start, ramp_start].max, [finish, ramp_end].min
          next [] unless to > from

          even_ticks(from, to, rise * (to - from) / (finish - start)).select { |tick| tick > start && tick < finish }
        end
      end

      def even_ticks(from, to, rise)
        slow, fast = [@tempo.bpm_at(from), @tempo.bpm_at(to - 1e-6)].minmax
        count = [Math.sqrt((fast - slow) / slow / 8 * rise / (@tolerance / 8)).ceil, 1].max
        (0..count).map { |i| from + ((to - from) * i / count.to_f) }
      end
    end
  end
end
