# frozen_string_literal: true

module KindSatchel
  module Edits
    # Places regions once more, in time and across tracks. On the same track both share the clip, its envelopes
    # included.
    module CopyRegions
      def self.call(song, input)
        carrying = Carrying.new(song, **input, copy: true)
        next_song, notices = carrying.carried
        [next_song,
         "copy #{Regions.words(song, Regions.named(song, input[:region_ids]))} to " \
         "#{song.meters.text(carrying.start_tick)}", notices]
      end
    end
  end
end
