# frozen_string_literal: true

module KindSatchel
  module Follow
    # Turns a level from moment to moment into shares 0..1.
    #
    # A one-pole follower: of every step of `dt` seconds it makes 1 - e^(-dt / t) of what is left, where t is the
    # attack while the level rises, the release while it falls; so after one time constant it has come 63.2 % of the
    # way (common practice). Then a running mean over `smooth` seconds, then decibels under the loudest: 0 at `floor`,
    # 1 at the loudest.
    class Follower
      # @param attack [Float] seconds
      # @param release [Float] seconds
      # @param smooth [Float] seconds
      # @param floor [Float, nil] decibels under the loudest; nil where the level itself is the share
      # @param over [Boolean]
      def initialize(attack:, release:, smooth: 0.0, floor: nil, over: false)
        @attack, @release, @smooth, @floor, @over = attack, release, smooth, floor, over
      end

      # @param levels [Array<Float>] amplitudes, 0 for silence
      # @param step [Float] seconds from one to the next
      # @param loops [Boolean] whether the end goes over into the start
      # @return [Array<Float>] as many shares
      def shares(levels, step, loops: false)
        followed = follow(levels, step, loops ? follow(levels, step, 0.0).last.to_f : 0.0)
        followed = mean(followed, (@smooth / step).round, loops) if @smooth > step
        shared(followed, levels.max || 0.0)
      end

      private

      def follow(levels, step, state)
        rise, fall = [@attack, @release].map { |time| time.positive? ? 1 - Math.exp(-step / time) : 1.0 }
        levels.map { |level| state += (level - state) * (level > state ? rise : fall) }
      end

      # Over an odd number of places about each.
      def mean(list, width, loops)
        half = [width / 2, (list.size - 1) / 2].min
        return list if half < 1

        padded = loops ? list.last(half) + list + list.first(half) : ([list.first] * half) + list + ([list.last] * half)
        sums = padded.each_with_object([0.0]) { |value, all| all << (all.last + value) }
        Array.new(list.size) { |i| (sums[i + (2 * half) + 1] - sums[i]) / ((2 * half) + 1) }
      end

      def shared(list, loudest)
        list.map do |level|
          share = @floor ? under(level, loudest) : level
          share = share.clamp(0.0, 1.0)
          @over ? 1 - share : share
        end
      end

      def under(level, loudest)
        level.positive? && loudest.positive? ? 1 - (20 * Math.log10(level / loudest) / @floor) : 0.0
      end
    end
  end
end
