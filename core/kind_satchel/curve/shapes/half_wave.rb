# frozen_string_literal: true

module KindSatchel
  module Shapes
    # Half a sine wave from foot to top, (1 - cos pi p)/2, or the stretch of it between p = `from` and p = `to`. Only a
    # part of {Cycle}, never a shape of its own.
    class HalfWave < Value.of(:from, :to)
      include Smooth

      def weight(position)
        foot = rise_at(from)
        (rise_at(from + ((to - from) * position)) - foot) / (rise_at(to) - foot)
      end

      def breaks(rise, tolerance)
        return [] if rise.zero?

        memo([rise.abs.round(9), tolerance]) { Fit.breaks(0.0, 1.0, tolerance / rise.abs) { |u| weight(u) } }
      end

      def cut(start, finish, *)
        return self if start.zero? && finish == 1

        with(from: from + ((to - from) * start), to: from + ((to - from) * finish))
      end

      private

      def rise_at(phase) = (1 - Math.cos(Math::PI * phase)) / 2
    end
  end
end
