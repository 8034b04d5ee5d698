# frozen_string_literal: true

module KindSatchel
  module Heard
    # When a clip's own chain is heard, and what its dials do meanwhile: what a sound engine needs to know of it.
    class OwnChain
      # @param song [Song]
      # @param clip [Clip]
      def initialize(song, clip)
        @song = song
        @clip = clip
      end

      # Where its regions sound, in song ticks; those that adjoin are one.
      # @return [Array<Array(Integer, Integer)>]
      def stretches
        regions = @song.directory.regions_of_clip(@clip.id).map(&:region).reject(&:muted).sort_by(&:start_tick)
        @stretches ||= regions.each_with_object([]) do |region, all|
          if all.any? && all.last[1] == region.start_tick
            all.last[1] =
              region.end_tick
          else
            all << [region.start_tick, region.end_tick]
          end
        end
      end

      # Whether it is heard, as ramps: second, 1 or 0, ...; two corners on one second are a jump.
      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Float>]
      def gate(from, to)
        each_part(from, to).flat_map do |start, finish, heard|
          [seconds(start), heard ? 1 : 0, seconds(finish), heard ? 1 : 0]
        end
      end

      # Ramps of one of its parameters. Between its regions each holds the last value it had in one, so that tails
      # ring on as they were; before the first it waits on what it begins with.
      # @param resolver [Resolver]
      # @return [Array<Float>] see {Ramps#flat}
      def ramps(resolver, from, to)
        each_part(from, to).flat_map do |start, finish, heard|
          heard ? Ramps.new(resolver).flat(start, finish) : level(start, finish, resolver)
        end
      end

      private

      # @return [Array<Array(Integer, Integer, Boolean)>] parts that make up from...to, and whether it is heard there
      def each_part(from, to)
        at = from
        inside = stretches.select { |start, finish| finish > from && start < to }
        parts = inside.flat_map do |start, finish|
          start, finish, before, at = [start, from].max, [finish, to].min, at, [finish, to].min
          [[before, start, false], [start, finish, true]]
        end
        (parts << [at, to, false]).reject { |start, finish, _| start == finish }
      end

      def level(start, finish, resolver)
        value = resolver.scale.engine(resolver.at(rest_tick(start)))
        [seconds(start), value, seconds(finish), value]
      end

      # The last tick before one at which it was heard; else the first at which it will be.
      def rest_tick(tick)
        past = stretches.reverse_each.find { |_, finish| finish <= tick }
        past ? past[1] - 1 : stretches.first&.first || tick
      end

      def seconds(tick) = @song.tempo.seconds_at(tick)
    end
  end
end
