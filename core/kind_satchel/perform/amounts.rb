# frozen_string_literal: true

module KindSatchel
  module Perform
    # What an envelope must give, tick by tick, so that a stroke is heard: through its role, over what acts beneath it.
    class Amounts
      # Over something that moves, amounts are looked at this often.
      FINE_TICKS = 60
      # Rounding of what lies between must not lead out of what is asked for.
      CARE = 0.98
      # Rooms that differ by less, as a share of them, are the same.
      EVEN = 1e-6

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
        pieces.each { |piece| maker.over(piece, stroke) }
        [new(maker.ticks, maker.values, maker.rooms, stroke.held?), maker.limited]
      end

      # @param room [Float, Array<Float>] how far each may be from where it is, for the heard value to keep to a tolerance
      def initialize(ticks, values, room, held)
        @ticks = ticks
        @values = values
        @room = even(room)
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

      # @return [Float] how far the points lie from the amounts, as a share of the room there is
      def strayed = @held ? 0.0 : Thinning.strayed(ticks, values, @room, kept)

      private

      # One number where all are the same.
      def even(room)
        return room unless room.is_a?(Array)

        least, most = room.minmax
        most - least <= least * EVEN ? least : room
      end

      def kept = @kept ||= @held ? changes : Thinning.keep(ticks, values, @room.is_a?(Array) ? @room.map { |room| room * CARE } : @room * CARE)
      def changes = ticks.each_index.select { |i| i.zero? || i == ticks.size - 1 || values[i - 1] != values[i] }

      # The amount at a tick, of two the later one.
      def at(tick)
        after = ticks.bsearch_index { |one| one > tick } || ticks.size
        before = [after - 1, 0].max
        return values[before] if @held || after == ticks.size || after.zero?

        values[before] + ((values[after] - values[before]) * (tick - ticks[before]) / (ticks[after] - ticks[before]).to_f)
      end

      # The amount just before a jump at that tick, if there is one.
      def arriving(tick, place) = ticks[place] == tick ? values[place] : at(tick)

      # The inverse at one tick after the other.
      class Maker
        attr_reader :ticks, :values, :rooms, :limited

        def initialize(scale, role, (factor, offset), tolerance)
          @inverse = Conversion::Inverse.new(scale, role)
          @factor = factor.zero? ? 1.0 : factor
          @offset = offset
          # Most amounts go straight with the value, so one side tells of both.
          @straight = role == "set" || !scale.gain?
          @tolerance = tolerance
          @limited = false
          @ticks, @values, @rooms = [], [], []
        end

        # A piece may end between two ticks; it is heard up to the one after.
        def over(piece, stroke)
          from, to = piece.from.ceil, piece.to.ceil
          still = piece.still? ? below(piece, piece.from) : nil
          each_place(from, to, stroke, still.nil?) do |tick, wanted|
            add(tick, wanted, still || below(piece, tick.clamp(piece.from, piece.to)))
          end
        end

        private

        # The ends of a piece, the places of the stroke between, and, over what moves, more where they lie far apart.
        def each_place(from, to, stroke, moves)
          yield from, stroke.at(from)
          at = stroke.ticks.bsearch_index { |tick| tick > from } || stroke.ticks.size
          last = from
          while last < to
            tick = stroke.ticks[at]
            goal = tick && tick < to ? tick : to
            between(last, goal) { |more| yield more, stroke.at(more) } if moves && goal - last > FINE_TICKS
            yield goal, goal == tick ? stroke.values[at] : stroke.at(stroke.held? ? goal - 1 : goal)
            last = goal
            at += 1
          end
        end

        def between(from, to, &) = (from + FINE_TICKS).step(to - 1, FINE_TICKS, &)

        def add(tick, wanted, below)
          exact = given(below, wanted)
          amount = @inverse.limited(exact)
          @limited = true if (amount - exact).abs > 1e-6
          return if @ticks.last == tick && @values.last == amount

          @ticks << tick
          @values << amount
          @rooms << room(below, wanted, exact)
        end

        def room(below, wanted, exact)
          less = wanted > @tolerance ? (given(below, wanted - @tolerance) - exact).abs : nil
          return less if less && @straight

          more = wanted + @tolerance < 1 ? (given(below, wanted + @tolerance) - exact).abs : nil
          [less, more].compact.reject(&:zero?).min || @tolerance
        end

        def below(piece, at)
          scales, shifts = 1.0, 0.0
          piece.scales.each { |span| scales *= span.at(at) }
          piece.shifts.each { |span| shifts += span.at(at) }
          [piece.set ? piece.set.at(at) : piece.knob, scales, shifts]
        end

        def given(below, value) = (@inverse.amount(below[0], below[1], below[2], value) - @offset) / @factor
      end
      private_constant :Maker
    end
  end
end
