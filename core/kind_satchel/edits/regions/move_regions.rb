# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves regions in time and across tracks of a fitting kind, their envelopes with them.
    module MoveRegions
      def self.call(song, input)
        carrying = Carrying.new(song, **input.except(:pass))
        next_song, notices = carrying.carried
        [next_song,
         "move #{Regions.words(song, Regions.named(song, input[:region_ids]))} to " \
         "#{song.meters.text(carrying.start_tick)}", notices]
      end
    end
  end
end
