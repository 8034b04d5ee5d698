# frozen_string_literal: true

module KindSatchel
  module Heard
    # One stretch of song ticks with no corner inside: what sets the value (an {Arc}, or nil for the knob), the arcs
    # that scale it and those that shift it. It evaluates exactly at any tick of the stretch; at `to` it gives the
    # value it arrives at.
    class Piece
      NONE = [].freeze
      NO_OTHERS = [NONE, NONE].freeze
      # Of a tolerance, what all but one arc of a sum may take together.
      OTHERS_SHARE = 0.2

      attr_reader :from, :to, :scale, :knob, :set, :scales, :shifts

      # @param rest [Array(Scales::Scale, Float)] the parameter's scale, and what its knob rests at
      # @param set [Arc, nil]
      # @param others [Array(Array<Arc>, Array<Arc>)] those that scale, those that shift
      def initialize(from, to, rest, set, others = NO_OTHERS)
        @from = from
        @to = to
        @rest = rest
        @scale, @knob = rest
        @set = set
        @scales, @shifts = others
      end

      # @return [Piece] a part of it
      def cut(from, to) = Piece.new(from, to, @rest, @set, [@scales, @shifts])

      # @param tick [Numeric] from..to
      # @return [Float] normalised, neither limited nor stepped
      def raw(tick)
        value = @set ? @set.at(tick) : @knob
        @scales.each { |span| value = @scale.scaled(value, span.at(tick)) }
        @shifts.each { |span| value = @scale.shifted(value, span.at(tick)) }
        value
      end

      # @return [Float] normalised, as heard
      def at(tick) = @scale.heard(raw(tick))

      # Writes the values at ticks[first...last], all in from...to, into a list; the same as {#at}, many at a time.
      # @param room [Array] scratch of the same size
      def read(ticks, first, last, values, room)
        @set ? @set.fill(values, ticks, first, last) : values.fill(@knob, first, last - first)
        @scales.each do |span|
          span.fill(room, ticks, first, last)
          combine(values, room, first, last) { |value, amount| @scale.scaled(value, amount) }
        end
        @shifts.each do |span|
          span.fill(room, ticks, first, last)
          combine(values, room, first, last) { |value, amount| @scale.shifted(value, amount) }
        end
        @scale.steps ? step(values, first, last) : limit(values, first, last)
      end

      # @return [Array<Span>] all that act
      def spans = [*@set, *@scales, *@shifts]

      # Whether nothing acts on what sets the value, or on the knob.
      def alone? = @scales.empty? && @shifts.empty?

      # Whether the value stays the same throughout.
      def still?
        return @set.nil? || @set.still? if alone?

        (@set.nil? || @set.still?) && @scales.all?(&:still?) && @shifts.all?(&:still?)
      end

      # Whether all but some spans is level.
      def rests_but_for?(some) = spans.all? { |span| span.still? || some.include?(span) }

      # Whether the value moves evenly from one end to the other.
      def straight?
        list = moving
        list.all?(&:straight?) && affine?(list)
      end

      # Ticks strictly inside where a line chain must turn to stay within `tolerance` of {#raw}.
      # @return [Array<Numeric>]
      def breaks(tolerance)
        if alone?
          return NONE if @set.nil? || @set.still? || @set.straight?

          return @set.breaks(@from, @to, 1.0, tolerance)
        end
        list = moving
        return NONE if list.empty? || (list.all?(&:straight?) && affine?(list))

        bent = affine?(list) ? list.reject(&:straight?) : NONE
        (bent.any? && led(bent, tolerance)) || Chords.breaks(@from, @to, tolerance) do |start, finish|
          jet(start, finish).stray(finish - start)
        end
      end

      # Where one arc of a sum turns, if all others hardly bend over the whole piece; what is straight strays nowhere.
      # @return [Array<Numeric>, nil]
      def led(bent, tolerance)
        width = @to - @from
        strays = bent.map { |span| span.jet(@from, @to).stray(width) * worth(span) }
        main = strays.each_index.max_by { |i| strays[i].nan? ? Float::INFINITY : strays[i] }
        rest = strays.each_with_index.sum { |stray, i| i == main ? 0.0 : stray }
        bent[main].breaks(@from, @to, worth(bent[main]), tolerance - rest) if rest <= tolerance * OTHERS_SHARE
      end

      # @return [Jet] what is known of {#raw} between two ticks
      def jet(from, to)
        value = @set ? @set.jet(from, to) : Jet.level(@knob)
        @scales.each { |span| value = @scale.scaled_jet(value, span.jet(from, to)) }
        @shifts.each { |span| value = @scale.shifted_jet(value, span.jet(from, to)) }
        value
      end

      private

      def combine(values, room, first, last)
        while first < last
          values[first] = yield values[first], room[first]
          first += 1
        end
      end

      def limit(values, first, last)
        while first < last
          value = values[first]
          values[first] = value.clamp(0.0, 1.0) if value < 0.0 || value > 1.0
          first += 1
        end
      end

      def step(values, first, last) = first.upto(last - 1) { |place| values[place] = @scale.heard(values[place]) }

      def moving = spans.reject(&:still?)

      # Whether the value is a sum of what moves, each times something level: then chains of the single segments add
      # up too.
      def affine?(list)
        return true if list.empty? || (list.size == 1 && list[0].equal?(@set))

        !@scale.gain? && list.none? { |span| @scales.include?(span) && list.size > 1 }
      end

      # How much the value moves for each unit of the one span that moves.
      def worth(span)
        ends = [0.0, 1.0].map do |amount|
          value = pick(@set, span, amount, @knob)
          @scales.each { |one| value = @scale.scaled(value, pick(one, span, amount)) }
          @shifts.each { |one| value = @scale.shifted(value, pick(one, span, amount)) }
          value
        end
        (ends[1] - ends[0]).abs
      end

      def pick(one, span, amount, none = nil)
        return none unless one

        one.equal?(span) ? amount : one.at(@from)
      end
    end
  end
end
