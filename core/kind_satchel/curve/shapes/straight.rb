# frozen_string_literal: true

module KindSatchel
  module Shapes
    # a + (b - a) u
    class Straight
      include Smooth

      def self.of(_record) = PLAIN
      def weight(position) = position
      def slope_most(_from, _to) = 1.0
      def bend_most(_from, _to) = 0.0
      def position_of(wanted) = wanted
      def breaks(_rise, _tolerance) = []
      def cut(_from, _to, *) = self
      def straight? = true
      def reversed(_ends) = self
      def settings = {}
      def text = "straight"

      PLAIN = new.freeze
    end
  end
end
