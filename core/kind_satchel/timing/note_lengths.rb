# frozen_string_literal: true

module KindSatchel
  module Timing
    # Lengths as people write them: "1/8", "1/8 triplet" (two thirds of it), "1/16 dotted" (one and a half), "2 bars",
    # "3 beats".
    module NoteLengths
      WHOLE = PPQ * 4
      FACTORS = { "triplet" => Rational(2, 3), "dotted" => Rational(3, 2) }.freeze
      NOTE = %r{\A(\d{1,3})\s*/\s*(\d{1,3})(?:\s+(triplet|dotted))?\z}
      COUNT = /\A(\d{1,4}(?:\.\d{1,6})?)\s*(bars?|beats?)\z/
      # So many parts of a whole note have words of their own.
      PARTS = [256, 128, 64, 32, 16, 8, 4, 2, 1].freeze

      module_function

      # @example
      #   NoteLengths.parse("1/8 triplet", bar_ticks: 3840, beat_ticks: 960) #=> 320
      # @param text [String]
      # @param bar_ticks [Integer] how long a bar is
      # @param beat_ticks [Integer]
      # @return [Numeric] ticks, an Integer where they are whole
      # @raise [InvalidInput]
      def parse(text, bar_ticks: WHOLE, beat_ticks: PPQ)
        ticks = note(NOTE.match(text.strip)) || count(COUNT.match(text.strip), bar_ticks, beat_ticks)
        unless ticks&.positive?
          raise InvalidInput.of("bad_length", "",
                                "#{text.inspect} is not a length; write it like 1/8, 1/8 triplet, 1/16 dotted or 2 " \
                                "bars.")
        end

        ticks.denominator == 1 ? ticks.to_i : ticks.to_f
      end

      # @example
      #   NoteLengths.text(480) #=> "1/8"
      # @param ticks [Numeric]
      # @return [String]
      def text(ticks, bar_ticks: WHOLE)
        return words[ticks] if words.key?(ticks)
        return "#{(ticks / bar_ticks).to_i} bars" if ticks >= bar_ticks && (ticks % bar_ticks).zero?

        "#{format('%.4f', ticks / PPQ.to_f).sub(/\.?0+\z/, '')} beats"
      end

      # @return [Array<Array(Numeric, String)>] ticks with the words for them
      def words
        @words ||= PARTS.flat_map do |part|
          [[WHOLE / part, "1/#{part}"], *FACTORS.map { |word, factor| [WHOLE * factor / part, "1/#{part} #{word}"] }]
        end.select { |ticks, _| ticks.to_r.denominator == 1 }.to_h { |ticks, word| [ticks.to_i, word] }.freeze
      end

      def note(match)
        return unless match && match[2].to_i.positive?

        Rational(WHOLE * match[1].to_i,
                 match[2].to_i) * FACTORS.fetch(match[3], 1)
      end

      def count(match, bar_ticks, beat_ticks)
        match && (match[1].to_r * (match[2].start_with?("bar") ? bar_ticks : beat_ticks))
      end
      private_class_method :note, :count
    end
  end
end
