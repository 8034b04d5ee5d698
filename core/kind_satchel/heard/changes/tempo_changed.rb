# frozen_string_literal: true

module KindSatchel
  module Heard
    class Changes
      # From where two tempo maps differ.
      module TempoChanged
        module_function

        # @param was [Timing::TempoMap]
        # @param is [Timing::TempoMap]
        # @return [Integer, nil] the first tick whose second may differ; nil for none
        def from(was, is)
          old, new = was.points, is.points
          same = old.zip(new).take_while { |a, b| a == b }.size
          return if same == old.size && same == new.size
          return 0 if same.zero?

          # A tempo on its way to another point differs from where it set out.
          last = old[same - 1]
          last.shape == "hold" ? [old[same], new[same]].compact.map(&:tick).min : last.tick
        end
      end
    end
  end
end
