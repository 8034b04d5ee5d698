# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes several envelopes out of their clips and lanes off their tracks at once, as one step. What moved their
    # settings goes with them.
    module RemoveEnvelopes
      def self.call(song, input)
        ids = input[:envelope_ids].uniq
        homes = ids.each_with_index.map do |id, i|
          InvalidInput.under("/envelope_ids/#{i}") { song.directory.envelope(id) }
        end
        next_song = ids.reduce(song) do |now, id|
          now.directory.envelopes.key?(id) ? Envelopes.change(now, id) { nil } : now
        end
        owners = homes.map { |home| (home.clip || home.track).name }.uniq
        whose = owners.one? ? " of #{owners.first}" : ""
        [next_song, "remove #{PlainText.count(ids.size, 'move')}#{whose}"]
      end
    end
  end
end
