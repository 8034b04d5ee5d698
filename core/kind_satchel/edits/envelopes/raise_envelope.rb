# frozen_string_literal: true

module KindSatchel
  module Edits
    # Adds an amount to all of an envelope, in its own unit: a whole automated track by 2 dB.
    module RaiseEnvelope
      def self.call(song, input)
        envelope = song.directory.envelope(input[:envelope_id]).envelope
        raise InvalidInput.of("empty", "/envelope_id", "The envelope has no points.") if envelope.points.empty?

        all = { envelope_id: envelope.id, runs: [[0, envelope.points.size - 1]] }
        next_song, = Envelopes.change_points(song, all) do |selection, one|
          BoostPoints.boosted(song, selection, one, input[:amount])
        end
        [next_song, "add #{input[:amount].strip} to all of #{song.parameter(envelope.target).name}"]
      end
    end
  end
end
