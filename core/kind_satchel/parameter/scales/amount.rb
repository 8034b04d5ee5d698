# frozen_string_literal: true

module KindSatchel
  module Scales
    # The amounts that an envelope of one role may hold for one parameter: what its limits run over. Written and read
    # as the amounts are: in the parameter's unit, as a share, or as a shift.
    #
    # `rules` are those of the role (see {Roles}), `scale` is that of the parameter.
    class Amount < Value.of(:rules, :scale)
      include Scale

      def check
        @low, @high = rules.values.min.to_f, rules.values.max.to_f
      end

      # What shifts rests in the middle.
      def origin = @low.negative? ? 0.5 : 0.0
      def natural(value) = @low + (value * (@high - @low))
      def normalised(natural) = (natural - @low) / (@high - @low)
      def engine(value) = natural(value)
      def text(value) = rules.amount_text(scale, natural(heard(value)))
      def parse(text) = normalised(rules.parse(scale, text))
      def unit = Units::PLAIN
      def to_record = { "scale" => id, "unit" => unit.word, "low" => @low, "high" => @high }
    end
  end
end
