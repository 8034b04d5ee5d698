# frozen_string_literal: true

module KindSatchel
  module Scales
    # low + n (high - low): mix, feedback, depth.
    #
    # @example
    #   Linear.new(low: 0, high: 100, unit: Units::PERCENT).text(0.25) #=> "25 %"
    class Linear < Value.of(:low, :high, :unit)
      include Scale

      def natural(value) = low + (value * (high - low))
      def normalised(natural) = (natural - low) / (high - low).to_f
    end
  end
end
