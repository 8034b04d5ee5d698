# frozen_string_literal: true

module KindSatchel
  module Edits
    # Pulls points towards the grid: with strength 1 onto it, with 1/2 half the way.
    module QuantisePoints
      def self.call(song, input)
        grid = input[:grid_ticks]
        next_song, what = Moves.change_points(song, input) do |selection, _|
          selection.retimed do |point|
            line = (point.tick / grid.to_r).round * grid
            point.tick + ((line - point.tick) * input.fetch(:strength, 1)).round
          end
        end
        [next_song, "quantise #{what}"]
      end
    end
  end
end
