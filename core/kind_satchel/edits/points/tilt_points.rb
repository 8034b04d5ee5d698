# frozen_string_literal: true

module KindSatchel
  module Edits
    # Tilts points: the first stays, the last gets the whole amount, those between their share of it by time.
    module TiltPoints
      def self.call(song, input)
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          amount = Amounts.parse(envelope, Envelopes.scale(song, envelope), input[:amount])
          start = selection.first.tick
          span = selection.last.tick - start
          raise InvalidInput.of("too_few", "/runs", "Tilting takes points on two ticks at least.") if span.zero?

          selection.revalued(envelope.role_rules.values) do |point|
            amount.added(point.value, (point.tick - start).fdiv(span))
          end
        end
        [next_song, "tilt #{what} by #{input[:amount].strip}"]
      end
    end
  end
end
