# frozen_string_literal: true

module KindSatchel
  module Perform
    # What an envelope must give, tick by tick, so that a stroke is heard: through its role, over what acts beneath it.
    class Amounts
      # Over something that moves, amounts are looked at this often.
      FINE_TICKS = 60
      # Rounding of what lies between must not lead out of what is asked for.
      CARE = 0.98

      # @return [Array<Integer>] rising; one tick twice is a jump
      attr_reader :ticks
      # @return [Array<Float>]
      attr_reader :values

      # A stroke as it is, for an envelope that sets while nothing else acts.
      def self.plain(stroke, tolerance) = new(stroke.ticks, stroke.values, tolerance, stroke.held?)

      # @param pieces [Array<Heard::Piece>] what is heard without the envelope, over the stroke
      # @param scale [Scales::Scale]
      # @param role [String]
      # @param line [Array(Float, Float)] what the knob makes of a lane that it trims: times, plus
      # @return [Array(Amounts, Boolean)] and whether some had to be limited
      def self.through(pieces, stroke, scale, role, line, tolerance)
        maker = Maker.new(scale, role, line, tolerance)
        list = pieces.flat_map { |piece| maker.over(piece, stroke) }
        list = list.chunk_while { |a, b| a[0] == b[0] && a[1] == b[1] }.map(&:first)
        [new(*list.transpose, stroke.held?), maker.limited]
      end

      # @param room [Float, Array<Float>] how far each may be from where it is, for the heard value to keep to a tolerance
      def initialize(ticks, values, room, held)
        @ticks = ticks
        @values = values
        @room = room
        @held = held
      end

      # @return [Amounts] with places at both ends
      def cut(from, to)
        return self if from == ticks.first && to == ticks.last

        first = ticks.bsearch_index { |tick| tick > from } || ticks.size
        last = ticks.bsearch_index { |tick| tick >= to } || ticks.size
        room = @room.is_a?(Array) ? [@room[[first - 1, 0].max], *@room[first...last], @room[[last, ticks.size - 1].min]] : @room
        ends = @held ? [at(from), at(to - 1)] : [at(from), arriving(to, last)]
        Amounts.new([from, *ticks[first...last], to], [ends[0], *values[first...last], ends[1]], room, @held)
      end

      # As few points as keep to the room there is.
      # @return [Array<Array(Integer, Float, shape)>]
      def thinned = kept.map { |i| [ticks[i], values[i], @held ? Shapes::Hold::PLAIN : Shapes::Straight::PLAIN] }

      # @return [Float] how far the points lie from the amounts
      def strayed = @held ? 0.0 : Thinning.strayed(ticks, values, kept)

      private

      def kept = @kept ||= @held ? changes : Thinning.keep(ticks, values, @room.is_a?(Array) ? @room.map { |room| room * CARE } : @room * CARE)
      def changes = ticks.each_index.select { |i| i.zero? || i == ticks.size - 1 || values[i - 1] != values[i] }

      # The amount at a tick, of two the later one.
      def at(tick)
        after = ticks.bsearch_index { |one| one > tick } || ticks.size
        before = [after - 1, 0].max
        return values[before] if @held || after == ticks.size || after.zero?

        values[before] + ((values[after] - values[before]) * (tick - ticks[before]) / (ticks[after] - ticks[before]).to_f)
      end

      # The one that is come to, of two the earlier one.
      def arriving(tick, place) = ticks[place] == tick ? values[place] : at(tick)

      # The inverse at one tick after the other.
      class Maker
        attr_reader :limited

        def initialize(scale, role, line, tolerance)
          @inverse = Conversion::Inverse.new(scale, role)
          @factor, @offset = line
          @factor = 1.0 if @factor.zero?
          @straight = role == "set" || !scale.gain?
          @tolerance = tolerance
          @limited = false
        end

        # A piece may end between two ticks; it is heard up to the one after.
        # @return [Array<Array(Integer, Float, Float)>] tick, amount, room
        def over(piece, stroke)
          from, to = piece.from.ceil, piece.to.ceil
          first = stroke.ticks.bsearch_index { |tick| tick > from } || stroke.ticks.size
          last = stroke.ticks.bsearch_index { |tick| tick >= to } || stroke.ticks.size
          still = piece.still? ? below(piece, piece.from) : nil
          more = still ? [] : from.step(to, FINE_TICKS).to_a
          [from, *stroke.ticks[first...last], to, *more].uniq.sort.map do |tick|
            amount(still || below(piece, tick.clamp(piece.from, piece.to)), tick, stroke.at(tick == to && stroke.held? ? tick - 1 : tick))
          end
        end

        private

        def amount(below, tick, wanted)
          exact = given(below, wanted)
          amount = @inverse.limited(exact)
          @limited = true if (amount - exact).abs > 1e-6
          [tick, amount, room(below, wanted, exact)]
        end

        # Most amounts go straight with the value, so one side tells of both.
        def room(below, wanted, exact)
          less = wanted > @tolerance ? (given(below, wanted - @tolerance) - exact).abs : nil
          return less if less && @straight

          more = wanted + @tolerance < 1 ? (given(below, wanted + @tolerance) - exact).abs : nil
          [less, more].compact.reject(&:zero?).min || @tolerance
        end

        def below(piece, at)
          [piece.set ? piece.set.at(at) : piece.knob, piece.scales.reduce(1.0) { |all, span| all * span.at(at) }, piece.shifts.sum(0.0) { |span| span.at(at) }]
        end

        def given(below, value) = (@inverse.amount(*below, value) - @offset) / @factor
      end
      private_constant :Maker
    end
  end
end
