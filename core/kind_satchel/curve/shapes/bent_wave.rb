# frozen_string_literal: true

module KindSatchel
  module Shapes
    # Half a sine wave, bent: (e^(kw) - 1)/(e^k - 1) with w = (1 - cos pi p)/2 and k = 8 bend, from p = `from` to p =
    # `to`. Only a part of an LFO, never a shape of its own.
    class BentWave < Value.of(:bend, :from, :to)
      include Smooth

      # @return [Smooth] straight from foot to top where nothing bends it
      def self.half(bend) = bend.zero? ? HalfWave.new(from: 0.0, to: 1.0) : new(bend:, from: 0.0, to: 1.0)

      def check
        number!("/bend", bend, -1..1)
        @curve = Curved.new(curve: bend)
        @wave = HalfWave.new(from: 0.0, to: 1.0)
        @foot = level(from)
        @height = level(to) - @foot
      end

      def weight(position) = (level(from + ((to - from) * position)) - @foot) / @height

      # By the chain rule: the curve's slope at most, times the wave's.
      def slope_most(start, finish)
        ends = places(start, finish)
        curve_slope(ends) * @wave.slope_most(*ends) * (to - from) / @height.abs
      end

      def bend_most(start, finish)
        ends = places(start, finish)
        slope = @wave.slope_most(*ends)
        bend = (@curve.bend_most(*heights(ends)) * slope * slope) + (curve_slope(ends) * @wave.bend_most(*ends))
        bend * ((to - from)**2) / @height.abs
      end

      def breaks(rise, tolerance)
        return [] if rise.zero?

        memo([rise, tolerance]) do
          Chords.breaks(0.0, 1.0, tolerance / rise.abs) do |u0, u1|
            ((u1 - u0)**2) / 8 * bend_most(u0, u1)
          end
        end
      end

      def cut(start, finish, *)
        start.zero? && finish == 1 ? self : with(from: places(start, finish)[0], to: places(start, finish)[1])
      end

      private

      def level(phase) = @curve.weight(@wave.weight(phase))
      def places(start, finish) = [start, finish].map { |u| from + ((to - from) * u) }
      def heights(ends) = ends.map { |p| @wave.weight(p) }
      def curve_slope(ends) = @curve.slope_most(*heights(ends))
    end
  end
end
