# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts a stretch of a move into an envelope, from a tick on, in place of what lies there; stretched to a length if
    # one is given. With `push` it is put in between, and all that follows moves along.
    module PasteSnippet
      def self.call(song, input)
        snippet = InvalidInput.under("/snippet") { Records.read_snippet(input[:snippet]) }
        snippet = snippet.stretched(input[:length_ticks]) if input[:length_ticks]
        next_song = into(song, input[:envelope_id], snippet, input[:tick], push: input.fetch(:push, false))
        [next_song,
         "paste #{PlainText.count(snippet.points.size, 'point')} into #{Envelopes.name(song, input[:envelope_id])}"]
      end

      # @param snippet [Snippet]
      # @return [Song]
      def self.into(song, envelope_id, snippet, tick, push:)
        Envelopes.change(song, envelope_id) do |envelope|
          envelope.with(points: pasted(envelope, snippet, Envelopes.scale(song, envelope), tick, push))
        end
      end

      def self.pasted(envelope, snippet, scale, tick, push)
        points = snippet.points_for(envelope.role, scale).map { |point| point.with(tick: point.tick + tick) }
        length = snippet.length_ticks
        return Splice.replace(envelope.points, tick, tick, points, later: length) if push

        Splice.replace(envelope.points, tick, tick + length, points)
      end
      private_class_method :pasted
    end
  end
end
