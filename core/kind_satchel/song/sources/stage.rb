# frozen_string_literal: true

module KindSatchel
  module Sources
    # One stage of an LFO's cycle: from one share of it to another, between two levels, by a {Shapes::Smooth} shape.
    Stage = Struct.new(:from, :to, :a, :b, :shape) do
      # @param level [Float] that is held for the whole cycle
      def self.level(level) = new(0.0, 1.0, level, level, Shapes::Hold::PLAIN)

      # The stage from 0 to 1, its levels times `factor` and `offset` more; kept as long as these stay.
      # @return [Segment]
      def segment(factor, offset)
        # Read and put in one piece: several threads may ask at a time.
        kept = @kept
        return kept[2] if kept && kept[0] == factor && kept[1] == offset

        ends = [a, b].map { |level| (level * factor) + offset }
        segment = Segment.new(0, 1, *ends, ends[0] == ends[1] ? Shapes::Hold::PLAIN : shape, origin: 0.0, length: 1.0)
        @kept = [factor, offset, segment].freeze
        segment
      end
    end
  end
end
