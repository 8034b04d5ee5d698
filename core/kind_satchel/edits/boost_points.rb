# frozen_string_literal: true

module KindSatchel
  module Edits
    # Boosts or cuts points by an amount in their own unit. Each stops at the ends of the travel.
    module BoostPoints
      def self.call(song, input)
        next_song, what = Moves.change_points(song, input) do |selection, envelope|
          amount = Amounts.parse(envelope, Moves.scale(song, envelope), input[:amount])
          selection.revalued(envelope.role_rules.values) { |point| amount.added(point.value) }
        end
        [next_song, "add #{input[:amount].strip} to #{what}"]
      end
    end
  end
end
