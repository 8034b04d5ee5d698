# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts a copied stretch of song in at a tick: with room made for it, or with `over` in place of what lies there.
    module PasteTime
      def self.call(song, input)
        stretch = InvalidInput.under("/stretch") { Transfer::SongStretch.read(input[:stretch]) }
        way = input.fetch(:over, false) ? :filled : :inserted
        length, place = song.meters.span_text(stretch.length_ticks, from: input[:tick]), song.meters.text(input[:tick])
        [Transfer::SongTime.public_send(way, song, stretch, input[:tick]),
         "put #{length} of song #{way == :filled ? 'over what lies' : 'in'} at #{place}"]
      end
    end
  end
end
