# frozen_string_literal: true

module KindSatchel
  module Edits
    # Switches an envelope off without losing it, or on again; not beside another of its role that is on.
    module SwitchEnvelope
      def self.call(song, input)
        second!(song, input[:envelope_id]) if input[:on]
        next_song = Envelopes.change(song, input[:envelope_id]) { |envelope| envelope.with(on: input[:on]) }
        [next_song, "switch the #{Envelopes.name(song, input[:envelope_id])} envelope #{input[:on] ? 'on' : 'off'}"]
      end

      def self.second!(song, envelope_id)
        home = song.directory.envelope(envelope_id)
        list = home.clip ? home.clip.envelopes : home.track.lanes
        mine = home.envelope
        other = list.find do |one|
          one.on && one.id != mine.id && one.target == mine.target && one.role == mine.role
        end or return
        raise InvalidInput.of("second_of_role", "/on",
                              "Another envelope already #{other.role}s #{song.parameter_name(mine.target)} here; " \
                              "switch that off first.")
      end
      private_class_method :second!
    end
  end
end
