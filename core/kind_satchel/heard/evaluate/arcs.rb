# frozen_string_literal: true

module KindSatchel
  module Heard
    # Whatever gives values over a stretch of song without a corner is an arc. It answers:
    #
    # - `from`, `to` song ticks; `source` who acts, a {Source}
    # - `at(tick)` the value; at `to` the one it arrives at
    # - `still?` whether it stays the same, `straight?` whether it moves evenly
    # - `breaks(from, to, worth, tolerance)` ticks strictly between two where a line chain must turn to stay within
    #   `tolerance` when the values are worth `worth` each
    # - `jet(from, to)` what is known of it between two ticks, a {Jet}
    # - `drawn?` whether it is one segment of an envelope, with all that a {Span} tells of it
    #
    # A segment at work is a {Span}; the others are made when settings of a move are moved.
    module Arc
      attr_reader :from, :to, :source

      def drawn? = false
      def plain? = false
      def whole?(_piece) = false
      def still? = false
      def straight? = false

      # Each value times something and something more, over part of the stretch.
      # @return [Arc]
      def lined(from, to, factor, offset) = Lined.new(self, from, to, factor, offset)

      # Writes the values at ticks[first...last] into a list.
      def fill(values, ticks, first, last) = first.upto(last - 1) { |place| values[place] = at(ticks[place]) }

      def breaks(from, to, worth, tolerance)
        return [] if straight?

        Chords.breaks(from, to, tolerance) { |start, finish| jet(start, finish).stray(finish - start) * worth }
      end
    end

    # One value.
    class Level
      include Arc

      attr_reader :value

      def initialize(from, to, value, source = nil)
        @from, @to, @value, @source = from, to, value, source
      end

      def still? = true
      def straight? = true
      def at(_tick) = @value
      def jet(_from, _to) = Jet.level(@value)
      def lined(from, to, factor, offset) = Level.new(from, to, (@value * factor) + offset, source)
    end

    # An arc, each value times something and something more.
    class Lined
      include Arc

      def initialize(arc, from, to, factor, offset)
        @arc, @from, @to, @factor, @offset = arc, from, to, factor, offset
        @source = arc.source
      end

      def still? = @factor.zero? || @arc.still?
      def straight? = @arc.straight?
      def at(tick) = (@arc.at(tick) * @factor) + @offset
      def breaks(from, to, worth, tolerance) = still? ? [] : @arc.breaks(from, to, worth * @factor.abs, tolerance)
      def jet(from, to) = (@arc.jet(from, to) * Jet.level(@factor)) + Jet.level(@offset)
    end

    # Goes along arcs in order of time.
    class Cursor
      # The stretches between the edges of several lists, each of which comes to stand on the arc that covers it.
      # @param cursors [Array<Cursor>]
      # @yieldparam from [Numeric]
      # @yieldparam to [Numeric]
      def self.each_stretch(cursors, from, to)
        while from < to
          finish = cursors.map { |cursor| cursor.reach(from) }.push(to).min
          yield from, finish
          from = finish
        end
      end

      # @param arcs [Array<Arc>] in order, without gaps
      def initialize(arcs)
        @arcs = arcs
        @index = 0
      end

      # @return [Arc] that it stands on
      def arc = @arcs[@index]

      # @return [Numeric] the end of the arc at a tick, which is not before the one asked for last
      def reach(tick)
        @index += 1 while @index + 1 < @arcs.size && @arcs[@index].to <= tick
        @index + 1 < @arcs.size ? arc.to : Float::INFINITY
      end
    end
  end
end
