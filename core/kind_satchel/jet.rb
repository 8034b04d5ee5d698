# frozen_string_literal: true

module KindSatchel
  # What is known of a curve over a stretch: it stays between `low` and `high`, its first derivative within +-`slope`,
  # its second within +-`bend`. Sums, products and roots of curves are known as well: interval arithmetic with the
  # sum, product and chain rules.
  #
  # @example
  #   (Jet.level(2.0) + Jet.new(0.0, 1.0, 0.5, 0.0)).high #=> 3.0
  class Jet
    attr_reader :low, :high, :slope, :bend

    # @return [Jet] of a value that does not move
    def self.level(value) = new(value, value, 0.0, 0.0)

    def initialize(low, high, slope, bend)
      @low = low
      @high = high
      @slope = slope
      @bend = bend
    end

    # The most the value can be away from zero.
    def size = [@low.abs, @high.abs].max

    # How far the chord over a stretch of this width can stray from the curve.
    def stray(width)
      range = @high - @low
      bent = width * width * @bend / 8
      [bent, range].min # a bend without bound compares as not less
    end

    # @return [Jet] of the sum
    def +(other) = Jet.new(@low + other.low, @high + other.high, @slope + other.slope, @bend + other.bend)

    # @return [Jet] of the product (Leibniz' rule, each factor at its most)
    def *(other)
      low, high = [@low * other.low, @low * other.high, @high * other.low, @high * other.high].minmax
      mine, theirs = size, other.size
      Jet.new(low, high, product(@slope, theirs) + product(mine, other.slope),
              product(@bend, theirs) + (2 * product(@slope, other.slope)) + product(mine, other.bend))
    end

    # @return [Jet] of the square root
    def root
      low, high = Math.sqrt([@low, 0.0].max), Math.sqrt([@high, 0.0].max)
      return Jet.new(low, high, *(@slope.zero? ? [0.0, 0.0] : [Float::INFINITY, Float::INFINITY])) if low.zero?

      Jet.new(low, high, @slope / (2 * low), (@bend / (2 * low)) + (@slope * @slope / (4 * (low**3))))
    end

    # e to the power of `factor` times the curve.
    def power(factor)
      low, high = [Math.exp(factor * @low), Math.exp(factor * @high)].minmax
      Jet.new(low, high, factor.abs * @slope * high,
              ((factor.abs * @bend) + (factor * factor * @slope * @slope)) * high)
    end

    private

    # Nothing times no bound is nothing.
    def product(a, b) = a.zero? || b.zero? ? 0.0 : a * b
  end
end
