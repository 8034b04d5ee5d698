# frozen_string_literal: true

module KindSatchel
  module Perform
    # What a hand did with one parameter, from where it took hold to where its move ends: wanted values (normalised,
    # as heard) at ticks of the song. Between them the value goes straight; a held stroke (switches, steps) keeps each
    # until the next.
    class Stroke
      # A hand that is still sends nothing: after so long without a sample the value is taken to have stayed.
      STILL_SECONDS = 0.1
      # So long before the next sample it then begins to move.
      MOVE_SECONDS = 0.02
      # Values are kept to so many decimals.
      DECIMALS = 6

      # @return [Array<Integer>] rising
      attr_reader :ticks
      # @return [Array<Float>] one for each tick
      attr_reader :values

      # @param samples [Array<Array(Float, Float)>] seconds of the song, and the value, in order of time
      # @param until_seconds [Float] where the move ends; the last value holds up to there
      # @param tempo [Timing::TempoMap]
      # @param scale [Scales::Scale] of the parameter
      def self.played(samples, until_seconds, tempo, scale)
        held = !scale.steps.nil?
        ticks, values = [], []
        last, before = nil, nil
        moments = tempo.ticks_at(samples.map(&:first))
        samples.each_with_index do |(seconds, value), i|
          if last && !held && seconds - last > STILL_SECONDS
            place(ticks, values, tempo.tick_at(seconds - MOVE_SECONDS).round,
                  before)
          end
          last, before = seconds, scale.heard(value).round(DECIMALS)
          place(ticks, values, moments[i].round, before)
        end
        place(ticks, values, [tempo.tick_at(until_seconds).round, ticks.first + 1, ticks.last].max, values.last)
        held ? from_places(ticks.zip(values), true) : new(ticks, values, false)
      end

      # Of several places on one tick the last one counts.
      def self.place(ticks, values, tick, value)
        values[-1] = value and return if ticks.last == tick

        ticks << tick
        values << value
      end

      # @param places [Array<Array(Integer, Float)>] of several on one tick the last one counts
      # @param held [Boolean] whether each value holds up to the next
      def self.from_places(places, held)
        list = places.to_h.sort
        list = list.chunk_while { |a, b| a[1] == b[1] && b[0] != list.last[0] }.map(&:first) if held
        new(list.map(&:first), list.map(&:last), held)
      end
      private_class_method :place

      def initialize(ticks, values, held)
        @ticks = ticks
        @values = values
        @held = held
      end

      def held? = @held

      # @return [Integer]
      def from = ticks.first

      # @return [Integer]
      def to = ticks.last

      # @example
      #   Stroke.new([0, 480], [0.0, 1.0], false).places #=> [[0, 0.0], [480, 1.0]]
      # @return [Array<Array(Integer, Float)>] ticks with their values
      def places = ticks.zip(values)

      # @param tick [Numeric]
      # @return [Float] the value wanted there; level beyond the ends
      def at(tick)
        after = ticks.bsearch_index { |one| one > tick } || ticks.size
        return values.first if after.zero?
        return values[after - 1] if @held || after == ticks.size

        from, to = ticks[after - 1], ticks[after]
        values[after - 1] + ((values[after] - values[after - 1]) * (tick - from) / (to - from).to_f)
      end

      # The value that it comes to at a tick: of a jump the earlier one.
      def arriving(tick) = @held ? at(tick - 1) : at(tick)

      # Its places strictly between two ticks.
      # @return [Array<Integer>]
      def ticks_within(from, to) = ticks[within(from, to)]

      # @return [Stroke, nil] what of it lies in a stretch, with places at both its ends; nil for nothing
      def cut(from, to)
        from, to = [from, self.from].max, [to, self.to].min
        return unless to > from
        return self if from == self.from && to == self.to

        inner = within(from, to)
        cut = [[from, *ticks[inner], to], [at(from), *values[inner], at(@held ? to - 1 : to)]]
        @held ? Stroke.from_places(cut[0].zip(cut[1]), true) : Stroke.new(*cut, false)
      end

      # @param meters [Timing::Meters]
      # @param grid_ticks [Integer] above 0
      # @return [Stroke] on the lines of a grid: the value it has at each; of a held one, each change on the nearest
      #   line
      def snapped(meters, grid_ticks)
        if @held
          return Stroke.from_places(ended(places.map do |tick, value|
            [meters.line_near(tick, grid_ticks), value]
          end, grid_ticks), true)
        end

        start = meters.line_near(from, grid_ticks)
        finish = [meters.line_near(to, grid_ticks), start + grid_ticks].max
        lines = [start]
        lines << [meters.line_near(lines.last + grid_ticks, grid_ticks), lines.last + 1].max while lines.last < finish
        Stroke.from_places(lines.map { |tick| [tick, at(tick)] }, false)
      end

      # The move goes on to a value that it reaches later.
      # @param value [Float]
      # @return [Stroke]
      def reaching(tick, value) = @held || tick <= to ? self : Stroke.new([*ticks, tick], [*values, value], false)

      private

      def within(from, to)
        first = ticks.bsearch_index { |tick| tick > from } || ticks.size
        last = ticks.bsearch_index { |tick| tick >= to } || ticks.size
        first...last
      end

      def ended(list, grid_ticks)
        list.last[0] > list.first[0] ? list : [*list, [list.first[0] + grid_ticks, list.last[1]]]
      end
    end
  end
end
