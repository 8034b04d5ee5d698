# frozen_string_literal: true

module KindSatchel
  module Edits
    # Turns points upside down within their own range of values. Twice is as before.
    module FlipPoints
      def self.call(song, input)
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          low, high = selection.values.minmax
          selection.revalued(envelope.role_rules.values, factor: -1) { |point| flipped(point.value, low, high) }
        end
        [next_song, "flip #{what}"]
      end

      # The ends change places exactly, so that nothing drifts.
      def self.flipped(value, low, high)
        return high if value == low

        value == high ? low : low + high - value
      end
      private_class_method :flipped
    end
  end
end
