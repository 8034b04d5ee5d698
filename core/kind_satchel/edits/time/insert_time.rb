# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes room in the whole song: regions are cut there, lanes and tempo hold what they had come to.
    module InsertTime
      def self.call(song, input)
        [Transfer::SongTime.opened(song, input[:tick], input[:length_ticks]),
         "open #{song.meters.span_text(input[:length_ticks], from: input[:tick])} at #{song.meters.text(input[:tick])}"]
      end
    end
  end
end
