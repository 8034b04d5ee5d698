# frozen_string_literal: true

module KindSatchel
  module Scales
    # Quarter notes per minute. To scale it is to multiply the tempo: half of 92 BPM is 46.
    class Tempo < Value.of(:low, :high, :unit)
      include Scale

      def natural(value) = low + (value * (high - low))
      def normalised(natural) = (natural - low) / (high - low).to_f

      # Where the tempo would be nothing.
      def origin = @origin ||= -low / (high - low).to_f

      def check = origin
      def examples = "92 or 120.5"
    end
  end
end
