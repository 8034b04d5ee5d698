# frozen_string_literal: true

module KindSatchel
  module Roles
    # Multiplies about the parameter's origin; for gains, the amplitude.
    #
    # @example
    #   Scale.apply(Scales::Linear.new(low: 0, high: 100, unit: Units::PERCENT), 0.5, 0.5) #=> 0.25
    module Scale
      module_function

      def id = "scale"
      def verb = "scales to"
      def values = 0..1
      def neutral = 1.0
      def apply(scale, before, amount) = scale.scaled(before, amount)

      # The share that makes `wanted` of `before`; 1 where no share can.
      def amount(scale, before, wanted)
        reach = before - scale.origin
        return neutral if reach.abs < 1e-12

        share = (wanted - scale.origin) / reach
        scale.gain? ? share * share : share
      end

      def unit(_scale) = Units::PERCENT
      def natural(_scale, amount) = amount * 100.0
      def from_natural(_scale, natural) = natural / 100.0
      def amount_text(_scale, amount) = Units::PERCENT.text(amount * 100)

      def parse(_scale, text)
        percent = Units::PERCENT.parse(text) or
          raise InvalidInput.of("bad_value", "", "#{text.inspect} is not a share; write it like 50 %.")
        return percent / 100 if percent.between?(0, 100)

        raise InvalidInput.of("out_of_range", "", "#{text.strip} lies outside 0 % to 100 %.")
      end
    end
  end
end
