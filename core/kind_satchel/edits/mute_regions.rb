# frozen_string_literal: true

module KindSatchel
  module Edits
    # Mutes regions, material and envelopes, or lets them be heard again.
    module MuteRegions
      def self.call(song, input)
        placed = Moves.regions!(song, input[:region_ids])
        next_song = Moves.change_regions(song, placed) { |one| one.region.with(muted: input[:muted]) }
        [next_song, "#{input[:muted] ? 'mute' : 'unmute'} #{Moves.region_words(song, placed)}"]
      end
    end
  end
end
