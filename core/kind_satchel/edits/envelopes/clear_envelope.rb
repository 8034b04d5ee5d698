# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes all points out of an envelope; without points it does nothing.
    module ClearEnvelope
      def self.call(song, input)
        [Envelopes.change(song, input[:envelope_id]) do |envelope|
          envelope.with(points: [])
        end, "clear #{Envelopes.name(song, input[:envelope_id])}"]
      end
    end
  end
end
