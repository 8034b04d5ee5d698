# frozen_string_literal: true

module KindSatchel
  # Breaks a curve into few chords, each of which is known to stay within a tolerance: the caller gives an upper bound
  # of how far a chord can stray, never a guess from samples.
  #
  # A chord over a stretch of width h strays by at most h^2/8 times the largest second derivative in it (the error of
  # linear interpolation), and never by more than the curve's rise there.
  module Chords
    # Chords are never made shorter than this share of the whole stretch.
    SHORTEST = 2.0**-44
    # How often a chord that holds is made longer.
    GROWTHS = 4

    module_function

    # From the left, each chord nearly as long as it can be.
    # @param tolerance [Float] above 0
    # @yieldparam start [Numeric]
    # @yieldparam finish [Numeric]
    # @yieldreturn [Float] an upper bound of how far the chord from `start` to `finish` strays
    # @return [Array<Float>] places strictly between `from` and `to`
    def breaks(from, to, tolerance, &)
      list = []
      at, width, shortest = from, to - from, (to - from) * SHORTEST
      while at < to
        width = longest(at, [width * 2, to - at].min.to_f, to - at, tolerance, shortest, &)
        at += width
        list << at if at < to
      end
      list
    end

    def longest(at, guess, rest, tolerance, shortest, &)
      width, error = fitting(at, guess, tolerance, shortest, &)
      GROWTHS.times do
        factor = growth(error, tolerance)
        break if width >= rest || factor < 1.04

        wider = [width * factor, rest].min
        found = yield(at, at + wider)
        break if found > tolerance

        width, error = wider, found
      end
      width
    end

    # The first width that holds, coming down from a guess.
    def fitting(at, width, tolerance, shortest)
      until (error = yield(at, at + width)) <= tolerance
        return [shortest, error] if width <= shortest

        width *= error.finite? ? (Math.sqrt(tolerance / error) * 0.98).clamp(0.02, 0.9) : 0.5
      end
      [width, error]
    end

    # The error goes with the square of the width.
    def growth(error, tolerance) = error.positive? ? [Math.sqrt(tolerance / error) * 0.98, 2.0].min : 2.0

    private_class_method :longest, :fitting, :growth
  end
end
