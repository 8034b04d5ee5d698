# frozen_string_literal: true

module KindSatchel
  module Scales
    # On where n >= 1/2 (to within {Scale::EDGE}): mute, bypass.
    #
    # @example
    #   Switch.new.text(0.7) #=> "on"
    class Switch < Value.of(:unit)
      include Scale

      def initialize(unit: Units::ON_OFF) = super
      def steps = 1
      def set_only? = true
      def natural(value) = heard(value)
      def normalised(natural) = natural
      def heard(value) = value >= 0.5 - EDGE ? 1.0 : 0.0
      def to_record = super.merge("steps" => 1, "words" => unit.words)
    end
  end
end
