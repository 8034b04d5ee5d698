# frozen_string_literal: true

module KindSatchel
  module Shapes
    # Half a sine wave from foot to top, (1 - cos pi p)/2, or the stretch of it between p = `from` and p = `to`. Only a
    # part of {Cycle}, never a shape of its own.
    class HalfWave < Value.of(:from, :to)
      include Smooth

      def check
        @foot = rise_at(from)
        @height = rise_at(to) - @foot
      end

      def weight(position) = (rise_at(from + ((to - from) * position)) - @foot) / @height

      # The derivative, (pi/2) sin pi p, is largest in the middle of the wave.
      def slope_most(start, finish)
        low, high = [start, finish].map { |u| from + ((to - from) * u) }
        most = 0.5.between?(low, high) ? 1.0 : [low, high].map { |p| Math.sin(Math::PI * p) }.max
        Math::PI / 2 * most * (to - from) / @height
      end

      # The second, (pi^2/2) cos pi p, is largest at an end.
      def bend_most(start, finish)
        most = [start, finish].map { |u| Math.cos(Math::PI * (from + ((to - from) * u))).abs }.max
        Math::PI * Math::PI / 2 * most * ((to - from)**2) / @height
      end

      # What it may stray goes down to the next of so many levels in each halving, so that few chains are ever worked
      # out.
      LEVELS = 32
      MOST_REMEMBERED = 8 * LEVELS

      def breaks(rise, tolerance)
        # A chord strays by no more than the rise.
        return [] if rise.abs <= tolerance

        level = (Math.log2(tolerance / rise.abs) * LEVELS).floor
        memo(level) do
          Chords.breaks(0.0, 1.0, 2.0**level.fdiv(LEVELS)) do |u0, u1|
            ((u1 - u0)**2) / 8 * bend_most(u0, u1)
          end
        end
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
