# frozen_string_literal: true

module KindSatchel
  module Timing
    # One tempo: `bpm` quarter notes per minute from `tick` on, held or moving straight to the next point.
    class TempoPoint < Value.of(:tick, :bpm, :shape)
      RANGE = (10..400)
      SHAPES = %w[hold straight].freeze

      def check
        whole!("/tick", tick)
        number!("/bpm", bpm, RANGE)
        return if SHAPES.include?(shape)

        fault!("unknown_shape", "/shape",
               "A tempo segment is hold or straight, not #{shape.inspect}.")
      end
    end

    # The tempo of a whole song, and with it the bridge between ticks and seconds.
    #
    # Over d quarter notes from tempo a to tempo b, straight in ticks, the clock runs
    # 60 d ln(b/a) / (b - a) seconds, and 60 d / a when a = b: the integral of 60 / tempo.
    class TempoMap < Value.of(:points)
      # @param bpm [Numeric] one tempo for the whole song
      def self.steady(bpm) = new(points: [TempoPoint.new(tick: 0, bpm:, shape: "hold")])

      def check
        points.freeze
        fault!("empty", "/points", "A song needs a tempo.") if points.empty?
        fault!("unsorted", "/points/0/tick", "The first tempo stands at tick 0.") unless points.first.tick.zero?
        points.each_cons(2).with_index(1) do |(a, b), i|
          fault!("unsorted", "/points/#{i}/tick", "Tempo points stand in order, one to a tick.") if b.tick <= a.tick
        end
      end

      # @example
      #   song.tempo.bpm_at(0) #=> 92.0
      # @param tick [Numeric]
      # @return [Float] quarter notes per minute
      def bpm_at(tick)
        stretch = stretch_at(tick)
        stretch.bpm_after(tick - stretch.tick)
      end

      # @example
      #   TempoMap.steady(120.0).seconds_at(960) #=> 0.5
      # @param tick [Numeric] ticks from the start; before the start the first tempo holds
      # @return [Float] seconds from the start of the song
      def seconds_at(tick)
        stretch = stretch_at(tick)
        stretch.seconds + stretch.seconds_after(tick - stretch.tick)
      end

      # @example
      #   TempoMap.steady(120.0).tick_at(2.5) #=> 4800.0
      # @param seconds [Numeric] seconds from the start of the song
      # @return [Float] ticks, the inverse of {#seconds_at}
      def tick_at(seconds)
        i = stretches.bsearch_index { |s| s.seconds > seconds } || stretches.size
        stretch = stretches[[i - 1, 0].max]
        stretch.tick + stretch.ticks_after(seconds - stretch.seconds)
      end

      # @param list [Array<Numeric>] seconds from the start of the song, in order
      # @return [Array<Float>] {#tick_at} each of them
      def ticks_at(list)
        all, i = stretches, 0
        stretch, following = all[0], all[1]
        list.map do |seconds|
          stretch, following = following, all[(i += 1) + 1] while following && following.seconds <= seconds
          stretch.tick + stretch.ticks_after(seconds - stretch.seconds)
        end
      end

      # @return [Array<TempoPoint>] points that say the same with fewer
      def self.plain(points)
        points.each_with_object([]) do |point, list|
          list << point unless list.last&.shape == "hold" && point.shape == "hold" && list.last.bpm == point.bpm
        end
      end

      # @return [Float, nil] seconds to a tick where one tempo holds throughout
      def steady_pace = (60.0 / PPQ / points.first.bpm if points.size == 1)

      # Ticks strictly between two at which a tempo point stands.
      # @return [Array<Integer>]
      def changes(from, to)
        ticks = memo(:ticks) { points.map(&:tick) }
        first = ticks.bsearch_index { |tick| tick > from } || ticks.size
        ticks[first...(ticks.bsearch_index { |tick| tick >= to } || ticks.size)]
      end

      # The tempo come to at a tick, before any jump there.
      # @return [Float] quarter notes per minute
      def bpm_before(tick)
        last = points.take_while { |point| point.tick < tick }.last or return points.first.bpm
        last.shape == "hold" ? last.bpm : bpm_toward(last, tick)
      end

      # The tick -> seconds relation as corners of a line chain that stays within `tolerance` seconds.
      # @return [Array<Array(Numeric, Float)>]
      def clock(tolerance: 0.0005)
        ticks = stretches.flat_map { |s| s.even_ticks(tolerance) }
        ticks << (ticks.last + PPQ)
        ticks.map { |tick| [tick, seconds_at(tick)] }
      end

      private

      # Straight from a point to the next one.
      def bpm_toward(point, tick)
        following = points[points.index(point) + 1]
        return point.bpm unless following

        point.bpm + ((following.bpm - point.bpm) * (tick - point.tick).fdiv(following.tick - point.tick))
      end

      def stretches = @memo[:stretches] ||= build_stretches

      def stretch_at(tick)
        return stretches.first if stretches.size == 1

        i = stretches.bsearch_index { |s| s.tick > tick } || stretches.size
        stretches[[i - 1, 0].max]
      end

      def build_stretches
        seconds = 0.0
        points.each_with_index.map do |point, i|
          following = points[i + 1]
          end_bpm = following && point.shape == "straight" ? following.bpm : point.bpm
          stretch = Stretch.new(point.tick, following&.tick, point.bpm.to_f, end_bpm.to_f, seconds)
          seconds += stretch.seconds_after(following.tick - point.tick) if following
          stretch
        end
      end

      # The song between two tempo points. `end_tick` is nil for the last.
      Stretch = Struct.new(:tick, :end_tick, :bpm, :end_bpm, :seconds) do
        def steady? = end_bpm == bpm

        # BPM per tick.
        def slope = (end_bpm - bpm) / (end_tick - tick)

        # @return [Float] so many ticks into the stretch
        def bpm_after(ticks) = steady? ? bpm : bpm + (slope * ticks)

        # @return [Float] how long so many ticks of it take
        def seconds_after(ticks)
          return 60.0 * ticks / PPQ / bpm if steady? || ticks.negative?

          60.0 / PPQ / slope * log_of_one_and(slope * ticks / bpm)
        end

        # ln(1 + x), exact for small x too.
        def log_of_one_and(number)
          sum = 1 + number
          sum == 1 ? number : Math.log(sum) * number / (sum - 1)
        end

        # @return [Float] how many ticks pass in so many seconds of it
        def ticks_after(seconds)
          return seconds * bpm * PPQ / 60 if steady? || seconds.negative?

          bpm / slope * (Math.exp(seconds * slope * PPQ / 60) - 1)
        end

        # @return [Array<Float>] ticks between which seconds go straight, to a tolerance
        def even_ticks(tolerance)
          return [tick] if steady?

          # A chord strays by its width squared times the second derivative over 8; the clock bends most where it is
          # slow.
          bend = 60.0 / PPQ * slope.abs / ([bpm, end_bpm].min**2)
          count = [((end_tick - tick) * Math.sqrt(bend / 8 / tolerance)).ceil, 1].max
          (0...count).map { |i| tick + ((end_tick - tick) * i / count.to_f) }
        end
      end
      private_constant :Stretch
    end
  end
end
