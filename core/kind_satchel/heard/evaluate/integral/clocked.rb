# frozen_string_literal: true

module KindSatchel
  module Heard
    class Integral
      # The same number of cycles a second, between two changes of tempo.
      class Clocked
        include Stretch

        # @return [Float] seconds a tick
        def self.beat(tempo, tick) = 60.0 / Timing::PPQ / tempo.bpm_at([tick, 0].max)

        # With the tempo straight in ticks, 1 / tempo bends as its slope squared over its cube.
        # @return [Jet] the same between two ticks
        def self.beat_jet(tempo, from, to)
          ends = [tempo.bpm_at([from, 0].max), tempo.bpm_before([to, 0].max)]
          slow, fast = ends.minmax
          slope = (fast - slow) / (to - from)
          unit = 60.0 / Timing::PPQ
          Jet.new(unit / fast, unit / slow, unit * slope / (slow**2), 2 * unit * slope * slope / (slow**3))
        end

        attr_reader :from, :to

        def initialize(from, to, before, hertz, tempo)
          @from, @to, @before, @hertz, @tempo = from, to, before, hertz, tempo
          @start = tempo.seconds_at(from)
          @even = tempo.bpm_at([from, 0].max) == tempo.bpm_before([to, 0].max)
        end

        def sum_at(tick) = @before + (@hertz * (@tempo.seconds_at(tick) - @start))
        def tick_of(wanted) = @tempo.tick_at(@start + ((wanted - @before) / @hertz))
        def total = sum_at(@to)
        def even? = @even
        def pace_jet(from, to) = Clocked.beat_jet(@tempo, from, to) * Jet.level(@hertz)
      end
    end
  end
end
