# frozen_string_literal: true

module KindSatchel
  module Scales
    # As linear, with its origin in the middle: pan, detune.
    #
    # @example
    #   Bipolar.new(low: -100, high: 100, unit: Units::PERCENT).text(0.25) #=> "-50 %"
    class Bipolar < Value.of(:low, :high, :unit)
      include Scale

      def origin = 0.5
      def natural(value) = low + (value * (high - low))
      def normalised(natural) = (natural - low) / (high - low).to_f
    end
  end
end
