# frozen_string_literal: true

module KindSatchel
  module Scales
    # Volumes and sends: gain = peak n^2, in decibels 20 log10(peak) + 40 log10(n); n = 0 is silence.
    #
    # Source: the volume law the MIDI Manufacturers Association recommends for controller 7, 40 log10(n).
    #
    # @example
    #   Fader.new(peak: 6).text(0.5) #=> "+3.5 dB"
    class Fader < Value.of(:peak)
      include Scale

      NONE = [].freeze

      # What a shift of 1 adds, in decibels.
      SHIFT_DECIBELS = 24.0
      SHIFT_POWER = SHIFT_DECIBELS / 40 * Math.log(10)

      def unit = Units::DECIBELS
      def gain? = true
      def engine(value) = peak * value * value
      def natural(value) = value.positive? ? (20 * Math.log10(peak)) + (40 * Math.log10(value)) : -Float::INFINITY
      def normalised(decibels) = 10**((decibels - (20 * Math.log10(peak))) / 40.0)

      # The amplitude is multiplied, so half is -6.02 dB. At the foot of a curve a share may be a rounding below 0.
      def scaled(value, share) = share.positive? ? value * Math.sqrt(share) : 0.0
      def scaled_jet(value, share) = value * share.root

      # Decibels add, so the amplitude is multiplied: 10^(dB/20) of it, 10^(dB/40) of the knob's travel.
      def shifted(value, amount) = value * Math.exp(amount * SHIFT_POWER)
      def shifted_jet(value, amount) = value * amount.power(SHIFT_POWER)

      def linear? = false

      # A straight ramp in amplitude from n = a to n = b strays from the straight stretch in n by
      # (b - a)^2 / (4 (a + b)); solved for b that gives the farthest b.
      def breaks(from, to, tolerance)
        low = [from, to].min
        high = [from, to].max - 1e-12
        at = farthest(low, tolerance)
        return NONE unless at < high

        list = []
        while at < high
          list << at
          at = farthest(at, tolerance)
        end
        from <= to ? list : list.reverse!
      end

      def examples = "-6 dB or -inf"

      private

      def farthest(from, tolerance) = from + (2 * tolerance) + Math.sqrt(4 * tolerance * (tolerance + (2 * from)))
    end
  end
end
