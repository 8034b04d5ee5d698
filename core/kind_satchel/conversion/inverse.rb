# frozen_string_literal: true

module KindSatchel
  module Conversion
    # What one envelope must give so that a value is heard: the roles turned round, over what acts beneath it.
    class Inverse
      # @param scale [Scales::Scale] of the parameter
      # @param role [String] of the envelope
      def initialize(scale, role)
        @scale = scale
        @role = role
        @rules = Roles::ALL.fetch(role)
        @least, @most = @rules.values.minmax.map(&:to_f)
      end

      # @param set [Float] what is set beneath, normalised
      # @param scales [Float] all that scales beneath, as one factor
      # @param shifts [Float] all that shifts beneath, as one amount
      # @param wanted [Float] what is to be heard, normalised
      # @return [Float] the amount, which may lie outside what the role holds; one that changes nothing where none can
      def amount(set, scales, shifts, wanted)
        unshifted = @scale.shifted(wanted, -shifts)
        case @role
        when "shift" then @rules.amount(@scale, @scale.shifted(@scale.scaled(set, scales), shifts), wanted)
        when "scale" then scales.zero? ? 1.0 : @rules.amount(@scale, set, unscaled(unshifted, scales))
        else scales.zero? ? unshifted : unscaled(unshifted, scales)
        end
      end

      # What is heard of an amount, normalised, not limited.
      # @param set [Float] as {#amount} takes it, like the others
      def heard(set, scales, shifts, amount)
        value = @role == "set" ? amount : set
        value = @scale.scaled(value, amount) if @role == "scale"
        value = @scale.scaled(value, scales) unless scales == 1
        @scale.shifted(value, @role == "shift" ? shifts + amount : shifts)
      end

      # Whether no amount changes what is heard: scaled from its origin, or a gain at silence, or all of it scaled away.
      def idle?(set, scales, _shifts)
        return true if scales.zero? && @role != "shift"
        return false if @role == "set"

        (@role == "scale" || @scale.gain?) && (@scale.scaled(set, scales) - @scale.origin).abs < NONE
      end
      NONE = 1e-9

      # The nearest amount that the role holds.
      def limited(amount) = amount.clamp(@least, @most)

      private

      def unscaled(value, scales)
        @scale.gain? ? value / Math.sqrt(scales) : @scale.origin + ((value - @scale.origin) / scales)
      end
    end
  end
end
