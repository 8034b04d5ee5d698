# frozen_string_literal: true

module KindSatchel
  # How natural values are written and read. Each unit answers
  #
  # - `text(natural)` the value as people read it; `parse(text)` back, nil where the text is not in this unit
  # - `word` its name for programs
  # - `engine_factor` turns the natural value into what a sound engine takes (50 % is 0.5)
  module Units
    NUMBER = /[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?/

    # Three significant digits, no trailing zeros: 1.42, 18, 0.05.
    # @example
    #   Units.short(0.04999) #=> "0.05"
    def self.short(number)
      return "0" if number.zero?

      places = [2 - Math.log10(number.abs).floor, 0].max
      text = format("%.#{places}f", number)
      text = text.sub(/\.?0+\z/, "") if text.include?(".")
      text == "-0" ? "0" : text
    end

    # A bound in three significant digits: never less than the number.
    # @example
    #   Units.at_most(1.9617) #=> "1.97"
    # @param number [Numeric] 0 or more
    def self.at_most(number)
      text = short(number)
      return text if number.zero? || text.to_f >= number * (1 - 1e-12)

      short(number + (10.0**-[2 - Math.log10(number).floor, 0].max))
    end

    # A typed text as it is meant: a bare number takes the unit of the text that stood there.
    # @example
    #   Units.as_shown("2", "1.2 kHz") #=> "2 kHz"
    # @return [String]
    def self.as_shown(text, shown)
      unit = shown[/\A\s*#{NUMBER}\s*([a-zA-Z%]+)\s*\z/o, 1]
      unit && /\A\s*#{NUMBER}\s*\z/o.match?(text) ? "#{text.strip} #{unit}" : text
    end

    # A number with one of several suffixes, each with its factor.
    class Suffixed
      attr_reader :word, :engine_factor

      # @param word [String] the unit's name for programs
      # @param suffixes [Hash{String=>Numeric}] factor by suffix; the one that fits a size is picked by `threshold`
      def initialize(word, suffixes, aliases: {}, engine_factor: 1.0, signed: false)
        @word = word
        @suffixes = suffixes
        @aliases = aliases
        @engine_factor = engine_factor
        @signed = signed
        freeze
      end

      # @example
      #   HERTZ.text(1200) #=> "1.2 kHz"
      def text(natural)
        suffix, factor = @suffixes.find { |_, f| natural.abs >= f * 0.9995 } || @suffixes.to_a.last
        sign = @signed && natural.positive? ? "+" : ""
        "#{sign}#{Units.short(natural / factor)}#{' ' unless suffix.empty?}#{suffix}"
      end

      # @example
      #   HERTZ.parse("1.2 kHz") #=> 1200.0
      # @return [Float, nil] the natural value, nil when the text is not in this unit
      def parse(text)
        match = /\A\s*(#{NUMBER})\s*(\S*)\s*\z/.match(text) or return
        factor = factor_of(match[2]) or return
        match[1].to_f * factor
      end

      private

      def factor_of(suffix)
        return @aliases[""] || 1.0 if suffix.empty?

        known = @suffixes.merge(@aliases)
        known[suffix] || known.find { |key, _| key.casecmp?(suffix) }&.last
      end
    end

    # Decibels; silence is written -inf.
    #
    # @example
    #   Decibels.new.text(-6) #=> "-6.0 dB"
    #   Decibels.new.parse("-inf") #=> -Float::INFINITY
    class Decibels
      def word = "dB"
      def engine_factor = 1.0

      def text(natural)
        return "-inf dB" if natural == -Float::INFINITY

        rounded = natural.round(1)
        rounded = 0.0 if rounded.zero?
        "#{'+' if rounded.positive?}#{format('%.1f', rounded)} dB"
      end

      def parse(text)
        return -Float::INFINITY if /\A\s*-\s*(inf|infinity|∞)\s*(db)?\s*\z/i.match?(text)

        match = /\A\s*(#{NUMBER})\s*(db)?\s*\z/i.match(text)
        match && match[1].to_f
      end
    end

    # Left and right: L30, C, R100. Natural values run from -100 to 100.
    #
    # @example
    #   Sides.new.text(-50) #=> "L50"
    class Sides
      def word = "L/R"
      def engine_factor = 0.01

      def text(natural)
        share = natural.round
        return "C" if share.zero?

        "#{share.negative? ? 'L' : 'R'}#{share.abs}"
      end

      def parse(text)
        return 0.0 if /\A\s*(c|center|centre)\s*\z/i.match?(text)

        if (match = /\A\s*([lr])\s*(\d+\.?\d*)\s*%?\s*\z/i.match(text))
          return match[2].to_f * (match[1].casecmp?("l") ? -1 : 1)
        end

        match = /\A\s*(#{NUMBER})\s*\z/.match(text)
        match && match[1].to_f
      end
    end

    # One of a list of words; the natural value is its place, counted from 0.
    class Words
      attr_reader :words

      def initialize(words)
        @words = words.freeze
        freeze
      end

      def word = "choice"
      def engine_factor = 1.0
      def text(natural) = words.fetch(natural.round)

      def parse(text)
        place = words.index { |entry| entry.casecmp?(text.strip) }
        place&.to_f
      end
    end

    # Notes by name, A4 being note 69, as the MIDI Tuning Standard counts them; sharps are written #, flats b are read.
    class NoteNames
      NAMES = %w[C C# D D# E F F# G G# A A# B].freeze
      STEPS = { "c" => 0, "d" => 2, "e" => 4, "f" => 5, "g" => 7, "a" => 9, "b" => 11 }.freeze

      def word = "note"
      def engine_factor = 1.0
      def text(natural) = natural.round.divmod(12).then { |octave, step| "#{NAMES[step]}#{octave - 1}" }

      def parse(text)
        match = /\A\s*([a-g])([#b]?)(-?\d)\s*\z/i.match(text) or return (Float(text) if /\A\s*\d+\s*\z/.match?(text))
        raised = { "#" => 1, "b" => -1 }.fetch(match[2].downcase, 0)
        (STEPS.fetch(match[1].downcase) + raised + ((match[3].to_i + 1) * 12)).to_f
      end
    end

    # How often something comes round, written as how long it takes: "1/8", "2 bars". Natural values are times a
    # quarter note; bars have four of them.
    class CycleLengths
      def word = "cycles"
      def engine_factor = 1.0

      def text(natural)
        ticks = Timing::PPQ / natural
        Timing::NoteLengths.text((ticks - ticks.round).abs < 1e-6 ? ticks.round : ticks)
      end

      def parse(text)
        Timing::PPQ / Timing::NoteLengths.parse(text).to_f
      rescue InvalidInput
        nil
      end
    end

    HERTZ = Suffixed.new("Hz", { "kHz" => 1000.0, "Hz" => 1.0 }, aliases: { "k" => 1000.0 })
    SECONDS = Suffixed.new("s", { "s" => 1.0, "ms" => 0.001 }, aliases: { "sec" => 1.0 })
    PERCENT = Suffixed.new("%", { "%" => 1.0 }, engine_factor: 0.01)
    SIGNED_PERCENT = Suffixed.new("%", { "%" => 1.0 }, engine_factor: 0.01, signed: true)
    SEMITONES = Suffixed.new("st", { "st" => 1.0 }, aliases: { "semitones" => 1.0, "semitone" => 1.0 }, signed: true)
    CENTS = Suffixed.new("ct", { "ct" => 1.0 }, aliases: { "cents" => 1.0 }, signed: true)
    BPM = Suffixed.new("BPM", { "BPM" => 1.0 })
    PLAIN = Suffixed.new("", { "" => 1.0 })
    CYCLES = CycleLengths.new.freeze
    NOTES = NoteNames.new.freeze
    DECIBELS = Decibels.new.freeze
    SIDES = Sides.new.freeze
    ON_OFF = Words.new(%w[off on])
  end
end
