# frozen_string_literal: true

module KindSatchel
  module Edits
    # Scales the values of points about a pivot: their foot (the lowest of them), their middle, or a value as people
    # write it. Values are shares of the travel; each stops at the ends of it.
    module ScalePoints
      def self.call(song, input)
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          pivot = pivot(selection, envelope, Envelopes.scale(song, envelope), input.fetch(:pivot, "foot"))
          selection.revalued(envelope.role_rules.values, factor: input[:factor]) do |point|
            pivot + ((point.value - pivot) * input[:factor])
          end
        end
        [next_song, "scale #{what} to #{Units::PERCENT.text(input[:factor] * 100.0)}"]
      end

      def self.pivot(selection, envelope, scale, text)
        low, high = selection.values.minmax
        case text
        when "foot" then low
        when "middle" then (low + high) / 2
        else InvalidInput.under("/pivot") { Envelopes.typed(envelope, scale, text) }
        end
      end
      private_class_method :pivot
    end
  end
end
