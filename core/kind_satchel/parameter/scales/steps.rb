# frozen_string_literal: true

module KindSatchel
  module Scales
    # A whole number of steps from low to high: semitones, octaves, choices (whose unit is a list of words).
    #
    # @example
    #   Steps.choice(%w[up down random]).heard(0.6) #=> 0.5
    #   Steps.choice(%w[up down random]).text(0.6) #=> "down"
    class Steps < Value.of(:low, :high, :unit)
      include Scale

      # @param words [Array<String>]
      def self.choice(words) = new(low: 0, high: words.size - 1, unit: Units::Words.new(words))

      def steps = high - low
      def natural(value) = low + step(value)
      def normalised(natural) = (natural - low) / steps.to_f
      def heard(value) = step(value).fdiv(steps)
      def set_only? = unit.is_a?(Units::Words)

      # The nearest step, counted from 0.
      def step(value) = ((value.clamp(0.0, 1.0) * steps) + 0.5 + EDGE).floor

      def to_record = super.merge("steps" => steps, **(set_only? ? { "words" => unit.words } : {}))
    end
  end
end
