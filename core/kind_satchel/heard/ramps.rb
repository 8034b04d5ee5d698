# frozen_string_literal: true

module KindSatchel
  module Heard
    # Flattens pieces to straight ramps for a sound engine: corners of [seconds, value in the engine's unit], with
    # straight ramps between; two corners on one second are a jump.
    #
    # The error, measured as a share of the knob's travel, stays within `tolerance`. Half of it goes to the shapes
    # (chords of a smooth curve, as many as its bend asks for), half to the scale (a straight stretch on a log or
    # fader scale is a curve in Hz or amplitude). So the number of ramps follows the bends, not the time.
    class Ramps
      # The stated bound for playback: 1/1000 of the parameter's range.
      TOLERANCE = 0.001

      # @param resolver [Resolver]
      # @param tolerance [Float] share of the knob's travel, above 0
      def initialize(resolver, tolerance: TOLERANCE)
        raise InvalidInput.of("out_of_range", "/tolerance", "The tolerance lies between 0.000001 and 0.1.") unless tolerance.between?(1e-6, 0.1)

        @scale = resolver.scale
        @tempo = resolver.song.tempo
        @resolver = resolver
        @tolerance = tolerance
      end

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Array(Float, Float)>] corners, in seconds from the start of the song
      def corners(from, to)
        outline = Outline.of_pieces(@resolver.pieces(from, to), tolerance: @tolerance / 2)
        return outline.map { |tick, value| [@tempo.seconds_at(tick), @scale.engine(value)] } if @scale.steps

        list = [corner(*outline.first)]
        outline.each_cons(2) { |(t0, v0), (t1, v1)| stretch(list, t0, v0, t1, v1) }
        list
      end

      # @return [Integer] how many ramps a chain of corners holds, jumps and level lines left out
      def self.count(corners) = corners.each_cons(2).count { |(s0, v0), (s1, v1)| s1 > s0 && v0 != v1 }

      private

      def corner(tick, value) = [@tempo.seconds_at(tick), @scale.engine(value)]

      def stretch(list, start, from, finish, to)
        if finish > start && from != to
          inner = @scale.breaks(from, to, @tolerance / 2).map { |value| start + ((finish - start) * (value - from) / (to - from)) }
          inner = (inner + tempo_breaks(start, finish, (to - from).abs)).sort.uniq unless @tempo.ramps.empty?
          inner.each { |tick| list << corner(tick, from + ((to - from) * (tick - start) / (finish - start))) }
        end
        list << corner(finish, to)
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
        count = [Math.sqrt((fast - slow) / slow / 8 * rise / (@tolerance / 4)).ceil, 1].max
        (0..count).map { |i| from + ((to - from) * i / count.to_f) }
      end
    end
  end
end
