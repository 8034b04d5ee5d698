# frozen_string_literal: true

module KindSatchel
  module Heard
    # An envelope whose settings are moved, in one frame: what it gives, as arcs.
    class LiveMove
      # @param region [Region, nil] of the song; nil for a lane
      # @return [LiveMove, nil] nil where nothing moves or holds a setting of it, and it does not go by the clock
      def self.of(song, envelope, region = nil)
        return unless song.directory.moved_settings.key?(envelope.id) || envelope.live?

        Evaluation.of(song, region).move(envelope)
      end

      # The first run of an envelope in a region, or on its track, from its own start on.
      # @param home [Directory::Home]
      # @param region [Region, nil] nil for a lane
      # @param extent [Numeric] how far, in its own time
      # @return [Clocks::Run]
      def self.run(song, home, region, extent)
        return Clocks::Run.new(0, 0, extent) unless region

        reach = Frame.of(song, region).reach
        pace = home.envelope.clock_rules.pace(region, home.clip, home.envelope) || 1
        Clocks.enum_for(:each_run, reach, home.clip, home.envelope, reach.start_tick,
                        reach.start_tick + (extent / pace).ceil).first
      end

      # @param evaluation [Evaluation] of the region it sounds in, or of the song for a lane
      # @param envelope [Envelope]
      def initialize(evaluation, envelope)
        @envelope = envelope
        @settings = %w[low high depth].map { |name| Setting.new(evaluation, envelope, name) }
        @least, @most = envelope.lfo? ? [0.0, 1.0] : Roles.full(envelope.role)
        @base = base(evaluation)
      end

      # Whether its depth or one of its limits is moved.
      def limits_move? = @settings.any?(&:moved?)

      # The amounts it may give.
      def allowed = @envelope.role_rules.values

      # What its source gives, before limits and depth, from {#least} to {#most}.
      def each_base_arc(run, source, &) = @base.each_arc(run, source, &)
      attr_reader :least, :most

      # Every smooth stretch that reaches into a run, in order.
      # @param run [Clocks::Run]
      # @param source [Source]
      # @param line [Array(Float, Float), nil] what is made of the amounts in the end
      # @yieldparam arc [Arc]
      def each_arc(run, source, line = nil)
        parts = @settings.map { |setting| Cursor.new(setting.arcs(run.from, run.to)) }
        @base.each_arc(run, source) do |arc|
          Cursor.each_stretch(parts, arc.from, arc.to) do |from, to|
            yield between(arc, from, to, parts.map(&:arc), line || PLAIN)
          end
        end
      end
      PLAIN = [1.0, 0.0].freeze

      # The amount at a tick of a run; nil when empty.
      # @return [Float]
      def at(run, tick)
        value = @base.at(run, tick) or return
        low, high, depth = @settings.map { |setting| setting.at(tick) }
        rest = @envelope.role_rules.neutral || ((low + high) / 2.0)
        rest + (depth * (low + ((high - low) * share(value)) - rest))
      end

      # The phase of an LFO at a tick of a run, whole cycles counted.
      def phase(run, tick)
        @base.is_a?(MovedWave) ? @base.phase(run, tick) : @envelope.source.phase_at(run.position(tick))
      end

      # How many cycles an LFO goes through over a stretch of song, in one run.
      def cycles(from, to)
        @base.is_a?(MovedWave) ? @base.cycles(from, to) : (to - from) / @envelope.source.cycle_ticks.to_f
      end

      # What it stays between over a stretch of song, or a little wider.
      # @return [Array(Float, Float)]
      def bounds(from, to)
        return @bounds ||= between_limits(from, to) unless limits_move?

        between_limits(from, to)
      end

      private

      def between_limits(from, to)
        low, high, depths = @settings.map { |setting| setting.bounds(from, to) }
        ends, rest = [*low, *high], @envelope.role_rules.neutral
        rest ? ends.product(depths).map { |amount, depth| rest + (depth * (amount - rest)) }.minmax : ends.minmax
      end

      def share(value) = (value - @least) / (@most - @least)

      def base(evaluation)
        return Steady.new(@envelope.bare) unless @envelope.lfo?

        rate, wave = %w[rate wave].map { |name| Setting.new(evaluation, @envelope, name) }
        held = %w[rate wave].any? { |name| @envelope.held.key?(name) }
        by_phase = held || rate.moved? || wave.moved? || @envelope.source.free?
        return MovedWave.new(evaluation, @envelope, rate, wave) if by_phase

        Steady.new(@envelope.with(role: "set", limits: [0.0, 1.0], depth: 1.0, fader: "follow"))
      end

      def between(arc, from, to, (low, high, depth), line)
        rest = @envelope.role_rules.neutral
        factor = 1 / (@most - @least)
        unless [low, high, depth].all?(&:still?)
          share = @least.zero? && @most == 1 ? arc : arc.lined(from, to, factor, -@least * factor)
          return Limited.new(share, from, to, Limited::Settings.new(low, high, depth, rest), line)
        end

        low, high, depth = [low, high, depth].map { |one| one.at(from) }
        rest ||= (low + high) / 2.0
        times = factor * (high - low) * depth
        plus = rest + (depth * (low - rest)) - (@least * times)
        arc.lined(from, to, times * line[0], (plus * line[0]) + line[1])
      end

      # What has no setting that moves it on its way.
      class Steady
        def initialize(envelope) = @envelope = envelope

        def each_arc(run, source)
          @envelope.each_segment(run) do |turn, segment|
            span = Span.new(turn, segment, source)
            yield span if span.to > span.from
          end
        end

        def at(run, tick) = @envelope.at(run.position(tick))
      end

      private_constant :Steady
    end
  end
end
