# frozen_string_literal: true

module KindSatchel
  module Heard
    # How long a quarter note lasts, over a stretch of song: what turns note lengths into time.
    module Beat
      # How far the ramps may stray, as a share of the length.
      TOLERANCE = 1e-5

      module_function

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Float>] second, seconds a quarter note, second, ...; two corners on one second are a jump
      def flat(song, from, to)
        tempos(song.tempo, from, to).flat_map { |second, bpm| [second, 60.0 / bpm] }
      end

      # The tempo at the corners of a chain that strays no further than {TOLERANCE} of it, by seconds.
      # @return [Array<Array(Float, Float)>] second, quarter notes per minute
      def tempos(tempo, from, to)
        [from, *tempo.changes(from, to), to].each_cons(2).flat_map do |start, finish|
          corners(tempo, start, finish).map { |tick, bpm| [tempo.seconds_at(tick), bpm] }
        end
      end

      # While the tempo goes straight in ticks, the length of a quarter note is exponential in seconds; a chord over
      # the factor r strays by at most (ln r)^2 / 8 of it. Places that part the factor evenly are parted evenly in
      # tempo's logarithm.
      def corners(tempo, start, finish)
        first, last = tempo.bpm_at(start), tempo.bpm_before(finish)
        return [[start, first], [finish, last]] if first == last

        count = (Math.log(last / first).abs / Math.sqrt(8 * TOLERANCE)).ceil
        (0..count).map do |i|
          bpm = first * ((last / first)**i.fdiv(count))
          [start + ((finish - start) * (bpm - first) / (last - first)), bpm]
        end
      end
      private_class_method :corners
    end
  end
end
