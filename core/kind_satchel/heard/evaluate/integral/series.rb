# frozen_string_literal: true

module KindSatchel
  module Heard
    class Integral
      # A smooth curve over a stretch as a Chebyshev series, and its integral from the start on (Abramowitz and Stegun
      # 22.13; Clenshaw's recurrence, 1955, from memory).
      class Series
        TERMS = 20
        ANGLES = Array.new(TERMS) { |j| Math::PI * (j + 0.5) / TERMS }.freeze
        COSINES = Array.new(TERMS) { |k| ANGLES.map { |angle| Math.cos(k * angle) }.freeze }.freeze

        # @yieldparam tick [Float]
        # @yieldreturn [Float]
        def initialize(from, to)
          @middle, @half = (from + to) / 2.0, (to - from) / 2.0
          values = COSINES[1].map { |place| yield @middle + (@half * place) }
          @last = [TERMS - 2, TERMS - 1].sum { |k| term(k, values).abs } * @half / TERMS
          @values = values
        end

        # What is left out at most, of the integral over the whole stretch, judged by the last terms.
        def rest = @last

        # Worked out only for a series that is used. Of the last terms those are left out that come to nothing beside
        # what is left out anyway.
        def ready
          @terms = Array.new(TERMS) { |k| term(k, @values) }
          @terms[0] /= 2
          @sums = shortened(integrated(@terms))
          @terms = shortened(@terms)
          @values = nil
          self
        end

        # So little, in cycles, over a whole stretch.
        NOTHING = 1e-12

        # So many equal parts are marked.
        PARTS = 16

        # The sums at the ends of equal parts.
        # @return [Array<Float>]
        def marks = @marks ||= ends.map { |tick| sum(tick) }

        # Between which ticks a sum is reached, with a hair of room as marks are rounded, and where the cubic that has
        # the paces of the ends comes to it (Hermite interpolation of the tick by the sum).
        def bracket(wanted)
          place = part_of(wanted)
          low, width = ends[place - 1], 2 * @half / PARTS
          room = width * 1e-6
          [low - room, low + width + room, guess(place, wanted)]
        end

        # Where a sum is reached, by one step from there: so near that nothing is to be seen or heard of the rest,
        # which goes with the square of how far the cubic was off.
        def about(wanted)
          place = part_of(wanted)
          tick = guess(place, wanted)
          low, width = ends[place - 1], 2 * @half / PARTS
          u = (tick - low) / width
          slope = ((1 - u) * @slopes[place - 1]) + (u * @slopes[place])
          (tick - ((sum(tick) - wanted) * slope)).clamp(low, low + width)
        end

        # @return [Array<Float>] ticks between which {sum} is told straight
        def ends = @ends ||= Array.new(PARTS + 1) { |i| @middle + (@half * ((2.0 * i / PARTS) - 1)) }

        # @return [Float] the pace by the series
        def pace(tick) = clenshaw(@terms, tick)

        # @return [Float] what has added up, from the middle on
        def sum(tick) = @half * clenshaw(@sums, tick)

        private

        def part_of(wanted) = (marks.bsearch_index { |sum| sum > wanted } || PARTS).clamp(1, PARTS)

        def guess(place, wanted)
          @slopes ||= ends.map { |tick| 1 / pace(tick) }
          low, width = ends[place - 1], 2 * @half / PARTS
          rise = @marks[place] - @marks[place - 1]
          u = ((wanted - @marks[place - 1]) / rise).clamp(0.0, 1.0)
          rest = 1 - u
          bow = (rest * @slopes[place - 1]) - (u * @slopes[place])
          tick = low + (u * u * (3 - (2 * u)) * width) + (rise * u * rest * bow)
          tick.between?(low, low + width) ? tick : low + (u * width)
        end

        def term(number, values)
          row, sum, j = COSINES[number], 0.0, 0
          while j < TERMS
            sum += row[j] * values[j]
            j += 1
          end
          sum * 2.0 / TERMS
        end

        def shortened(terms)
          rest, size = 0.0, terms.size
          size -= 1 while size > 2 && (rest += terms[size - 1].abs) * @half < NOTHING
          terms.first(size)
        end

        # The integral of T_k is (T_k+1 / (k + 1) - T_k-1 / (k - 1)) / 2; the constant makes it 0 at the start.
        def integrated(terms)
          padded = [2 * terms[0], *terms.drop(1), 0.0, 0.0]
          sums = [0.0, *(1..TERMS).map { |k| (padded[k - 1] - padded[k + 1]) / (2.0 * k) }]
          sums[0] = sums.each_with_index.sum { |term, k| k.even? ? -term : term }
          sums
        end

        def clenshaw(terms, tick)
          double = 2 * ((tick - @middle) / @half)
          one, other, k = 0.0, 0.0, terms.size - 1
          while k.positive?
            one, other, k = terms[k] + (double * one) - other, one, k - 1
          end
          terms[0] + (double / 2 * one) - other
        end
      end
    end
  end
end
