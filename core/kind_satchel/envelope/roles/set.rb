# frozen_string_literal: true

module KindSatchel
  module Roles
    # Replaces what came before.
    module Set
      module_function

      def id = "set"
      def verb = "sets"
      def rank = 0
      def values = 0..1
      def neutral = nil
      def straight?(_scale) = true
      def apply(_scale, _before, amount) = amount
      def amount(_scale, _before, wanted) = wanted
      def amount_text(scale, amount) = scale.text(amount)
      def parse(scale, text) = scale.parse(text)
    end
  end
end
