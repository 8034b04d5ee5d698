# frozen_string_literal: true

module KindSatchel
  module Heard
    # One segment of one envelope at work in song time: it acts for from <= tick < to.
    class Span
      include Arc

      attr_reader :segment

      # @param run [Clocks::Run] where the envelope's own time lies
      # @param line [Array(Float, Float), nil] what makes the value of the segment's: value * line[0] + line[1]
      def initialize(run, segment, source, line = nil)
        start, finish = run.tick(segment.start), run.tick(segment.finish)
        @from = [start, run.from].max
        @to = [finish, run.to].min
        @zero = run.zero
        @pace = run.pace
        @ahead = run.ahead || 0
        @segment = segment
        @source = source
        @factor, @offset = line
      end

      def drawn? = true
      def still? = @segment.still?
      def straight? = @segment.straight?

      # @param tick [Numeric] from..to; at `to` the value the segment arrives at
      def at(tick)
        value = @segment.at(@pace ? ((tick - @zero) * @pace) - @ahead : tick - @zero)
        @factor ? (value * @factor) + @offset : value
      end

      # Writes the values at ticks[first...last] into a list.
      def fill(values, ticks, first, last)
        return @segment.fill(values, ticks, first, last, @zero) if plain?

        first.upto(last - 1) { |place| values[place] = at(ticks[place]) }
      end

      # @return [Float] how much the value moves with the segment's
      def worth = @factor || 1.0

      # @return [Float] in the envelope's own time
      def position(tick) = @pace ? ((tick - @zero) * @pace) - @ahead : tick - @zero

      # Ticks strictly between two where a line chain must turn to stay within `tolerance`.
      def breaks(from, to, worth, tolerance)
        return [] if straight?

        places = @segment.breaks(position(from), position(to), worth * self.worth, tolerance)
        @pace ? places.map { |place| @zero + ((place + @ahead) / @pace) } : places.map { |place| @zero + place }
      end

      # @return [Jet] what is known of the value between two ticks
      def jet(from, to)
        jet = @segment.jet(position(from), position(to))
        jet = Jet.new(jet.low, jet.high, jet.slope * @pace, jet.bend * @pace * @pace) if @pace
        @factor ? (jet * Jet.level(@factor)) + Jet.level(@offset) : jet
      end

      # Whether the whole segment sounds in a piece, tick for tick.
      def whole?(piece) = plain? && piece.from == @zero + @segment.start && piece.to == @zero + @segment.finish

      # Where the segment starts in song time, also before it sounds.
      def start = @zero + @segment.start
      def plain? = @pace.nil? && @factor.nil?
    end
  end
end
