# frozen_string_literal: true

module KindSatchel
  module Heard
    # Where a smooth curve crosses nothing, found for certain: by bounds of its slope and bend, not by samples.
    class Crossings
      HALVINGS = 60

      # @param narrow [Float] two crossings closer together than this may be missed
      # @param jet [#call] what is known of the curve, but for a constant, between two places
      # @yieldparam place [Float]
      # @yieldreturn [Float]
      # @return [Array<Float>] in order
      def self.of(from, to, narrow, jet, &curve) = new(narrow, jet, curve).between(from, to)

      def initialize(narrow, jet, curve)
        @narrow, @jet, @curve = narrow, jet, curve
        @found = []
      end

      # @return [Array<Float>] in order
      def between(from, to)
        look(from, to, @curve.call(from), @curve.call(to))
        @found
      end

      private

      def look(from, to, start, finish)
        width = to - from
        bend = @jet.call(from, to).bend * width * width
        changes = (start.positive? && finish.negative?) || (start.negative? && finish.positive?)
        if (finish - start).abs > bend || width <= @narrow
          @found << root(from, to, start) if changes
        elsif changes || [start.abs, finish.abs].min <= bend / 8
          halves(from, to, start, finish)
        end
      end

      def halves(from, to, start, finish)
        middle = (from + to) / 2
        value = @curve.call(middle)
        look(from, middle, start, value)
        @found << middle if value.zero?
        look(middle, to, value, finish)
      end

      def root(from, to, start)
        HALVINGS.times do
          middle = (from + to) / 2
          break if middle <= from || middle >= to

          @curve.call(middle).negative? == start.negative? ? from = middle : to = middle
        end
        to
      end
    end
  end
end
