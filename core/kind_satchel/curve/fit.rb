# frozen_string_literal: true

module KindSatchel
  # Breaks any smooth curve into few chords. Used where no closed form is at hand: several shapes at once.
  module Fit
    CHECKS = [0.5, 0.25, 0.75, 0.125, 0.375, 0.625, 0.875, 0.0625, 0.9375].freeze
    # The checks stand so close that between them a smooth curve strays at most this much further.
    MARGIN = 0.95
    # How often the search for the longest chord halves what is open.
    REFINEMENTS = 4
    # Chords are never made shorter than this share of the whole stretch.
    SHORTEST = 1.0 / 4096

    module_function

    # From the left, each chord nearly as long as it can be; the search starts from the length of the one before.
    # @yieldparam tick [Float] yields the curve's value at a tick
    # @return [Array<Float>] ticks strictly between `from` and `to`
    def breaks(from, to, tolerance, &curve)
      list = []
      at = from
      length = to - from
      shortest = length * SHORTEST
      until at >= to
        length = longest(at, to, [length, to - at].min, shortest, ->(finish) { holds?(at, finish, tolerance * MARGIN, curve) })
        at += length
        list << at
      end
      list[0..-2]
    end

    # Doubles or halves a first guess until the bound lies between two lengths, then closes in on it.
    def longest(from, to, guess, shortest, holds)
      good, bad = 0.0, nil
      until bad && (good.positive? || bad <= shortest)
        holds.call(from + guess) ? good = guess : bad = guess
        return good if good >= to - from
        break if bad && good.positive?

        guess = bad ? guess / 2.0 : [guess * 2, to - from].min
      end
      REFINEMENTS.times { holds.call(from + ((good + bad) / 2)) ? good = (good + bad) / 2 : bad = (good + bad) / 2 }
      [good, shortest].max
    end

    def holds?(from, to, tolerance, curve)
      a, b = curve.call(from), curve.call(to)
      CHECKS.all? { |u| (curve.call(from + ((to - from) * u)) - a - ((b - a) * u)).abs <= tolerance }
    end

    private_class_method :longest, :holds?
  end
end
