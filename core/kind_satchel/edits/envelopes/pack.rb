# frozen_string_literal: true

module KindSatchel
  module Edits
    # Packs a stretch of a lane into the clips of the regions it touches, as envelopes that set; the lane is cut out
    # there.
    module Pack
      def self.call(song, input)
        from, to = input.values_at(:from_tick, :to_tick)
        raise InvalidInput.of("too_short", "/to_tick", "A stretch ends after it starts.") unless to > from

        home = song.directory.envelope(input[:envelope_id])
        if home.clip
          raise InvalidInput.of("no_lane", "/envelope_id",
                                "Only a lane is packed; this envelope lives in a clip already.")
        end

        packed = Conversion::Pack.call(song, home.envelope, from, to)
        words = "pack #{Envelopes.name(song, home.envelope.id)} into #{PlainText.count(packed.converted, 'region')}"
        [packed.song, words, LayOut.notices(packed)]
      end
    end
  end
end
