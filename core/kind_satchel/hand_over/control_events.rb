# frozen_string_literal: true

module KindSatchel
  module HandOver
    # A course as the fewest events of a controller that stay within an error of it. Each holds until the next; one is followed until what
    # is heard is further off than the error, and the next then aims as far ahead.
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
        say(course.ticks[0], @travel[0])
        place, size = 1, course.size
        while place < size
          follow(course, place) if (@travel[place] - @held).abs > @error
          place += 1
        end
        @apart ? spaced(course) : [@ticks, @values]
      end

      private

      # An event; of two on one tick the later stays.
      def say(tick, share)
        whole = (share * @largest).round
        whole = whole.clamp(0, @largest) if whole.negative? || whole > @largest
        @held = whole / @largest.to_f
        if @ticks[-1] == tick
          @values[-1] = whole
        elsif @values[-1] != whole
          @ticks << tick
          @values << whole
        end
      end

      # From one corner to the next, which lies further off than the error.
      def follow(course, place)
        from, to = course.ticks[place - 1], course.ticks[place]
        before, goal = @travel[place - 1], @travel[place]
        return say(to, goal) if from == to || before == goal

        way = goal > @held ? @error : -@error
        first, pace = pace(course, place)
        while (goal - @held).abs > @error
          old, edge = @held, @held + way
          tick = (from + ((@plain ? edge - first : @law.in(edge) - first) * pace)).ceil
          tick = tick.clamp(from, to)
          aim = edge + way
          past = way.positive? ? goal < aim : goal > aim
          say(tick, past ? goal : aim)
          return say(to, goal) if @held == old
        end
      end

      # Where a stretch begins, and how many ticks its value takes for all of its travel.
      def pace(course, place)
        first = course.values[place - 1]
        [first, (course.ticks[place] - course.ticks[place - 1]) / (course.values[place] - first).to_f]
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

      # From a normalised value to the travel of a controller, and back.
      module Law
        module_function

        # @return [#out, #in]
        def of(id, row)
          return Volume if id == "volume" && row.number == 7
          return Pan if id == "pan" && row.number == 10
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

        # Semitones up and down from the middle, 8192.
        module Bend
          def self.out(value) = ((value - 0.5) * 2 * 8191.0 / 16_383) + (8192.0 / 16_383)
          def self.in(share) = 0.5 + ((share - (8192.0 / 16_383)) / 2 * 16_383 / 8191.0)
        end
      end
    end
  end
end
