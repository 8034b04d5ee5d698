# frozen_string_literal: true

module KindSatchel
  module HandOver
    # What one parameter loses on its way out. `points` is how many it has afterwards, nil where it goes as it is;
    # `largest` and `mean` are differences in its own unit, on ticks and between (see {Meter}); `tick` is where the
    # largest is; `why` says what else is to be known.
    class Loss < Value.of(:address, :points, :largest, :mean, :tick, :why)
      # What is softer than this counts as silence, in dB.
      SILENCE_DB = -60.0

      # Whether it does not go along at all, so that there is nothing to be off.
      def left_out? = why.to_s.start_with?(LEFT_OUT)
      LEFT_OUT = "left out"

      # @param song [Song]
      # @return [Hash] plain data, with numbers in words
      def to_record(song)
        scale = song.parameter(address).scale
        { "address" => address.to_s, "name" => song.full_name(address), "points" => points,
          "largest" => largest.round(6), "mean" => mean.round(6), "unit" => scale.unit.word,
          "largest_text" => text(scale, largest) { |number| Units.at_most(number) },
          "mean_text" => text(scale, mean), "tick" => tick, "position" => song.meters.text(tick), "why" => why,
          "left_out" => left_out? || nil }.compact
      end

      private

      # A difference in a unit: 3.2 dB, L/R 12. The largest is told as a bound.
      def text(scale, difference, &told)
        return "none" if difference.round(6).zero?

        told ||= ->(number) { Units.short(number) }
        number = difference < 0.01 ? "less than 0.01" : told.call(difference)
        scale.unit == Units::SIDES ? "L/R #{number}" : "#{number} #{scale.unit.word}".strip
      end
    end
  end
end
