# frozen_string_literal: true

module KindSatchel
  module HandOver
    # A course as few events of a controller that stay within an error of it, rounding to steps counted in. Each holds
    # until the next; one is followed as long as it is near enough, and the next then goes as far ahead as it may.
    # What goes on level is said as exactly as there are steps. Where a course crosses more than the error within a
    # tick nothing can keep to it: {#within} tells what was kept to.
    class ControlEvents
      # Semitones of pitch bend up and down that a file says at its start.
      BEND_SEMITONES = 24

      # @param id [String] of the parameter: some have a law of their own
      # @param row [Controllers::Row]
      # @param tempo [Timing::TempoMap, Heard::SongClock]
      # @param error [Float] share of the controller's travel; half a step at least
      # @param per_second [Float, nil] the most events a second
      def initialize(id, row, tempo, error:, per_second: nil)
        @law = Law.of(id, row)
        @plain = @law == Law::Plain
        @tempo = tempo
        @largest = row.bits == 7 ? 127 : 16_383
        @error = [error, 0.5 / @largest].max + 1e-9
        @apart = per_second && ((1.0 / per_second) - 1e-9)
      end

      # @param course [Course]
      # @return [Array(Array<Integer>, Array<Integer>)] ticks, and values in step
      def of(course)
        @ticks, @values = [], []
        @travel = @plain ? course.values : course.values.map { |value| @law.out(value) }
        say(course.ticks[0], nearest(@travel[0]))
        place, size = 1, course.size
        while place < size
          follow(course, place) if (@travel[place] - @held).abs > @error || level?(place)
          place += 1
        end
        @apart ? spaced(course) : [@ticks, @values]
      end

      # How far what is held lies from what is heard, an upper bound on ticks and between.
      # @param pieces [Array<Heard::Piece>]
      # @param ticks [Array<Integer>] of the events
      # @param values [Array<Integer>] in step
      # @return [Float] share of the controller's travel
      def within(pieces, ticks, values)
        held = values.map { |whole| @law.in(whole / @largest.to_f) }
        lines = Course.new(ticks: ticks.flat_map { |tick| [tick, tick] }.drop(1), values: held.flat_map do |value|
          [value, value]
        end[0..-2], scale: nil)
        Meter.new(Travel.new(@law), lines).over(pieces).largest
      end

      private

      # An event; of two on one tick the later stays.
      def say(tick, whole)
        @whole = whole.clamp(0, @largest)
        @held = @whole / @largest.to_f
        if @ticks[-1] == tick
          @values[-1] = @whole
        elsif @values[-1] != @whole
          @ticks << tick
          @values << @whole
        end
      end

      def nearest(share) = (share * @largest).round
      def level?(place) = @travel[place] == @travel[place - 1] && nearest(@travel[place]) != @whole

      # From one corner to the next.
      def follow(course, place)
        @from, @to, goal = course.ticks[place - 1], course.ticks[place], @travel[place]
        return say(@to, nearest(goal)) if @from == @to
        return say(@from, nearest(goal)) if @travel[place - 1] == goal

        @first = course.values[place - 1]
        @pace = (course.values[place] - @first) / (@to - @from)
        step(goal) while (goal - @held).abs > @error
      end

      # The next event on the way to a value: at the last whole tick at which what is held is still near enough; where
      # that leads nowhere, at the tick after.
      def step(goal)
        up = goal > @held
        edge = @held + (up ? @error : -@error)
        tick = (@from + (((@plain ? edge : @law.in(edge)) - @first) / @pace)).floor.clamp(@from, @to)
        whole = ahead(tick, goal, up)
        return say(tick, whole) unless whole == @whole

        tick = [tick + 1, @to].min
        whole = tick == @to ? nearest(goal) : ahead(tick, goal, up)
        say(tick, whole == @whole ? @whole + (up ? 1 : -1) : whole)
      end

      # As far on the way as is near enough to what is heard at a tick.
      def ahead(tick, goal, up)
        value = @first + (@pace * (tick - @from))
        share = @plain ? value : @law.out(value)
        if up
          [((share + @error) * @largest).floor,
           nearest(goal)].min
        else
          [((share - @error) * @largest).ceil, nearest(goal)].max
        end
      end

      # No two nearer than allowed: one that comes too soon waits, and then says what is heard there.
      def spaced(course)
        given = @ticks
        values, @ticks, @values, waiting = @values, [], [], nil
        given.each_with_index do |tick, i|
          if waiting && waiting <= tick
            keep(waiting, whole(course, waiting))
            waiting = nil
          end
          next if waiting

          soonest = @ticks.empty? ? tick : @tempo.tick_at(@tempo.seconds_at(@ticks[-1]) + @apart).ceil
          soonest > tick ? waiting = soonest : keep(tick, values[i])
        end
        keep(waiting, whole(course, waiting)) if waiting
        [@ticks, @values]
      end

      def keep(tick, value)
        return if @values[-1] == value

        @ticks << tick
        @values << value
      end

      def whole(course, tick) = (@law.out(course.at(tick)) * @largest).round.clamp(0, @largest)

      # The travel of a controller as a scale, for {Meter}.
      Travel = Struct.new(:law) do
        def gain? = false
        def linear? = true

        # @return [Float] travel of the controller, 0..1
        def natural(value) = law.out(value)
      end
      private_constant :Travel

      # From a normalised value to the travel of a controller, `out(value)`, and back, `in(share)`; both 0..1.
      #
      # @example
      #   Law::Pan.out(0.5) * 127 #=> 64.0
      module Law
        module_function

        # @return [#out, #in]
        def of(id, row)
          return Volume if id == "volume" && row.number == 7
          return row.bits == 7 ? Pan : Bend if id == "pan" && row.number == 10
          return Bend if id == "bend" && row.number == Controllers::BEND

          Plain
        end

        # The whole travel.
        module Plain
          def self.out(value) = value
          def self.in(share) = share
        end

        # 40 log10 (MIDI Manufacturers Association, recommended practice): 127 is 0 dB; what is louder stays there.
        module Volume
          ROOT = Math.sqrt(2)
          def self.out(value) = [value * ROOT, 1.0].min
          def self.in(share) = share / ROOT
        end

        # From 1 to 127, the middle at 64 (recommended practice RP-036).
        module Pan
          def self.out(value) = (1 + (value * 126)) / 127
          def self.in(share) = ((share * 127) - 1) / 126
        end

        # Up and down from the middle, 8192: semitones of pitch bend, sides of a pan of 14 bits.
        module Bend
          def self.out(value) = ((value - 0.5) * 2 * 8191.0 / 16_383) + (8192.0 / 16_383)
          def self.in(share) = 0.5 + ((share - (8192.0 / 16_383)) / 2 * 16_383 / 8191.0)
        end
      end
    end
  end
end
