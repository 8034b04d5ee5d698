# frozen_string_literal: true

module KindSatchel
  module Heard
    # Gathers corners, flat; leaves out what repeats and what lies on a level line.
    class Chain
      attr_reader :flat

      def initialize = @flat = []

      # @return [Float, nil]
      def last_value = @flat[-1]

      # Adds a corner; one that lies on the line before it takes the place of the last.
      def add(tick, value)
        flat = @flat
        size = flat.size
        if size.positive? && flat[-1] == value
          return if flat[-2] == tick

          flat.pop(2) if size > 2 && flat[-3] == value
        end
        flat << tick << value
      end
    end
  end
end
