# frozen_string_literal: true

module KindSatchel
  module Heard
    # Curves as line chains: pairs of tick and normalised value, in order; two corners on one tick are a jump.
    module Outline
      # Good for a strip 250 px high.
      FOR_THE_EYE = 0.002

      module_function

      # What is heard, limited and stepped.
      # @param pieces [Array<Piece>]
      # @return [Array<Array(Numeric, Float)>]
      def of_pieces(pieces, tolerance: FOR_THE_EYE)
        chain = Chain.new
        pieces.each { |piece| piece.scale.steps ? stepped(chain, piece, tolerance) : limited(chain, piece, tolerance) }
        chain.corners
      end

      # An envelope by itself, in its own time, from its first point to its last; or the segments that start in from...to.
      def of_envelope(envelope, from: 0, to: Timing::LAST_TICK, tolerance: FOR_THE_EYE)
        chain = Chain.new
        return chain.corners if envelope.points.empty?

        envelope.segment_from(from) do |segment|
          break if segment.start >= to || segment.finish > Timing::LAST_TICK

          chain.add(segment.start, segment.a)
          segment.breaks(segment.start, segment.finish, 1, tolerance).each { |tick| chain.add(tick, segment.at(tick)) }
          chain.add(segment.finish, segment.at(segment.finish))
        end
        last = envelope.points.last
        chain.add(last.tick, envelope.at(last.tick)) if last.tick < to
        chain.corners
      end

      def limited(chain, piece, tolerance)
        if piece.still?
          value = piece.at(piece.from)
          chain.add(piece.from, value)
          return chain.add(piece.to, value)
        end
        corners = raw_corners(piece, tolerance)
        return corners.each { |tick, value| chain.add(tick, value) } if corners.all? { |_, value| value.between?(0.0, 1.0) }

        corners.each_cons(2) do |(t0, v0), (t1, v1)|
          chain.add(t0, v0.clamp(0.0, 1.0))
          crossings(t0, v0, t1, v1).each { |tick, limit| chain.add(tick, limit) }
          chain.add(t1, v1.clamp(0.0, 1.0))
        end
      end

      def raw_corners(piece, tolerance)
        [piece.from, *piece.breaks(tolerance), piece.to].map { |tick| [tick, piece.raw(tick)] }
      end

      # Where a straight stretch meets the limits of the travel.
      def crossings(from, a, to, b)
        [0.0, 1.0].filter_map do |limit|
          [from + ((to - from) * (limit - a) / (b - a)), limit] if (a - limit) * (b - limit) < 0
        end.sort_by(&:first)
      end

      # Every step at its exact place: found between corners of a fine chain, then halved down to it.
      def stepped(chain, piece, tolerance)
        chain.add(piece.from, piece.at(piece.from))
        unless piece.still?
          fine = [tolerance, 0.25 / piece.scale.steps].min
          raw_corners(piece, fine).each_cons(2) { |(t0, _), (t1, _)| steps_between(chain, piece, t0, t1) }
        end
        chain.add(piece.to, chain.corners.last[1])
      end

      def steps_between(chain, piece, from, to)
        steps = piece.scale.steps
        a, b = [from, to].map { |tick| piece.raw(tick).clamp(0.0, 1.0) * steps }
        thresholds(a, b).each do |threshold|
          tick = halve(piece, threshold / steps, from, to, b > a)
          value = (b > a ? threshold + 0.5 : threshold - 0.5) / steps
          chain.add(tick, chain.corners.last[1])
          chain.add(tick, piece.scale.heard(value))
        end
      end

      def thresholds(from, to)
        low, high = [from, to].minmax
        list = ((low - 0.5).floor..(high - 0.5).ceil).map { |i| i + 0.5 }.select { |t| t > low && t <= high }
        to > from ? list : list.reverse
      end

      def halve(piece, threshold, from, to, rising)
        40.times do
          middle = (from + to) / 2.0
          (piece.raw(middle) >= threshold) == rising ? to = middle : from = middle
        end
        to
      end

      private_class_method :limited, :raw_corners, :crossings, :stepped, :steps_between, :thresholds, :halve
    end

    # Gathers corners; leaves out what repeats and what lies on a level line.
    class Chain
      attr_reader :corners

      def initialize = @corners = []

      def add(tick, value)
        last = @corners.last
        return if last && last[0] == tick && last[1] == value

        @corners.pop if last && value == last[1] && @corners.size > 1 && @corners[-2][1] == value
        @corners << [tick, value]
      end
    end
  end
end
