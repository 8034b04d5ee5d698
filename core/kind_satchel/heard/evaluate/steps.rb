# frozen_string_literal: true

module KindSatchel
  module Heard
    # Where a parameter that has steps takes each of them: found between corners of a fine chain, then halved down to
    # the place.
    module Steps
      # How much finer than a step the chain is.
      SHARE = 0.001
      HALVINGS = 40

      module_function

      # @param piece [Piece] of a parameter with steps
      # @return [Array<Array(Numeric, Numeric, Float)>] from, to and value of each step, in order, without gaps
      def of(piece)
        starts = [[piece.from, piece.at(piece.from)]]
        unless piece.still?
          ticks = [piece.from, *piece.breaks(SHARE / piece.scale.steps), piece.to]
          ticks.each_cons(2) { |from, to| starts.concat(between(piece, from, to)) }
        end
        ends = [*starts.drop(1).map(&:first), piece.to]
        starts.zip(ends).map { |(from, value), to| [from, to, value] }
      end

      def between(piece, from, to)
        steps = piece.scale.steps
        a, b = [from, to].map { |tick| piece.raw(tick).clamp(0.0, 1.0) * steps }
        thresholds(a, b).map do |threshold|
          tick = halve(piece, (threshold / steps) - Scales::Scale::EDGE, from, to, b > a)
          [tick, (b > a ? threshold + 0.5 : threshold - 0.5) / steps]
        end
      end

      def thresholds(from, to)
        low, high = [from, to].minmax
        list = ((low - 0.5).floor..(high - 0.5).ceil).map { |i| i + 0.5 }.select { |t| t > low && t <= high }
        to > from ? list : list.reverse
      end

      def halve(piece, threshold, from, to, rising)
        HALVINGS.times do
          middle = (from + to) / 2.0
          (piece.raw(middle) >= threshold) == rising ? to = middle : from = middle
        end
        to
      end
      private_class_method :between, :thresholds, :halve
    end
  end
end
