# frozen_string_literal: true

module KindSatchel
  module Edits
    # Turns an LFO into points, as far as it is heard, to be drawn on. Limits and depth are taken in, unless they are
    # moved.
    module DrawLfo
      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        envelope = home.envelope
        raise InvalidInput.of("no_lfo", "/envelope_id", "This move is drawn already.") unless envelope.lfo?

        done = Envelopes.change(song, envelope.id) { Conversion::Drawn.of(song, home) }
        name = song.parameter_name(envelope.target)
        words = "turn the LFO of #{name} into points"
        idle = Conversion::Drawn.idle(song, envelope)
        waits = Notice.new("loose", [envelope.id], "what moves its #{idle.join(' and ')} waits as a loose end")
        notices = idle.any? ? [waits] : []
        return [done, words, notices] unless song.parameter?(envelope.target)

        [done, words, [LayOut.difference(Heard::Difference.of(song, done, [envelope.target])), *notices]]
      end
    end
  end
end
