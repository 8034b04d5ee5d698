# frozen_string_literal: true

module KindSatchel
  module Heard
    # What a step gate lets through, as ramps: step after step counted from the start of the song, each at the level
    # that holds where it begins. Depth and softness are left to the sound engine.
    class StepGate
      # @param song [Song]
      # @param owner [Track, Clip]
      # @param device [Device] a step gate
      def initialize(song, owner, device)
        @song = song
        @owner = owner
        @device = device
      end

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Float>] second, level 0..1, second, level, ...; two corners on one second are a jump
      def flat(from, to)
        clock = StepClock.new(@song, address("note"))
        steps = clock.steps([from - (2 * StepClock::LONGEST_TICKS), 0].max, to)
        first = steps.rindex { |tick, _| tick <= from } || 0
        steps = steps.drop(first)
        steps.each_with_index.flat_map do |(tick, length), i|
          value, finish = level(tick, length), i + 1 < steps.size ? steps[i + 1][0] : to
          [seconds([tick, from].max), value, seconds(finish), value]
        end
      end

      private

      def level(tick, length)
        count = resolver("count")
        place = (tick / length) % count.scale.natural(count.at(tick)).round
        levels = resolver("step-#{place + 1}")
        levels.scale.engine(levels.at(tick))
      end

      def resolver(id) = (@resolvers ||= {})[id] ||= Resolver.new(@song, address(id))
      def address(id) = Address.new(owner_id: @owner.chain_id, device_id: @device.id, parameter_id: id)
      def seconds(tick) = @song.tempo.seconds_at(tick)
    end
  end
end
