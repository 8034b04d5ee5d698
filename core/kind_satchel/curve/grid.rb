# frozen_string_literal: true

module KindSatchel
  # Grids on which sums and differences lose nothing, so that turning something over twice comes back to the same.
  module Grid
    PHASE = 2.0**50
    TICK = 65_536.0

    module_function

    # @example
    #   Grid.turn(3.25) #=> 0.25
    # @param number [Numeric] turns
    # @return [Float] what is left of whole turns, 0 up to 1, on a grid of 2**-50
    def turn(number) = ((((number % 1) * PHASE).round / PHASE) % 1) + 0.0

    # @param number [Numeric] 0..1
    # @return [Float] on a grid of 2**-50
    def share(number) = (number * PHASE).round / PHASE

    # Places between ticks are kept so coarse that adding whole ticks to them loses nothing: a region sounds the same
    # wherever it is put.
    # @param ticks [Numeric]
    # @return [Numeric] on a grid of 1/65536 tick; an Integer where it is whole
    def ticks(ticks)
      return ticks if ticks.is_a?(Integer)

      parts = (ticks * TICK).round
      parts.nobits?(65_535) ? parts >> 16 : parts / TICK
    end
  end
end
