# frozen_string_literal: true

module KindSatchel
  module Shapes
    # a + (b - a) u
    class Straight
      def self.of(_record) = PLAIN
      def weight(position) = position
      def breaks(_rise, _tolerance) = []
      def cut(_from, _to) = self
      def still? = false
      def straight? = true
      def reversed = self
      def settings = {}

      PLAIN = new.freeze
    end
  end
end
