# frozen_string_literal: true

module KindSatchel
  module Scales
    # low + n (high - low): mix, feedback, depth.
    class Linear < Value.of(:low, :high, :unit)
      include Scale

      def natural(value) = low + (value * (high - low))
      def normalised(natural) = (natural - low) / (high - low).to_f
    end
  end
end
