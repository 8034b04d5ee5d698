# frozen_string_literal: true

module KindSatchel
  module Edits
    # Chooses how a clip envelope's time runs while its clip repeats.
    module SetClock
      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        unless home.clip
          raise InvalidInput.of("no_clock", "/envelope_id",
                                "A lane runs with the song; only clip envelopes have a clock.")
        end

        next_song = Envelopes.change(song, input[:envelope_id]) do |envelope|
          envelope.with(clock: input[:clock],
                        own_length_ticks: input.fetch(:own_length_ticks, envelope.own_length_ticks))
        end
        [next_song, "run the #{Envelopes.name(song, input[:envelope_id])} envelope #{input[:clock].tr('_', ' ')}"]
      end
    end
  end
end
