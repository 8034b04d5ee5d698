# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes away what lies past the end of what a clip repeats: the points of an envelope beyond its loop, or its own
    # length. Nothing heard changes.
    module CropEnvelope
      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        envelope = home.envelope
        unless home.clip
          raise InvalidInput.of("no_clip", "/envelope_id",
                                "A lane goes on to the end of the song; it has no loop.")
        end
        if envelope.clock == "once"
          raise InvalidInput.of("no_loop", "/envelope_id",
                                "It goes once over all of a region; it has no loop.")
        end

        length = (envelope.own_length_ticks if envelope.clock == "own_length") || home.clip.length_ticks
        kept, = envelope.points.last&.tick.to_i > length ? Splice.split(envelope.points, length) : [envelope.points]
        words = "crop #{Envelopes.name(song, envelope.id)} by #{PlainText.count(envelope.points.count do |point|
          point.tick > length
        end, 'point')}"
        [Envelopes.change(song, envelope.id) { |one| one.with(points: kept) }, words]
      end
    end
  end
end
