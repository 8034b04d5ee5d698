# frozen_string_literal: true

module KindSatchel
  module Edits
    # Repeats a stretch of an envelope right after itself.
    module DuplicateStretch
      def self.call(song, input)
        from, to = input.values_at(:from_tick, :to_tick)
        home = song.directory.envelope(input[:envelope_id])
        snippet = Snippet.of(home.envelope, from, to)
        next_song = PasteSnippet.into(song, input[:envelope_id], snippet, to, push: input.fetch(:push, false))
        meters = song.meters_of(home.owner)
        [next_song,
         "duplicate #{meters.text(from)} to #{meters.text(to)} of #{Envelopes.name(song, input[:envelope_id])}"]
      end
    end
  end
end
