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
      def still? = moving.empty?

      # Ticks strictly inside where a line chain must turn to stay within `tolerance` of {#raw}.
      # @return [Array<Numeric>]
      def breaks(tolerance)
        return [] if still?
        return Fit.breaks(from, to, tolerance) { |tick| raw(tick) } unless straight?

        segment = moving.first.segment
        segment.breaks(from, to, worth(segment), tolerance)
      end

      private

      def moving = spans.reject { |span| span.segment.still? }

      # One segment moves, and the value moves in proportion to it.
      def straight? = moving.size == 1 && moving.first.rules.straight?(scale)

      def worth(segment)
        change = segment.at(to) - segment.at(from)
        change.zero? ? 0.0 : ((raw(to) - raw(from)) / change).abs
      end
    end
  end
end
