# frozen_string_literal: true

module KindSatchel
  module Edits
    # Lets regions repeat their material, or play it once.
    module LoopRegions
      def self.call(song, input)
        placed = Regions.named(song, input[:region_ids])
        next_song = Regions.change(song, placed) { |one| one.region.with(looped: input[:looped]) }
        [next_song, "#{input[:looped] ? 'repeat' : 'play once'} #{Regions.words(song, placed)}"]
      end
    end
  end
end
