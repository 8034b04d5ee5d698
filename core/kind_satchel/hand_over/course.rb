# frozen_string_literal: true

module KindSatchel
  module HandOver
    # What is heard of one parameter, as a chain of straight lines on whole ticks: `ticks` and `values` (normalised)
    # in step, two on one tick for a jump; at every whole tick it is what is heard, within {FINE}. A jump between two
    # ticks goes to the later one.
    class Course < Value.of(:ticks, :values, :scale)
      # How far its lines may stray from what is heard at whole ticks, as a share of the travel.
      FINE = 2e-4
      # Chains turn between ticks, lines at the ticks nearest to there. These are a tick further apart at most, and a
      # line of two ticks, the shortest that passes one, then strays by the square of three halves.
      ROUNDING = 2.25

      # @param song [Song]
      # @param address [Address]
      # @param from [Integer] first song tick
      # @param to [Integer] the tick after the last
      # @return [Course]
      def self.of(song, address, from, to, tolerance: FINE)
        resolver = Heard::Resolver.new(song, address)
        of_pieces(resolver.pieces(from, to), resolver.scale, tolerance)
      end

      # @param pieces [Array<Heard::Piece>]
      # @return [Course]
      def self.of_pieces(pieces, scale, tolerance = FINE)
        return whole(Heard::Outline.of_pieces(pieces), scale) if scale.steps

        pen = Pen.new(tolerance / ROUNDING)
        pieces.each { |piece| pen.over(piece) }
        new(ticks: pen.ticks, values: pen.values, scale:)
      end

      # Draws pieces on whole ticks, each value as it is heard there.
      class Pen
        SAME = 1e-9

        attr_reader :ticks, :values

        def initialize(tolerance)
          @tolerance = tolerance
          @ticks, @values = [], []
        end

        # Writes the ticks of a piece.
        def over(piece)
          first, last = piece.from.ceil, piece.to.floor
          # What begins and ends between two ticks is not heard at any.
          return @left ||= piece if last < first

          arrive(piece, first)
          inner(piece, first, last) { |tick| put(tick, piece.at(tick)) }
          put(last, piece.at(last)) if last > first || last == piece.to
          @left = last < piece.to ? piece : nil
        end

        private

        # What a piece begins with; the one before, if it ended between ticks, is led on to here where there is a jump.
        def arrive(piece, first)
          put(first, ahead(@left, first)) if @left && (@left.at(@left.to) - piece.at(piece.from)).abs > SAME
          put(first, piece.at(first))
        end

        # Where the last whole tick and the end of a piece lead.
        def ahead(piece, tick)
          from = [piece.to.floor, piece.from].max
          start, finish = piece.at(from), piece.at(piece.to)
          (finish + ((finish - start) * (tick - piece.to) / [piece.to - from, 0.5].max)).clamp(0.0, 1.0)
        end

        def inner(piece, first, last)
          return if piece.still?

          chain = Heard::Outline.of_pieces([piece], tolerance: @tolerance)
          at = first
          (2...chain.size).step(2) do |i|
            tick = chain[i].round
            break if tick >= last

            yield at = tick if tick > at
          end
        end

        # Of more than two on one tick the first and the last stay.
        def put(tick, value)
          return if @ticks[-1] == tick && @values[-1] == value
          return @values[-1] = value if @ticks.size > 1 && @ticks[-1] == tick && @ticks[-2] == tick

          @ticks << tick
          @values << value
        end
      end
      private_constant :Pen

      # A jump between two ticks is heard from the later one on.
      # @param flat [Array<Numeric>] tick, value, ...
      def self.whole(flat, scale)
        ticks, values = [], []
        place, size = 0, flat.size
        while place < size
          tick, value = flat[place], flat[place + 1]
          unless tick.is_a?(Integer)
            jump = flat[place - 2] == tick || flat[place + 2] == tick
            tick = jump ? tick.ceil : tick.round
          end
          tick = ticks[-1] if ticks[-1] && tick < ticks[-1]
          if ticks.size > 1 && ticks[-2] == tick
            values[-1] = value
          else
            ticks << tick
            values << value
          end
          place += 2
        end
        new(ticks:, values:, scale:)
      end

      # @return [Integer]
      def size = ticks.size

      # @return [Float, nil] the value it has all through; nil where it moves
      def level
        least, most = values.minmax
        least if most - least < 1e-9
      end

      # @return [Array<Numeric>] tick, value, ...
      def flat = ticks.zip(values).flatten

      # @param tick [Integer]
      # @return [Float] the later value of a jump
      def at(tick)
        after = ticks.bsearch_index { |other| other > tick } || size
        return values[0] if after.zero?
        return values[-1] if after == size

        from, to = ticks[after - 1], ticks[after]
        values[after - 1] + ((values[after] - values[after - 1]) * (tick - from) / (to - from).to_f)
      end
    end
  end
end
