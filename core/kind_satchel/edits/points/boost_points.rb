# frozen_string_literal: true

module KindSatchel
  module Edits
    # Boosts or cuts points by an amount in their own unit. Each stops at the ends of the travel.
    module BoostPoints
      def self.call(song, input)
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          boosted(song, selection, envelope, input[:amount])
        end
        [next_song, "add #{input[:amount].strip} to #{what}"]
      end

      # @param text [String] an amount, see {Amounts}
      # @return [Array<Point>]
      def self.boosted(song, selection, envelope, text)
        amount = Amounts.parse(envelope, Envelopes.scale(song, envelope), text)
        selection.revalued(envelope.role_rules.values) do |point|
          envelope.value_of(amount.added(envelope.amount(point.value)))
        end
      end
    end
  end
end
