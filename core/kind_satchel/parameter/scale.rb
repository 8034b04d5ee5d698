# frozen_string_literal: true

module KindSatchel
  module Scales
    # What every scale does: a frozen value with a `unit`, and the two maps between the travel of a knob, 0..1, and
    # what is meant by it. On top of what stands here each answers
    #
    # - `natural(value)` the value in the unit, `normalised(natural)` the way back, not limited
    # - `engine(value)` what a sound engine takes; `heard(value)` what can be heard of it, limited and stepped
    # - `steps` how many it has, nil for none; `origin` the value that a scaling leaves where it is
    # - `text(value)` in its unit, as people read it, `parse(text)` back, nil where it cannot be read
    # - `examples` values worth telling in a list of parameters; `to_record` the scale as plain data, with its `id`
    # - `scaled_jet(value, share)`, `shifted_jet(value, amount)` what is known of the sum (see {Jet})
    # - `ramp(tolerance)`, whose `line(list, start, from, finish, to)` makes lines of travel ramps of the engine's unit
    module Scale
      # What lies so little below the edge of a step stands on it: sums that were taken apart and put together again
      # flip at the same tick.
      EDGE = 1e-11

      # The normalised value that a scaling leaves where it is.
      def origin = 0.0

      # The natural value a sound engine takes (shares as 0..1, gains as amplitude).
      def engine(value) = natural(value) * unit.engine_factor

      # @param share [Float] 0..1
      # @return [Float] the normalised value moved towards the origin; not yet limited
      def scaled(value, share) = origin + ((value - origin) * share)

      # @return [Jet] the same of what is known of the value and the share
      def scaled_jet(value, share) = Jet.level(origin) + ((value + Jet.level(-origin)) * share)

      # @param amount [Float] -1..1, that share of the knob's travel
      def shifted(value, amount) = value + amount

      # @return [Jet]
      def shifted_jet(value, amount) = value + amount

      # Scalings and shifts of a gain multiply; of everything else they add up straight.
      def gain? = false

      # Straight in the knob's travel is straight in the engine's unit.
      def linear? = true

      # Switches and choices can only be set.
      def set_only? = false

      # @return [Integer, nil] how many steps the travel has; nil when it has none
      def steps = nil

      # What can be heard of a normalised value: limited to 0..1, then stepped.
      def heard(value) = value.clamp(0.0, 1.0)

      # Where a straight stretch from `from` to `to` (normalised) must be broken so that straight ramps in the
      # engine's unit stay within `tolerance` of it, measured as a share of the knob's travel.
      # @return [Array<Float>] normalised values strictly between, in order of travel
      def breaks(_from, _to, _tolerance) = []

      # What turns lines of travel into ramps in the engine's unit. It answers `line(list, start, from, finish, to)`,
      # which appends to a flat list of place, engine value, ..., whose last corner is that of `start` and `from`, all
      # corners up to `finish` and `to`; places are ticks or seconds.
      # @param tolerance [Float] how far the ramps may stray, as a share of the travel
      def ramp(tolerance) = Ramp.new(self, tolerance)

      # Lines as ramps, broken where {Scale#breaks} says.
      class Ramp
        def initialize(scale, tolerance)
          @scale = scale
          @tolerance = tolerance
          @plain = scale.linear?
        end

        def line(list, start, from, finish, to)
          pace = (finish - start) / (to - from) unless @plain || from == to
          if pace
            @scale.breaks(from, to, @tolerance).each do |value|
              list << (start + (pace * (value - from))) << @scale.engine(value)
            end
          end
          list << finish << @scale.engine(to)
        end
      end

      def text(value) = unit.text(natural(heard(value)))

      # @return [Float] normalised
      # @raise [InvalidInput] when the text is no value in this unit, or lies outside the range
      def parse(text)
        natural = unit.parse(text.to_s)
        unless natural
          raise InvalidInput.of("bad_value", "",
                                "#{text.inspect} is not a value here; write it like #{examples}.")
        end

        value = normalised(natural)
        return value.clamp(0.0, 1.0) if value.between?(-1e-9, 1 + 1e-9)

        raise InvalidInput.of("out_of_range", "", "#{text.strip} lies outside #{self.text(0.0)} to #{self.text(1.0)}.")
      end

      def examples = "#{text(origin.zero? ? 0.3 : 0.35)} or #{text(0.75)}"

      def id = Scales::ALL.id_of(self.class)

      def to_record = { "scale" => id, "unit" => unit.word, "low" => natural(0.0), "high" => natural(1.0) }
    end
  end
end
