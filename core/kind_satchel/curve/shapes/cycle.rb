# frozen_string_literal: true

module KindSatchel
  module Shapes
    # Swings between two values `cycles` times: a + (b - a) w(p), with p = phase + cycles u.
    #
    # `wave` is sine, triangle, square, ramp or saw. w(0) = 0 for all but the saw, which falls from 1 to 0. `skew`
    # (0..1) lays the peak of sine and triangle; a square is low for the first 1 - skew of each cycle; ramp and saw
    # ignore it. With `note_ticks` the count is locked: one cycle to so many ticks, however long the segment.
    #
    # `phase` (0..1), `foot` and `top` are there for cutting: where in its cycle it starts, and how far from a and
    # from b the two values lie between which it swings.
    #
    # @example
    #   wave = Shapes.of({ "shape" => "cycle", "wave" => "ramp", "cycles" => 4, "top" => 1.0 })
    #   Shapes.value_at(wave, Ends.new(0.0, 0.0, 960), 0.0625) #=> 0.25
    class Cycle < Value.of(:wave, :cycles, :note_ticks, :skew, :phase, :foot, :top)
      # Of each wave, the stretches of one cycle: from, to, level there, level there, how.
      WAVES = {
        "sine" => ->(skew) { [[0, skew, 0, 1, HalfWave], [skew, 1, 1, 0, HalfWave]] },
        "triangle" => ->(skew) { [[0, skew, 0, 1, Straight], [skew, 1, 1, 0, Straight]] },
        "square" => ->(skew) { [[0, 1 - skew, 0, 0, Hold], [1 - skew, 1, 1, 1, Hold]] },
        "ramp" => ->(_) { [[0, 1, 0, 1, Straight]] },
        "saw" => ->(_) { [[0, 1, 1, 0, Straight]] }
      }.freeze
      BACKWARDS = { "ramp" => "saw", "saw" => "ramp" }.freeze
      COUNT = (1e-6..1024)
      NOTE_TICKS = (15..(Timing::PPQ * 64))
      # The most cycles a locked count may give a segment.
      MOST = 8192
      # Levels and skew are kept to as many decimals as points, so that reversing twice comes back to the same; phases
      # on a {Grid}.
      DECIMALS = Point::DECIMALS

      def self.of(record)
        new(wave: record.fetch("wave", "sine"), cycles: record.fetch("cycles", 1), note_ticks: record["note_ticks"],
            skew: record.fetch("skew", 0.5),
            phase: record.fetch("phase", 0.0), foot: record.fetch("foot", 0.0), top: record.fetch("top", 0.0))
      end

      def initialize(skew:, phase:, **more)
        phase = Grid.share(phase) if phase.is_a?(Float) && phase.between?(0, 1)
        super(skew: skew.is_a?(Float) ? skew.round(DECIMALS) : skew, phase:, **more)
      end

      def check
        unless WAVES.key?(wave)
          fault!("unknown_wave", "/wave",
                 "There is no wave #{wave.inspect}; there is #{WAVES.keys.join(', ')}.")
        end
        number!("/cycles", cycles, COUNT)
        number!("/note_ticks", note_ticks, NOTE_TICKS) if note_ticks
        number!("/skew", skew, 0..1)
        number!("/phase", phase, 0..1)
        [["/foot", foot], ["/top", top]].each { |path, number| number!(path, number, -4..4) }
        @half_wave = HalfWave.new(from: 0.0, to: 1.0)
      end

      # @param ticks [Numeric] length of the segment
      # @return [Numeric] how many cycles it has
      # @raise [InvalidInput] for more than {MOST}
      def count(ticks)
        return cycles unless note_ticks
        return ticks / note_ticks.to_f if ticks <= note_ticks * MOST

        fault!("too_many", "/note_ticks",
               "A segment of #{ticks} ticks would have more than #{MOST} cycles of #{note_ticks} ticks.")
      end

      def parts(ends)
        count = count(ends.ticks)
        low, high = ends.a + foot, ends.b + top
        stretches = WAVES.fetch(wave).call(skew)
        (phase.floor..(phase + count).ceil).flat_map do |cycle|
          stretches.filter_map do |from, to, a, b, how|
            part([cycle + from, cycle + to], [a, b], how, count, [low, high])
          end
        end
      end

      def cut(from, to, whole, piece)
        count = count(whole.ticks)
        with(cycles: (count * (to - from)).clamp(COUNT.min, COUNT.max), phase: turn(phase + (count * from)),
             foot: tidy(whole.a + foot - piece.a), top: tidy(whole.b + top - piece.b))
      end

      def reversed(ends)
        back = if wave == "square"
                 { phase: turn(1 - skew) }
               else
                 { wave: BACKWARDS.fetch(wave, wave),
                   skew: (1 - skew).round(DECIMALS), phase: 0.0 }
               end
        with(**back, **turned_levels(ends), phase: turn(back[:phase] - phase - turn(count(ends.ticks))))
      end

      def scaled(factor) = with(foot: tidy(foot * factor), top: tidy(top * factor))
      def settings = to_h.transform_keys(&:to_s)
      def text = note_ticks ? "#{wave}, a cycle to #{note_ticks} ticks" : "#{Units.short(cycles)} cycles of #{wave}"

      private

      def turned_levels(ends) = { foot: tidy(ends.a + foot - ends.b), top: tidy(ends.b + top - ends.a) }
      def turn(number) = Grid.turn(number)
      def tidy(number) = number.round(DECIMALS).clamp(-4.0, 4.0) + 0.0

      # The share of one stretch of a cycle that the segment shows, or nil.
      def part((from, to), (a, b), how, count, (low, high))
        left, right = [from, phase].max, [to, phase + count].min
        return if right - left < 1e-12

        shape = (how == HalfWave ? @half_wave : how::PLAIN).cut(share(left, from, to), share(right, from, to))
        levels = [left, right].map { |at| low + ((high - low) * level(a, b, share(at, from, to), how)) }
        Part.new(place(left, count), place(right, count), *levels, shape)
      end

      def share(position, from, to) = position == to ? 1 : (position - from) / (to - from).to_f
      def place(position, count) = position >= phase + count ? 1 : (position - phase) / count.to_f
      def level(a, b, share, how) = a + ((b - a) * (how == HalfWave ? @half_wave.weight(share) : share))
    end
  end
end
