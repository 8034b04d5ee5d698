# frozen_string_literal: true

module KindSatchel
  module Edits
    # Places regions once more, right after the last of them.
    module DuplicateRegions
      def self.call(song, input)
        placed = Regions.named(song, input[:region_ids])
        regions = placed.map(&:region)
        ticks = regions.map(&:end_tick).max - regions.map(&:start_tick).min
        next_song, notices = Carrying.new(song, region_ids: input[:region_ids], ticks:, copy: true).carried
        [next_song, "duplicate #{Regions.words(song, placed)}", notices]
      end
    end
  end
end
