# frozen_string_literal: true

module KindSatchel
  module Heard
    # The pieces of a parameter as arcs that stay inside its travel: cut exactly where the limits begin to hold, level
    # there.
    module Within
      # What is narrower is not looked for, in ticks.
      NARROW = 1 / 65_536.0

      module_function

      # @param signal [#pieces] of a parameter without steps
      # @return [Array<Arc>] normalised, in order, without gaps
      def arcs(signal, from, to) = signal.pieces(from, to).flat_map { |piece| parts(piece) }

      # @param piece [Piece]
      # @return [Array<Arc>] the same of one piece
      def parts(piece)
        return [Level.new(piece.from, piece.to, piece.at(piece.from))] if piece.still?

        places = [piece.from, *crossings(piece), piece.to]
        places.each_cons(2).filter_map do |start, finish|
          next unless finish > start

          value = piece.raw((start + finish) / 2.0)
          value.between?(0.0, 1.0) ? Free.new(piece, start, finish) : Level.new(start, finish, value.clamp(0.0, 1.0))
        end
      end

      # @return [Array<Float>] ticks at which a piece meets the ends of its travel
      def crossings(piece)
        jet = piece.jet(piece.from, piece.to)
        return [] if jet.low >= 0 && jet.high <= 1

        known = ->(a, b) { piece.jet(a, b) }
        [0.0, 1.0].flat_map do |limit|
          Crossings.of(piece.from.to_f, piece.to.to_f, NARROW, known) do |tick|
            piece.raw(tick) - limit
          end
        end.sort
      end

      # A piece between its limits.
      class Free
        include Arc

        def initialize(piece, from, to)
          @piece, @from, @to = piece, from, to
          @source = piece.set&.source
        end

        def straight? = @piece.straight?
        def at(tick) = @piece.raw(tick).clamp(0.0, 1.0)
        def jet(from, to) = @piece.jet(from, to)
      end
    end
  end
end
