# frozen_string_literal: true

module KindSatchel
  module Perform
    # How far what is heard lies from what a hand did, an upper bound: at its samples, between them, and wherever
    # something else jumps or bends. Points lie on whole ticks of an envelope, and a stretched clock may lay one a
    # tick or two beside; so what lasts no longer than that beside a jump is a matter of time, and not counted.
    module Strayed
      # What lies beside a jump for less is not counted, in ticks.
      NEAR = 3
      JUMP = 1e-3
      # What of the bound may come from not looking closer, and what is never looked at closer, in ticks.
      FINE = 2e-5
      NARROW = 1e-6

      module_function

      # @param pieces [Array<Heard::Piece>] over the stroke, in order, without gaps
      # @param stroke [Stroke]
      # @return [Float] as a share of the travel
      def of(pieces, stroke)
        return held(pieces, stroke) if pieces[0].scale.steps || stroke.held?

        parts(pieces).map { |piece, from| along(piece, from, stroke) }.max || 0.0
      end

      # The pieces that count, each with the tick from which it does: what begins with a jump between two ticks is
      # heard from the next.
      def parts(pieces)
        jumps = [false, *pieces.each_cons(2).map { |one, two| (one.at(one.to) - two.at(two.from)).abs > JUMP }, false]
        pieces.each_with_index.filter_map do |piece, i|
          next if (jumps[i] || jumps[i + 1]) && piece.to - piece.from < NEAR

          from = jumps[i] ? piece.from.ceil : piece.from
          [piece, from] if piece.to > from
        end
      end

      def along(piece, from, stroke)
        [from, *stroke.ticks_within(from, piece.to), piece.to].each_cons(2).map do |start, finish|
          ends = [[start, stroke.at(start)], [finish, stroke.arriving(finish)]]
          bound(piece, *ends, ends.map { |tick, wanted| (piece.at(tick) - wanted).abs })
        end.max
      end

      # Between two places a hand goes straight; what is heard strays from its own chord by what is known of its bend.
      def bound(piece, one, two, apart)
        width = two[0] - one[0]
        stray = piece.still? ? 0.0 : piece.jet(one[0], two[0]).stray(width)
        return apart.max + stray if stray <= FINE || width <= NARROW

        tick = (one[0] + two[0]) / 2.0
        middle = [tick, (one[1] + two[1]) / 2]
        off = (piece.at(tick) - middle[1]).abs
        [bound(piece, one, middle, [apart[0], off]), bound(piece, middle, two, [off, apart[1]])].max
      end

      # Steps: where both stay for long enough.
      def held(pieces, stroke)
        corners = Heard::Outline.of_pieces(pieces).each_slice(2).map(&:first)
        ticks = [*corners, *stroke.ticks].uniq.select { |tick| tick.between?(stroke.from, stroke.to) }.sort
        ticks.each_cons(2).filter_map do |from, to|
          next if to - from < NEAR

          middle = (from + to) / 2.0
          (pieces.bsearch { |piece| piece.to > middle }.at(middle) - stroke.at(middle)).abs
        end.max || 0.0
      end
      private_class_method :parts, :along, :bound, :held
    end
  end
end
