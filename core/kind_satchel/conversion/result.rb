# frozen_string_literal: true

module KindSatchel
  module Conversion
    # What a conversion comes to: the next song and how far it is heard otherwise.
    #
    # - `song`       the next {Song}
    # - `difference` [largest, moved jumps], see {Heard::Difference}
    # - `separated`  the clips that were made separate first
    # - `converted`  how many envelopes were laid out, or regions packed into
    # - `left`       names of moves that were off and are left out
    Result = Struct.new(:song, :difference, :separated, :converted, :left, keyword_init: true) do
      # @return [Float] the largest difference, as a share of the travel
      def largest = difference[0]
    end
  end
end
