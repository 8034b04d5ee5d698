# frozen_string_literal: true

module KindSatchel
  module Edits
    # Mutes regions, material and envelopes, or lets them be heard again.
    module MuteRegions
      def self.call(song, input)
        placed = Regions.named(song, input[:region_ids])
        next_song = Regions.change(song, placed) { |one| one.region.with(muted: input[:muted]) }
        [next_song, "#{input[:muted] ? 'mute' : 'unmute'} #{Regions.words(song, placed)}"]
      end
    end
  end
end
