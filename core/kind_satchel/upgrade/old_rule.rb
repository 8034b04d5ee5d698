# frozen_string_literal: true

module KindSatchel
  module Upgrade
    # How version 1 combined: lane, then region, then each carrier, every one a layer of its own, in which set, scale
    # and shift acted in turn; so that whatever set silenced all that came before it.
    class OldRule
      # Less than this is no difference.
      NONE = 1e-9
      # Where a piece is looked at, as shares of its length.
      LOOKS = [0.0, 0.13, 0.37, 0.61, 0.87].freeze
      RANKS = { "scale" => 1, "shift" => 2 }.freeze

      def initialize(song, address)
        @address = address
        @resolver = Heard::Resolver.new(song, address)
        @pieces = @resolver.pieces(0, song.length_ticks)
      end

      # @return [Array<Place>]
      def places
        apart = @pieces.filter_map do |piece|
          [piece, largest(piece)] if layered?(piece)
        end.select { |_, most| most > NONE }
        apart.chunk_while { |(a, _), (b, _)| a.to == b.from }.map do |run|
          Place.new(@address, run.first[0].from.floor, run.last[0].to.ceil, run.map(&:last).max)
        end
      end

      private

      # Whether the order could have mattered.
      def layered?(piece)
        turns = piece.spans.map { |span| span.source.turn }.uniq
        turns.size > 1 && (piece.scales.any? || piece.shifts.any?)
      end

      def largest(piece)
        LOOKS.map { |share| piece.from + ((piece.to - piece.from) * share) }
             .map { |tick| (piece.at(tick) - piece.scale.heard(old(piece, tick))).abs }.max
      end

      def old(piece, tick)
        value = piece.set ? piece.set.at(tick) : piece.knob
        floor = piece.set ? piece.set.source.turn : Heard::Acting::LANE
        later = (piece.scales + piece.shifts).select { |span| span.source.turn >= floor }
        later.sort_by { |span| turn(span) }.reduce(value) do |now, span|
          span.source.envelope.role_rules.apply(piece.scale, now, span.at(tick))
        end
      end

      def turn(span) = [span.source.turn, RANKS.fetch(span.source.envelope.role)]
    end
  end
end
