# frozen_string_literal: true

module KindSatchel
  # How an envelope's own time runs while a region sounds. With e the ticks into the region plus its offset, a
  # clock maps e to a position in the envelope. A run is one stretch without a restart: from `start` (in e, may
  # lie before the region's offset), `rate` envelope ticks pass per tick of e, from position 0.
  module Clocks
    Run = Struct.new(:start, :finish, :rate)

    # Restarts with every repeat of the material: e mod length, or e when the region does not loop.
    module EachLoop
      def self.runs(region, clip, _envelope)
        region.looped ? Clocks.repeats(region, clip.length_ticks) : Clocks.single(region)
      end
    end

    # Runs on over all the repeats: e.
    module Once
      def self.runs(region, _clip, _envelope) = Clocks.single(region)
    end

    # Fills the region's span: e / span * envelope length.
    module Stretched
      def self.runs(region, clip, envelope)
        length = envelope.own_length_ticks || clip.length_ticks
        Clocks.single(region, Rational(length, region.span_ticks))
      end
    end

    # Repeats by a length of its own: e mod N.
    module OwnLength
      def self.runs(region, clip, envelope) = Clocks.repeats(region, envelope.own_length_ticks || clip.length_ticks)
    end

    ALL = Registry.new("clock", "each_loop" => EachLoop, "once" => Once, "stretched" => Stretched, "own_length" => OwnLength)

    # @return [Integer, nil] ticks after which an envelope of its own length and the loop begin together again: the least
    #   common multiple (7 beats over 4 meet after 28); nil for other clocks
    def self.meeting(clip, envelope)
      envelope.own_length_ticks&.lcm(clip.length_ticks) if envelope.clock == "own_length"
    end

    def self.single(region, rate = 1) = [Run.new(0, region.offset_ticks + region.length_ticks, rate)]

    def self.repeats(region, length)
      first = region.offset_ticks / length
      last = (region.offset_ticks + region.length_ticks - 1) / length
      (first..last).map { |i| Run.new(i * length, (i + 1) * length, 1) }
    end
  end
end
