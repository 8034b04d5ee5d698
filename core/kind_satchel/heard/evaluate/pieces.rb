# frozen_string_literal: true

module KindSatchel
  module Heard
    # Cuts what acts into pieces.
    class Pieces
      # The values that pieces have at ticks in rising order, all of which they cover.
      # @param pieces [Array<Piece>]
      # @param ticks [Array<Numeric>]
      # @return [Array<Float>]
      def self.read(pieces, ticks)
        size = ticks.size
        values, room, first = Array.new(size), Array.new(size), 0
        pieces.each do |piece|
          to, last = piece.to, first
          last += 1 while last < size && ticks[last] < to
          piece.read(ticks, first, last, values, room) if last > first
          first = last
        end
        values
      end

      # @param sets [Array<Arc>] by start, like the other lists
      def initialize(scale, knob, sets, scales, shifts)
        @rest = [scale, knob].freeze
        @sets = sets
        @scales = scales
        @shifts = shifts
      end

      # @return [Array<Piece>] in order, without gaps
      def between(from, to)
        return one_by_one(from, to) if @scales.empty? && @shifts.empty? && apart?

        rows = [@sets, @scales, @shifts].map { |list| Row.new(list) }
        cuts(from, to).each_cons(2).map do |start, finish|
          sets, scales, shifts = rows.map { |row| row.at(start) }
          Piece.new(start, finish, @rest, sets.last, [scales, shifts])
        end
      end

      private

      # Whether one thing at a time sets the value: the commonest case by far.
      def apart? = @sets.each_cons(2).all? { |a, b| b.from >= a.to }

      def one_by_one(from, to)
        list = []
        at = from
        @sets.each do |span|
          list << Piece.new(at, span.from, @rest, nil) if span.from > at
          list << Piece.new(span.from, at = span.to, @rest, span)
        end
        list << Piece.new(at, to, @rest, nil) if to > at
        list
      end

      def cuts(from, to)
        list = [from, to]
        [@sets, @scales, @shifts].each { |spans| spans.each { |span| list << span.from << span.to } }
        list.sort!
        list.uniq!
        list
      end

      # The spans of one role on their way through time; what is active, by turn.
      class Row
        def initialize(spans)
          @spans = spans
          @next = 0
          @active = Piece::NONE
        end

        # @param tick [Numeric] not before the one asked for last
        # @return [Array<Span>] a list of its own whenever it differs
        def at(tick)
          @active = @active.reject { |span| span.to <= tick } if @active.any? { |span| span.to <= tick }
          while @next < @spans.size && @spans[@next].from <= tick
            @active = [*@active, @spans[@next]].sort_by.with_index { |span, i| [span.source.turn, i] }
            @next += 1
          end
          @active
        end
      end
      private_constant :Row
    end
  end
end
