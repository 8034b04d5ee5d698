# frozen_string_literal: true

module KindSatchel
  # A corner of an envelope: its tick, its normalised value and the shape of the segment that leaves it. Two points on
  # one tick are a jump.
  #
  # Values are kept to {DECIMALS} decimals, rounded here and nowhere else, so that turning them over or moving them
  # there and back comes to the same to the byte; zero has no sign.
  #
  # Envelopes hold very many, so this value is made by hand: without a hash for its fields.
  #
  # @example
  #   Point.new(tick: 480, value: 0.5, shape: Shapes::Straight::PLAIN).value #=> 0.5
  class Point < Struct.new(:tick, :value, :shape)
    include Value

    DECIMALS = 12

    def initialize(tick:, value:, shape:)
      value = value.to_f.round(DECIMALS) + 0.0 if value.is_a?(Numeric)
      self.tick = tick
      self.value = value
      self.shape = shape
      unless value.is_a?(Float) && value >= -1.0 && value <= 1.0 &&
             tick.is_a?(Integer) && tick >= 0 && tick <= Timing::LAST_TICK
        check
      end
      freeze
    end

    def check
      whole!("/tick", tick)
      number!("/value", value, -1..1)
    end

    def with(tick: self.tick, value: self.value, shape: self.shape) = Point.new(tick:, value:, shape:)
  end
end
