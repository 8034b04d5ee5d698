# frozen_string_literal: true

module KindSatchel
  module Roles
    # Adds: for gains -24..+24 dB, for the rest a share of the knob's travel.
    #
    # @example
    #   Shift.apply(Scales::Linear.new(low: 0, high: 100, unit: Units::PERCENT), 0.5, 0.25) #=> 0.75
    module Shift
      module_function

      def id = "shift"
      def verb = "shifts"
      def values = -1..1
      def neutral = 0.0
      def apply(scale, before, amount) = scale.shifted(before, amount)

      # The shift that makes `wanted` of `before`; for gains silence takes the largest cut.
      def amount(scale, before, wanted)
        return wanted - before unless scale.gain?
        return neutral if before.zero?

        wanted.zero? ? -1.0 : 40 * Math.log10(wanted / before) / Scales::Fader::SHIFT_DECIBELS
      end

      def unit(scale) = full_shift(scale)[0]
      def natural(scale, amount) = amount * full_shift(scale)[1]
      def from_natural(scale, natural) = natural / full_shift(scale)[1]

      def amount_text(scale, amount)
        unit, full = full_shift(scale)
        unit.text(amount * full)
      end

      def parse(scale, text)
        unit, full = full_shift(scale)
        natural = unit.parse(text) or
          raise InvalidInput.of("bad_value", "",
                                "#{text.inspect} is not a shift; write it like #{unit.text(full / 4)}.")
        return natural / full if natural.finite? && (natural / full).between?(-1, 1)

        raise InvalidInput.of("out_of_range", "",
                              "#{text.strip} lies outside #{unit.text(-full)} to #{unit.text(full)}.")
      end

      # What a shift of 1 is worth, and its unit.
      def full_shift(scale)
        scale.gain? ? [Units::DECIBELS, Scales::Fader::SHIFT_DECIBELS] : [Units::SIGNED_PERCENT, 100.0]
      end
    end
  end
end
