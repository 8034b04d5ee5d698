# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes regions off their tracks. Their clips stay in the song; lane points go too where they follow regions.
    module RemoveRegions
      def self.call(song, input)
        placed = Regions.named(song, input[:region_ids])
        next_song = Regions.change(song, placed) { nil }
        next_song = Transfer::Lanes.lift(next_song, placed.flat_map { |one| Transfer::Lanes.above(one.track, one.region) }) if song.points_follow
        [next_song, "remove #{Regions.words(song, placed)} at #{song.meters.text(placed.map { |one| one.region.start_tick }.min)}"]
      end
    end
  end
end
