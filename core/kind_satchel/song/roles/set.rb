# frozen_string_literal: true

module KindSatchel
  module Roles
    # Replaces what came before.
    #
    # @example
    #   Set.apply(nil, 0.5, 0.25) #=> 0.25
    module Set
      module_function

      def id = "set"
      def verb = "sets"
      def values = 0..1
      def neutral = nil
      def apply(_scale, _before, amount) = amount
      def amount(_scale, _before, wanted) = wanted
      def amount_text(scale, amount) = scale.text(amount)
      def unit(scale) = scale.unit
      def natural(scale, amount) = scale.natural(amount)
      def from_natural(scale, natural) = scale.normalised(natural)

      # A share of the travel is understood for every parameter: 50 %.
      def parse(scale, text)
        share = scale.unit == Units::PERCENT || scale.set_only? ? nil : text[/\A\s*(\d+\.?\d*|\.\d+)\s*%\s*\z/, 1]
        return scale.parse(text) unless share
        return share.to_f / 100 if share.to_f <= 100

        raise InvalidInput.of("out_of_range", "", "#{text.strip} lies outside 0 % to 100 % of the travel.")
      end
    end
  end
end
