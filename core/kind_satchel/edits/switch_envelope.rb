# frozen_string_literal: true

module KindSatchel
  module Edits
    # Switches an envelope off without losing it, or on again.
    module SwitchEnvelope
      def self.call(song, input)
        next_song = Moves.change(song, input[:envelope_id]) { |envelope| envelope.with(on: input[:on]) }
        [next_song, "switch the #{Moves.name(song, input[:envelope_id])} envelope #{input[:on] ? 'on' : 'off'}"]
      end
    end
  end
end
