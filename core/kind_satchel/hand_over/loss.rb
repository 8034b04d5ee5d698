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
        largest, place, area, was, at = 0.0, before.ticks[0], 0.0, nil, nil
        while (tick = [one.tick, other.tick].min) < Side::NO_MORE
          one.take(tick)
          other.take(tick)
          apart = one.apart(other)
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

        attr_reader :tick, :before, :after

        def initialize(course)
          @ticks = course.ticks
          @values = course.values
          @scale = course.scale
          @gain = @scale.gain?
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
