# frozen_string_literal: true

module KindSatchel
  module Formats
    # What the controllers of a MIDI file move: parameters by their ids, some of the channel, the rest of the
    # instrument.
    module MidiControls
      # Where nothing else is asked for: 7 and 10 by MIDI 1.0, 71 to 75 as the sound controllers are commonly used
      # (General MIDI 2, from memory).
      USUAL = { 7 => "volume", 10 => "pan", 71 => "resonance", 72 => "release", 73 => "attack", 74 => "cutoff",
                75 => "decay" }.freeze
      OF_CHANNEL = %w[volume pan].freeze
      # How a file that was written here says what a controller moves, in a text of its track.
      NAMED = /\AController (\d{1,3}) moves ([a-z0-9-]{1,64})\z/
      FINE = 32
      PAIR = /\A(\d{1,3}):([a-z0-9-]{1,64})\z/

      module_function

      # @return [String] such a text
      def named(number, id) = "Controller #{number} moves #{id}"

      # @param text [String, nil] a table as a request writes it, "74:cutoff,1:sweep"; nil for the usual one
      # @return [Hash{Integer => String}]
      # @raise [InvalidInput]
      def read(text)
        return USUAL unless text

        pairs = text.split(",").map { |pair| PAIR.match(pair)&.captures }
        return pairs.to_h { |number, id| [number.to_i, id] } if pairs.all? { |pair| pair && pair[0].to_i < 128 }

        raise InvalidInput.of("bad_table", "/controls",
                              "A table of controllers is written 74:cutoff,1:sweep, with numbers from 0 to 127.")
      end
    end
  end
end
