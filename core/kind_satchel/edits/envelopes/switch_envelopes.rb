# frozen_string_literal: true

module KindSatchel
  module Edits
    # Switches several envelopes off or on at once, in clips and on lanes, as one step; those that are so already stay.
    # Where one cannot be switched (see {SwitchEnvelope}) none is.
    module SwitchEnvelopes
      def self.call(song, input)
        ids, on = input[:envelope_ids].uniq, input[:on]
        next_song = ids.each_with_index.reduce(song) do |now, (id, i)|
          InvalidInput.under("/envelope_ids/#{i}") { SwitchEnvelope.call(now, { envelope_id: id, on: }).first }
        end
        names = ids.map { |id| Envelopes.name(song, id) }.uniq
        what = names.one? ? "all that moves #{names.first}" : PlainText.count(ids.size, "move")
        [next_song, "switch #{what} #{on ? 'on' : 'off'}"]
      end
    end
  end
end
