# frozen_string_literal: true

module KindSatchel
  module HandOver
    # What one parameter loses on its way out. `points` is how many it has afterwards, nil where it goes as it is; `largest` and `mean` are
    # differences in its own unit, the mean over the time of the song; `tick` is where the largest is; `why` says what else is to be known.
    class Loss < Value.of(:address, :points, :largest, :mean, :tick, :why)
      # What is softer than this counts as silence, in dB.
      SILENCE_DB = -60.0

      # @param before [Course]
      # @param after [Course]
      # @return [Array(Float, Float, Integer)] the largest difference in the unit of the scale, the mean one, and the tick of the largest
      def self.between(before, after)
        one, other = Side.new(before), Side.new(after)
        bent = !before.scale.linear?
        largest, place, area, was, at = 0.0, before.ticks[0], 0.0, nil, nil
        while (tick = [one.tick, other.tick].min) < Side::NO_MORE
          starts = [one.after, other.after] if bent && was
          one.take(tick)
          other.take(tick)
          apart = one.apart(other)
          if starts && tick - at > 1 && [was, apart].max * 2 > largest
            inner, share = Side.inside(one, other, starts)
            largest, place = inner, at + ((tick - at) * share).round if inner > largest
          end
          area += (was + apart) / 2 * (tick - at) if was
          largest, place = apart, tick if apart > largest
          was, at = one.apart_after(other), tick
          largest, place = was, tick if was > largest
        end
        length = before.ticks[-1] - before.ticks[0]
        [largest, length.zero? ? largest : area / length, place]
      end

      # A course on the way through its corners: its values before and after a tick, normalised and in its unit.
      class Side
        # After its last corner.
        NO_MORE = Float::INFINITY

        # Where it is looked between two corners: lines of the travel are curves in the unit.
        INSIDE = (1..7).map { |i| i / 8.0 }.freeze

        # @param starts [Array(Float, Float)] the values both had at the corner before
        # @return [Array(Float, Float)] how far they are apart at most between two corners, and which share of the way
        def self.inside(one, other, starts)
          one.shares(other, starts).map { |share| [one.apart_at(other, *starts, share), share] }.max || [0.0, 0.0]
        end

        # Decibels of two lines are furthest apart at an end, or where one comes to silence.
        def shares(other, starts)
          return INSIDE unless @gain

          [[starts[0], before], [starts[1], other.before]].filter_map do |from, to|
            (@silence - from) / (to - from) if (from - @silence) * (to - @silence) < 0
          end
        end

        attr_reader :tick, :before, :after

        def initialize(course)
          @ticks = course.ticks
          @values = course.values
          @scale = course.scale
          @gain = @scale.gain?
          @silence = @scale.normalised(SILENCE_DB) if @gain
          @at = 0
          @tick = @ticks[0]
        end

        # @param tick [Integer] not past the next corner
        def take(tick)
          return @before = @after = @at < @ticks.size ? between(tick) : @values[-1] if @tick > tick

          @before = @after = @values[@at]
          @at += 1
          while @ticks[@at] == tick
            @after = @values[@at]
            @at += 1
          end
          @tick = @ticks[@at] || NO_MORE
        end

        def apart(other) = before == other.before ? 0.0 : (natural(before) - natural(other.before)).abs

        def apart_at(other, own_start, other_start, share)
          (natural(own_start + ((before - own_start) * share)) - natural(other_start + ((other.before - other_start) * share))).abs
        end

        def apart_after(other)
          return apart(other) if after == before && other.after == other.before

          after == other.after ? 0.0 : (natural(after) - natural(other.after)).abs
        end

        private

        def natural(value)
          number = @scale.natural(value)
          @gain && number < SILENCE_DB ? SILENCE_DB : number
        end

        def between(tick)
          return @values[0] if @at.zero?

          from = @ticks[@at - 1]
          @values[@at - 1] + ((@values[@at] - @values[@at - 1]) * (tick - from) / (@ticks[@at] - from).to_f)
        end
      end
      private_constant :Side

      # @param song [Song]
      # @return [Hash] plain data, with numbers in words
      def to_record(song)
        scale = song.parameter(address).scale
        { "address" => address.to_s, "name" => "#{song.parameter_name(address)} of #{song.owner_name(address)}", "points" => points,
          "largest" => largest.round(6), "mean" => mean.round(6), "unit" => scale.unit.word, "largest_text" => text(scale, largest),
          "mean_text" => text(scale, mean), "tick" => tick, "position" => song.meters.text(tick), "why" => why }.compact
      end

      private

      # A difference in a unit: 3.2 dB.
      def text(scale, difference)
        return "none" if difference.round(6).zero?

        number = difference < 0.01 ? "less than 0.01" : Units.short(difference)
        "#{number} #{scale.unit.word}".strip
      end
    end
  end
end
