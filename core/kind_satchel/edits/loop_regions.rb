# frozen_string_literal: true

module KindSatchel
  module Edits
    # Lets regions repeat their material, or play it once.
    module LoopRegions
      def self.call(song, input)
        placed = Moves.regions!(song, input[:region_ids])
        next_song = Moves.change_regions(song, placed) { |one| one.region.with(looped: input[:looped]) }
        [next_song, "#{input[:looped] ? 'repeat' : 'play once'} #{Moves.region_words(song, placed)}"]
      end
    end
  end
end
