# frozen_string_literal: true

module KindSatchel
  module Heard
    # One stretch of song ticks with no corner inside: the knob's value and the spans that act on it, in order.
    # It evaluates exactly at any tick of the stretch; at `to` it gives the value it arrives at.
    Piece = Struct.new(:from, :to, :scale, :knob, :spans) do
      # @param tick [Numeric] from..to
      # @return [Float] normalised, neither limited nor stepped
      def raw(tick)
        value = knob
        spans.each { |span| value = span.rules.apply(scale, value, span.segment.at(tick)) }
        value
      end

      # @return [Float] normalised, as heard
      def at(tick) = scale.heard(raw(tick))

      # Whether the value stays the same throughout.
      def still? = spans.all? { |span| span.segment.still? }

      # Whether the value moves evenly from one end to the other.
      def straight?
        list = moving
        list.size < 2 && list.all? { |span| span.segment.straight? } && summed?(list)
      end

      # Ticks strictly inside where a line chain must turn to stay within `tolerance` of {#raw}.
      # @return [Array<Numeric>]
      def breaks(tolerance)
        list = moving
        return [] if list.empty?
        return list[0].segment.breaks(from, to, 1.0, tolerance) if plain?
        return Fit.breaks(from, to, tolerance) { |tick| raw(tick) } unless summed?(list)

        ticks = list.flat_map { |span| span.segment.breaks(from, to, worth(list, span.segment), tolerance / list.size) }
        list.size > 1 ? ticks.sort.uniq : ticks
      end

      private

      # Whether one envelope alone sets the value.
      def plain? = spans.size == 1 && spans[0].rules.equal?(Roles::Set)

      def moving = spans.reject { |span| span.segment.still? }

      # Whether what moves adds up: then chains of the single segments add up too, errors included.
      def summed?(list)
        return list.all? { |span| span.rules.straight?(scale) } if list.size < 2

        !scale.gain? && spans.none? { |span| span.rules.equal?(Roles::Scale) }
      end

      # How much the value moves for each unit of the segment.
      def worth(list, segment)
        return 1.0 if list.size > 1

        change = segment.at(to) - segment.at(from)
        change.zero? ? 0.0 : ((raw(to) - raw(from)) / change).abs
      end
    end
  end
end
