# frozen_string_literal: true

module KindSatchel
  module Shapes
    # Stays on its first value.
    #
    # @example
    #   Shapes.value_at(Hold::PLAIN, Ends.new(0.2, 1.0, 960), 0.9) #=> 0.2
    class Hold
      include Smooth

      def self.of(_record) = PLAIN
      def weight(_position) = 0.0
      def slope_most(_from, _to) = 0.0
      def bend_most(_from, _to) = 0.0
      def breaks(_rise, _tolerance) = []
      def cut(_from, _to, *) = self
      def still? = true
      def straight? = true
      def settings = {}
      def text = "hold"
      def reversed(_ends) = self

      PLAIN = new.freeze
    end
  end
end
