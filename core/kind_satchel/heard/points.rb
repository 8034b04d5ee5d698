# frozen_string_literal: true

module KindSatchel
  module Heard
    # What is heard over a stretch, as points of an envelope that sets. Where one envelope alone sets the value in the song's
    # own pace its points are taken as they are, shapes and all; elsewhere a chain of straight segments keeps to the value
    # within {TOLERANCE}.
    class Points
      # As a share of the knob's travel.
      TOLERANCE = 0.0005

      # @param song [Song]
      # @param address [Address]
      # @param only [Array<String>, nil] ids of the regions that count; nil for all
      def initialize(song, address, only: nil)
        @song = song
        @address = address
        @resolver = Resolver.new(song, address, only:)
      end

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Point>] in song ticks, the first at `from`, the last at `to` with the value that is come to
      def between(from, to)
        runs = @resolver.pieces(from, to).slice_when { |a, b| source(a) != source(b) || source(b).nil? }
        Splice.chain(runs.map { |pieces| points(pieces) })
      end

      private

      # Who alone sets a piece; nil where several act or nobody does.
      def source(piece)
        span = piece.spans.first
        span.source if piece.spans.size == 1 && span.rules.equal?(Roles::Set)
      end

      def points(pieces)
        from, to = pieces.first.from.round, pieces.last.to.round
        exact = source(pieces.first) && taken(source(pieces.first), from, to)
        exact || chain(pieces)
      end

      def chain(pieces)
        corners = Outline.of_pieces(pieces, tolerance: TOLERANCE)
        shape = pieces.first.scale.steps ? Shapes::Hold::PLAIN : Shapes::Straight::PLAIN
        corners.map { |tick, value| Point.new(tick: tick.round, value:, shape:) }
      end

      # The envelope's own points, or nil where its time runs at another pace.
      def taken(source, from, to)
        list = ranged(source.envelope)
        parts = windows(source, from, to)
        return unless parts

        Splice.chain(parts.map { |start, finish, position| shifted(Splice.between(list, position, position + finish - start), start) })
      end

      def windows(source, from, to)
        return [[from, to, from]] unless source.region

        list = []
        Layers.windows(@song.directory.region(source.region.id), source.clip, source.envelope, from, to) do |(start, finish, position), rate|
          return nil unless rate == 1

          late = [from - start, 0].max
          list << [start + late, [finish, to].min, (position + late).to_i]
        end
        list
      end

      def ranged(envelope)
        low, high = envelope.range
        return envelope.points if low.zero? && high == 1

        envelope.points.map { |point| Point.new(tick: point.tick, value: low + (point.value * (high - low)), shape: point.shape.scaled(high - low)) }
      end

      def shifted(points, ticks) = points.map { |point| point.with(tick: point.tick + ticks) }
    end
  end
end
