# frozen_string_literal: true

module KindSatchel
  # How an envelope's own time runs while a region sounds. With e the ticks into the region plus its offset, a clock
  # maps e to a position in the envelope. Each clock answers:
  #
  # - `pace(region, clip, envelope)` envelope ticks per song tick; nil for one to one
  # - `pass_ticks(region, clip, envelope)` ticks of e after which it restarts; nil when it does not
  module Clocks
    # One stretch without a restart, in song ticks: position 0 lies at `zero` (maybe before the region), `pace`
    # envelope ticks pass per song tick (nil: one), and it sounds for `from` <= tick < `to`. `ahead` is what of it had
    # passed when what is looked at began, in envelope ticks: positions are counted from there.
    Run = Struct.new(:zero, :from, :to, :pace, :ahead) do
      # @return [Numeric] in the envelope's own time
      def position(tick) = pace ? ((tick - zero) * pace) - (ahead || 0) : tick - zero
      # The song tick of a position, on the {Grid}.
      def tick(position) = zero + (pace ? Grid.ticks((position + (ahead || 0)) / pace) : position)

      # The same run, its positions counted from one of them.
      def counted_from(position) = pace ? Run.new(zero, from, to, pace, position) : Run.new(zero + position, from, to)
    end

    # Restarts with every repeat of the material: e mod length, or e when the region does not loop.
    module EachLoop
      def self.pace(*) = nil
      def self.pass_ticks(region, clip, _envelope) = region.looped ? clip.length_ticks : nil
    end

    # Runs on over all the repeats: e.
    module Once
      def self.pace(*) = nil
      def self.pass_ticks(*) = nil
    end

    # Fills the region's span: e / span * envelope length.
    module Stretched
      def self.pace(region, clip, envelope) = (envelope.own_length_ticks || clip.length_ticks).fdiv(region.span_ticks)
      def self.pass_ticks(*) = nil
    end

    # Repeats by a length of its own: e mod N.
    module OwnLength
      def self.pace(*) = nil
      def self.pass_ticks(_region, clip, envelope) = envelope.own_length_ticks || clip.length_ticks
    end

    ALL = Registry.new("clock", "each_loop" => EachLoop, "once" => Once, "stretched" => Stretched,
                                "own_length" => OwnLength)

    module_function

    # The runs of an envelope that sound somewhere in from...to, cut to it.
    # @yieldparam run [Run]
    def each_run(region, clip, envelope, from, to, &)
      clock = envelope.clock_rules
      each_pass(region, clock.pass_ticks(region, clip, envelope), clock.pace(region, clip, envelope), from, to, &)
    end

    # The same for the material itself.
    def each_material_pass(region, clip, from, to, &)
      each_pass(region, region.looped ? clip.length_ticks : nil, nil, from, to, &)
    end

    # @return [Numeric] the position in the envelope at a song tick inside the region
    def position(region, clip, envelope, tick)
      clock = envelope.clock_rules
      e = tick - region.start_tick + region.offset_ticks
      pass = clock.pass_ticks(region, clip, envelope)
      return e % pass if pass

      pace = clock.pace(region, clip, envelope)
      pace ? e * pace : e
    end

    # @return [Integer, nil] ticks after which an envelope of its own length and the loop begin together again: the
    #   least common multiple (7 beats over 4 meet after 28); nil for other clocks
    def meeting(clip, envelope)
      envelope.own_length_ticks&.lcm(clip.length_ticks) if envelope.clock == "own_length"
    end

    # Where in a region an envelope of its own length and the loop begin together again.
    # @param most [Integer] how many of them at most
    # @return [Array<Integer>] song ticks
    def meeting_ticks(region, clip, envelope, most)
      every = region.looped ? meeting(clip, envelope) : nil
      return [] unless every

      zero = region.start_tick - region.offset_ticks
      first = zero + (((region.offset_ticks / every) + 1) * every)
      first.step(region.end_tick - 1, every).first(most)
    end

    # How much of its own time an envelope is heard of at most, in ticks.
    # @param home [Directory::Home]
    def extent(song, home)
      return [song.length_ticks, song.range.end_tick].max if home.track

      clip, envelope = home.clip, home.envelope
      heard = song.directory.regions_of_clip(clip.id).map do |placed|
        region = placed.region
        whole = region.offset_ticks + region.length_ticks
        rules = envelope.clock_rules
        rules.pass_ticks(region, clip, envelope) || (whole * (rules.pace(region, clip, envelope) || 1)).ceil
      end
      [clip.length_ticks, *heard].max
    end

    def each_pass(region, pass, pace, from, to)
      from, to = [from, region.start_tick].max, [to, region.end_tick].min
      return unless to > from

      zero = region.start_tick - region.offset_ticks
      return yield(Run.new(zero, from, to, pace)) unless pass

      zero += (from - zero).div(pass) * pass
      while zero < to
        yield Run.new(zero, [zero, from].max, [zero + pass, to].min, nil)
        zero += pass
      end
    end
    private_class_method :each_pass
  end
end
