# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts a copied stretch of song in at a tick: with room made for it, or with `over` in place of what lies there.
    module PasteTime
      def self.call(song, input)
        stretch = Moves.at("/stretch") { Transfer::SongStretch.read(input[:stretch]) }
        room = input.fetch(:over, false) ? song : Transfer::SongTime.opened(song, input[:tick], stretch.length_ticks)
        [Transfer::SongTime.filled(room, stretch, input[:tick]),
         "paste #{song.meter.span_text(stretch.length_ticks)} of song at #{song.meter.text(input[:tick])}"]
      end
    end
  end
end
