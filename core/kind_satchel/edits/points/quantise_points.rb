# frozen_string_literal: true

module KindSatchel
  module Edits
    # Pulls points towards the grid: with strength 1 onto it, with 1/2 half the way.
    module QuantisePoints
      def self.call(song, input)
        grid = input[:grid_ticks]
        strength = input.fetch(:strength, 1)
        next_song, what = Envelopes.change_points(song, input) do |selection, _|
          selection.retimed do |point|
            line = (point.tick + (grid / 2)) / grid * grid
            point.tick + ((line - point.tick) * strength).round
          end
        end
        [next_song, "quantise #{what}"]
      end
    end
  end
end
