# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes regions off their tracks. Their clips stay in the song; lane points go too where they follow regions.
    module RemoveRegions
      def self.call(song, input)
        placed = Regions.named(song, input[:region_ids])
        next_song = Regions.change(song, placed) { nil }
        if song.points_follow
          next_song = Transfer::Lanes.lift(next_song, placed.flat_map do |one|
            Transfer::Lanes.above(one.track, one.region)
          end)
        end
        [next_song, "remove #{Regions.words(song, placed)} at #{song.meters.text(placed.map do |one|
          one.region.start_tick
        end.min)}"]
      end
    end
  end
end
