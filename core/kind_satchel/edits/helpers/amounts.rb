# frozen_string_literal: true

module KindSatchel
  module Edits
    # Amounts as people write them, added to values in their own unit.
    class Amounts
      # @param text [String] such as "-3 dB", "200 Hz", "10 %"
      # @raise [InvalidInput] for a text that is no amount here, and for choices, which have none
      def self.parse(envelope, scale, text)
        raise InvalidInput.of("set_only", "/amount", "A switch or choice has no amount to add.") if scale.set_only?

        natural = envelope.role_rules.unit(scale).parse(text)
        return new(envelope.role_rules, scale, natural) if natural&.finite?

        raise InvalidInput.of("bad_value", "/amount",
                              "#{text.inspect} is no amount here; write it like " \
                              "#{envelope.role_rules.unit(scale).text(3.0)}.")
      end

      def initialize(rules, scale, natural)
        @rules = rules
        @scale = scale
        @natural = natural
      end

      # @param share [Numeric] how much of the amount
      # @return [Float] the value with it, not yet limited; silence stays silence
      def added(value, share = 1)
        before = @rules.natural(@scale, value)
        before.infinite? ? value : @rules.from_natural(@scale, before + (@natural * share)).clamp(-2.0, 2.0)
      end
    end
  end
end
