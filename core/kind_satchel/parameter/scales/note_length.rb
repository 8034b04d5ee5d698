# frozen_string_literal: true

module KindSatchel
  module Scales
    # The length of a note, from a sixty-fourth to a whole one, with triplets and dotted ones between. A sound engine
    # takes quarter notes.
    class NoteLength < Steps
      # Words and ticks, from short to long: a triplet is two thirds, a dotted note one and a half.
      LENGTHS = {
        "1/64" => 60, "1/32 triplet" => 80, "1/32" => 120, "1/16 triplet" => 160, "1/16" => 240, "1/8 triplet" => 320,
        "1/16 dotted" => 360,
        "1/8" => 480, "1/4 triplet" => 640, "1/8 dotted" => 720, "1/4" => 960, "1/2 triplet" => 1280,
        "1/4 dotted" => 1440, "1/2" => 1920,
        "1/2 dotted" => 2880, "1/1" => 3840
      }.freeze
      TICKS = LENGTHS.values.freeze
      # All of them are whole multiples of this.
      COMMON_TICKS = TICKS.reduce(:gcd)

      # @return [NoteLength] of all lengths there are
      def self.all = new(low: 0, high: LENGTHS.size - 1, unit: Units::Words.new(LENGTHS.keys))

      # @param value [Float] normalised
      # @return [Integer]
      def ticks(value) = TICKS.fetch(step(value))

      def engine(value) = ticks(value).fdiv(Timing::PPQ)

      # They have an order, so they can be shifted and scaled too.
      def set_only? = false
    end
  end
end
