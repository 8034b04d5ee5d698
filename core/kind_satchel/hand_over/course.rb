# frozen_string_literal: true

module KindSatchel
  module HandOver
    # What is heard of one parameter, as a chain of straight lines on whole ticks: `ticks` and `values` (normalised) in step, two on one
    # tick for a jump; at every whole tick it is what is heard, within {FINE}.
    class Course < Value.of(:ticks, :values, :scale)
      # How far its lines may stray from what is heard, as a share of the travel.
      FINE = 2e-4

      # @param song [Song]
      # @param address [Address]
      # @param from [Integer] first song tick
      # @param to [Integer] the tick after the last
      # @return [Course]
      def self.of(song, address, from, to, tolerance: FINE)
        resolver = Heard::Resolver.new(song, address)
        flat = Heard::Outline.of_pieces(resolver.pieces(from, to), tolerance:)
        whole(flat, resolver.scale)
      end

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
