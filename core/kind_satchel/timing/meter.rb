# frozen_string_literal: true

module KindSatchel
  module Timing
    # A time signature: `beats` to the bar, each a 1/`unit` note.
    #
    # @example
    #   Meter.new(beats: 4, unit: 4).text(0)          #=> "1.1.0"
    #   Meter.new(beats: 4, unit: 4).parse("5.3")     #=> 17280
    class Meter < Value.of(:beats, :unit)
      UNITS = [1, 2, 4, 8, 16, 32].freeze

      def check
        whole!("/beats", beats, 1)
        fault!("out_of_range", "/beats", "A bar has at most 64 beats, not #{beats}.") if beats > 64
        return if UNITS.include?(unit)

        fault!("out_of_range", "/unit",
               "A beat is a 1/#{UNITS.join(', 1/')} note, not #{unit.inspect}.")
      end

      # @return [Integer]
      def beat_ticks = PPQ * 4 / unit

      # @return [Integer]
      def bar_ticks = beat_ticks * beats

      # @param tick [Integer] ticks from where the signature begins
      # @param bar [Integer] the bar it begins with
      # @return [String] bar.beat.tick, beats counted from 1
      def text(tick, bar: 1)
        bars, rest = tick.divmod(bar_ticks)
        beat, ticks = rest.divmod(beat_ticks)
        "#{bar + bars}.#{beat + 1}.#{ticks}"
      end

      # @param ticks [Integer] a length
      # @return [String] "2 bars", "1 bar 3 beats", "120 ticks"
      def span_text(ticks)
        bars, rest = ticks.divmod(bar_ticks)
        beats, left = rest.divmod(beat_ticks)
        parts = { "bar" => bars, "beat" => beats, "tick" => left }.reject { |_, count| count.zero? }
        parts.empty? ? "0 ticks" : parts.map { |word, count| "#{count} #{word}#{'s' unless count == 1}" }.join(" ")
      end

      # @param text [String] "5", "5.3" or "5.3.120"
      # @param bar [Integer] the bar the signature begins with
      # @return [Integer] ticks from where the signature begins
      # @raise [InvalidInput] when the text is no position in this meter
      def parse(text, bar: 1)
        match = /\A\s*(\d{1,6})(?:\.(\d{1,3}))?(?:\.(\d{1,5}))?\s*\z/.match(text)
        unless match
          fault!("bad_position", "",
                 "#{text.inspect} is not a position; write bar.beat.tick, such as 5.3 or 5.3.120.")
        end
        bars, beat, ticks = match[1].to_i - bar, (match[2] || 1).to_i, match[3].to_i
        unless bars >= 0 && beat.between?(1, beats) && ticks < beat_ticks
          fault!("bad_position", "",
                 "#{text.inspect} lies outside the meter: places count from 1.1, with #{beats} beats of " \
                 "#{beat_ticks} ticks to the bar.")
        end
        (bars * bar_ticks) + ((beat - 1) * beat_ticks) + ticks
      end
    end
  end
end
