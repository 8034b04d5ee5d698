# frozen_string_literal: true

module KindSatchel
  module HandOver
    # A tempo as a MIDI file has it: so many microseconds to the quarter note, from a tick on. While it moves it goes
    # in steps, which keep every tick within a stated time of where it is in the song.
    module SteppedTempo
      # How far a tick may be off, in seconds.
      WITHIN_SECONDS = 0.0009
      # Where a step is not divided further.
      SHORTEST_TICKS = 10

      module_function

      # @param tempo [Timing::TempoMap, Heard::SongClock]
      # @param from [Integer] first song tick
      # @param to [Integer] the tick after the last
      # @return [Array<Array(Integer, Integer)>] tick after `from`, microseconds a quarter note
      def of(tempo, from, to)
        cuts = [from, *tempo.changes(from, to).map(&:round), to].uniq
        ticks = cuts.each_cons(2).flat_map { |start, finish| divided(tempo, start, finish) }
        begun = tempo.seconds_at(from)
        written = 0.0
        steps = [*ticks, to].each_cons(2).map do |start, finish|
          quarters = (finish - start) / Timing::PPQ.to_f
          micros = ((tempo.seconds_at(finish) - begun - written) * 1e6 / quarters).round
          written += micros * quarters / 1e6
          [start - from, micros]
        end
        steps.each_with_index.reject { |(_, micros), i| i.positive? && steps[i - 1][1] == micros }.map(&:first)
      end

      # Where steps begin between two ticks.
      def divided(tempo, from, to)
        return [from] if to - from <= SHORTEST_TICKS || even?(tempo, from, to)

        middle = (from + to) / 2
        divided(tempo, from, middle) + divided(tempo, middle, to)
      end

      # At one tempo all through no tick is off by more than is allowed; looked at in quarters, where a tempo that
      # rises or falls is off most.
      def even?(tempo, from, to)
        start, finish = tempo.seconds_at(from), tempo.seconds_at(to)
        [0.25, 0.5, 0.75].all? do |share|
          even = start + ((finish - start) * share)
          (tempo.seconds_at(from + ((to - from) * share)) - even).abs <= WITHIN_SECONDS / 2
        end
      end
      private_class_method :divided, :even?
    end
  end
end
