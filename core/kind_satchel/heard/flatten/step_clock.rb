# frozen_string_literal: true

module KindSatchel
  module Heard
    # Where steps of a note length begin: at every tick that is a whole multiple of the length that holds there,
    # counted from the start of the song. So a step is a pure function of song and tick, also while the length moves.
    class StepClock
      # A step reaches no further than this.
      LONGEST_TICKS = Scales::NoteLength::TICKS.max

      # @param song [Song]
      # @param address [Address] of a note length
      def initialize(song, address)
        @resolver = Resolver.new(song, address)
      end

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Array(Integer, Integer)>] tick and length of every step that begins there, in order
      def steps(from, to)
        if still?
          return begins([from, 0].max, to, scale.ticks(@resolver.knob)).map do |tick|
            [tick, scale.ticks(@resolver.knob)]
          end
        end

        ticks = begins([from, 0].max, to, Scales::NoteLength::COMMON_TICKS)
        lengths = @resolver.at_each(ticks).map { |value| scale.ticks(value) }
        ticks.zip(lengths).select { |tick, length| (tick % length).zero? }
      end

      private

      def still? = @resolver.acting.held? || @resolver.idle?

      # Multiples of a length.
      def begins(from, to, length)
        first = from + (-from % length)
        first < to ? (first...to).step(length).to_a : []
      end

      def scale = @resolver.scale
    end
  end
end
