# frozen_string_literal: true

module KindSatchel
  module Perform
    # What is set for a parameter over a stretch, before anything scales or shifts it, as points: by lanes, clips and
    # carriers, or the knob. Shapes stay; what lies between two ticks comes to the later one.
    module Course
      # How far lines may stray, where no shape can say it.
      FINE = 0.0005

      module_function

      # @param resolver [Heard::Resolver]
      # @param from [Integer] song tick
      # @param to [Integer] the tick after the last
      # @return [Array<Point>] in song ticks
      def points(resolver, from, to)
        Splice.chain(resolver.pieces(from, to).filter_map do |piece|
          piece.to.ceil > piece.from.ceil ? ends(piece) : nil
        end)
      end

      def ends(piece)
        span = piece.set
        return chain(piece, span) unless span.nil? || span.still? || span.drawn?

        values = span ? [piece.from, piece.to].map { |tick| span.at(tick).clamp(0.0, 1.0) } : [piece.knob, piece.knob]
        shape = span.nil? || span.still? ? Shapes::Hold::PLAIN : part(span, piece)
        return chain(piece, span) unless Shapes.own?(shape)

        [Point.new(tick: piece.from.ceil, value: values[0], shape:),
         Point.new(tick: piece.to.ceil, value: values[1], shape: Shapes::Hold::PLAIN)]
      end

      # Lines, where no shape can say it.
      def chain(piece, span)
        ticks = [piece.from, *span.breaks(piece.from, piece.to, 1.0, FINE), piece.to]
        ticks.map do |tick|
          Point.new(tick: tick.ceil, value: span.at(tick).clamp(0.0, 1.0), shape: Shapes::Straight::PLAIN)
        end
      end

      def part(span, piece)
        segment = span.segment
        segment.shape.cut(*[piece.from, piece.to].map { |tick| segment.share_at(span.position(tick)).clamp(0.0, 1.0) })
      end
      private_class_method :ends, :chain, :part
    end
  end
end
