# frozen_string_literal: true

module KindSatchel
  # Values worth a line on an axis: round ones in their own unit.
  module Marks
    DECIBELS = [-48, -24, -12, -6, 0, 6].freeze
    # Octaves about 1 kHz, as the preferred frequencies of ISO 266 have them.
    OCTAVES = (-5..4).map { |octave| 1000 * (2.0**octave) }.freeze
    DECADES = [0.001, 0.01, 0.1, 1, 10].freeze
    # Times a quarter note: four bars, a bar, then note lengths.
    CYCLES = [1 / 16.0, 1 / 4.0, 1, 4, 16].freeze
    QUARTERS = [0.0, 0.25, 0.5, 0.75, 1.0].freeze
    ROUND = { Units::HERTZ => OCTAVES, Units::CYCLES => CYCLES }.freeze
    MOST = 8

    module_function

    # @param scale [Scales::Scale]
    # @return [Array<Float>] normalised values, rising
    def of(scale)
      return stepped(scale) if scale.steps
      return within([0.0, *DECIBELS.map { |db| scale.normalised(db) }]) if scale.gain?
      return QUARTERS unless scale.is_a?(Scales::Log)

      within(ROUND.fetch(scale.unit, DECADES).map { |natural| scale.normalised(natural) })
    end

    def stepped(scale)
      if scale.steps < MOST
        (0..scale.steps).map { |i| i.fdiv(scale.steps) }
      else
        QUARTERS.map { |value| scale.heard(value) }
      end
    end

    def within(values) = values.grep(0.0..1.0)

    private_class_method :stepped, :within
  end
end
