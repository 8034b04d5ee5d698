# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes an envelope out of its clip, or a lane off its track.
    module RemoveEnvelope
      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        place = home.clip ? "from #{home.clip.name}" : "lane from #{home.track.name}"
        words = "remove the #{Envelopes.name(song, input[:envelope_id])} #{'envelope ' if home.clip}#{place}"
        [Envelopes.change(song, input[:envelope_id]) { nil }, words]
      end
    end
  end
end
