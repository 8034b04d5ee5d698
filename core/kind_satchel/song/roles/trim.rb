# frozen_string_literal: true

module KindSatchel
  module Roles
    # A set lane on whose top the knob acts: gains multiply, others add the knob's distance from its default. It is no
    # role that is chosen: it stands in the place of set where a lane's fader trims.
    Trim = Struct.new(:default) do
      def id = "trim"
      def verb = "with the knob:"

      # @param before [Float] the knob
      # @param amount [Float] the lane
      def apply(scale, before, amount)
        factor, offset = line(scale, before)
        (amount * factor) + offset
      end

      # What makes a heard value of the lane's: value * factor + offset.
      # @return [Array(Float, Float)]
      def line(scale, knob) = scale.gain? ? [knob * Math.sqrt(scale.peak), 0.0] : [1.0, knob - default]

      def amount_text(scale, amount) = scale.text(amount)
    end
  end
end
