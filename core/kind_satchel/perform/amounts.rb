# frozen_string_literal: true

module KindSatchel
  module Perform
    # What an envelope must give, tick by tick, so that a stroke is heard: through its role, over what acts beneath it.
    class Amounts
      # What lines between amounts may add to what is heard, as a share of the tolerance; and at least, as a share of
      # the travel.
      BETWEEN = 0.02
      LEAST = 2e-5
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
      # @param role [String]
      # @param line [Array(Float, Float)] what the knob makes of a lane that it trims: times, plus
      # @return [Array(Amounts, Maker)] and what there is to say: whether some had to be `limited`, and where, first
      #   and last tick, the role can do nothing: `idle`
      def self.through(pieces, stroke, role, line, tolerance)
        maker = Maker.new(pieces.first.scale, role, line, tolerance)
        pieces.each { |piece| maker.over(piece, stroke) }
        [new(maker.ticks, maker.values, maker.rooms, stroke.held?), maker]
      end

      # @param room [Float, Array<Float>] how far each may be from where it is, for the heard value to keep to a
      #   tolerance
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
        room = if @room.is_a?(Array)
                 [@room[[first - 1, 0].max], *@room[first...last],
                  @room[[last, ticks.size - 1].min]]
               else
                 @room
               end
        ends = @held ? [at(from), at(to - 1)] : [at(from), arriving(to, last)]
        Amounts.new([from, *ticks[first...last], to], [ends[0], *values[first...last], ends[1]], room, @held)
      end

      # As few points as keep to the room there is.
      # @return [Array<Array(Integer, Float, shape)>]
      def thinned = kept.map { |i| [ticks[i], values[i], @held ? Shapes::Hold::PLAIN : Shapes::Straight::PLAIN] }

      private

      # One number where all are the same.
      def even(room)
        return room unless room.is_a?(Array)

        least, most = room.minmax
        most - least <= least * EVEN ? least : room
      end

      def kept = @kept ||= @held ? changes : near

      # Without any room all of them stay.
      def near
        return ticks.each_index.to_a if @room == 0

        Thinning.keep(ticks, values, @room.is_a?(Array) ? @room.map { |room| room * CARE } : @room * CARE)
      end

      def changes = ticks.each_index.select { |i| i.zero? || i == ticks.size - 1 || values[i - 1] != values[i] }

      # The amount at a tick, of two the later one.
      def at(tick)
        after = ticks.bsearch_index { |one| one > tick } || ticks.size
        before = [after - 1, 0].max
        return values[before] if @held || after == ticks.size || after.zero?

        share = (tick - ticks[before]) / (ticks[after] - ticks[before]).to_f
        values[before] + ((values[after] - values[before]) * share)
      end

      # The amount just before a jump at that tick, if there is one.
      def arriving(tick, place) = ticks[place] == tick ? values[place] : at(tick)

      # The inverse at one tick after the other.
      class Maker
        # Where between two places it is looked whether a line would do.
        SHARES = [0.25, 0.5, 0.75].freeze

        attr_reader :ticks, :values, :rooms, :limited, :idle

        def initialize(scale, role, (factor, offset), tolerance)
          @inverse = Conversion::Inverse.new(scale, role)
          @factor = factor.zero? ? 1.0 : factor
          @offset = offset
          # Most amounts go straight with the value, so one side tells of both.
          @straight = role == "set" || !scale.gain?
          @tolerance = tolerance
          @between = [tolerance * BETWEEN, LEAST].max
          @limited, @idle = false, nil
          @ticks, @values, @rooms = [], [], []
        end

        # A piece may end between two ticks; it is heard up to the one after.
        def over(piece, stroke)
          from, to = piece.from.ceil, piece.to.ceil
          @piece, @still = piece, piece.still? ? below(piece, piece.from) : nil
          last = nil
          each_place(from, to, stroke) do |place|
            refine(last, place) if last && !stroke.held? && !(@still && @straight)
            add(*place)
            last = place
          end
        end

        private

        # The ends of a piece, and the places of the stroke between.
        def each_place(from, to, stroke)
          yield [from, stroke.at(from)]
          at = stroke.ticks.bsearch_index { |tick| tick > from } || stroke.ticks.size
          while (tick = stroke.ticks[at]) && tick < to
            yield [tick, stroke.values[at]]
            at += 1
          end
          yield [to, stroke.ticks[at] == to ? stroke.values[at] : stroke.arriving(to)] if to > from
        end

        # More places where a line between two amounts would be heard as something else than a line.
        def refine(one, two)
          from, to = one[0], two[0]
          return if to - from < 2

          tick = (from + to) / 2
          middle = [tick, one[1] + ((two[1] - one[1]) * (tick - from) / (to - from).to_f)]
          return unless bends?(one, two)

          refine(one, middle)
          add(*middle)
          refine(middle, two)
        end

        def bends?(one, two)
          ends = [one, two].map { |tick, wanted| amount(beneath(tick), wanted) }
          SHARES.any? do |share|
            tick, wanted = [0, 1].map { |i| one[i] + ((two[i] - one[i]) * share) }
            below = beneath(tick)
            drawn = ends[0] + ((ends[1] - ends[0]) * share)
            (heard(below, drawn) - heard(below, amount(below, wanted))).abs > @between
          end
        end

        def beneath(tick) = @still || below(@piece, tick.clamp(@piece.from, @piece.to))
        def amount(below, wanted) = @inverse.limited(given(below, wanted))
        def heard(below, amount) = @inverse.heard(*below, (amount * @factor) + @offset)

        def add(tick, wanted)
          below = beneath(tick)
          exact = given(below, wanted)
          amount = @inverse.limited(exact)
          idle_at(tick) if @inverse.idle?(*below) && (heard(below, amount) - wanted).abs > [@tolerance, LEAST].max
          @limited = true if (amount - exact).abs > 1e-6
          return if @ticks.last == tick && @values.last == amount

          @ticks << tick
          @values << amount
          @rooms << room(below, wanted, exact)
        end

        def idle_at(tick) = @idle = [@idle ? @idle[0] : tick, tick]

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
