# frozen_string_literal: true

module KindSatchel
  module Heard
    # One setting of a move in a frame (see {Settings}), in its natural values: a depth as 0..1, limits as amounts, a
    # rate in cycles to a quarter note (of a free LFO in Hz), a wave by name.
    class Setting
      # @param evaluation [Evaluation] of a frame
      # @param envelope [Envelope]
      # @param name [String]
      def initialize(evaluation, envelope, name)
        @envelope = envelope
        @name = name
        address = Address.setting(envelope.id, name)
        if evaluation.song.directory.moved_settings.fetch(envelope.id, []).include?(name)
          @signal = evaluation.signal(address)
        end
        @signal = nil if @signal&.idle?
      end

      # Whether anything acts on it anywhere.
      def moved? = !@signal.nil?

      # @return [#at, #pieces, nil] what it is as a parameter, see {Evaluation}; nil where it rests
      attr_reader :signal

      # What it is where nothing moves it: the very number that was set, or what a hand holds it at.
      def resting
        held = @envelope.held[@name]
        return natural(held) if held

        case @name
        when "depth" then @envelope.depth
        when "low" then @envelope.limits[0]
        when "high" then @envelope.limits[1]
        when "rate" then @envelope.source.hertz || (Timing::PPQ / @envelope.source.cycle_ticks.to_f)
        else @envelope.source.wave
        end
      end

      def at(tick) = moved? ? natural(@signal.at(tick)) : resting

      # Of a setting that is a number along its travel.
      # @return [Array<Arc>] in order, without gaps
      def arcs(from, to)
        return [Level.new(from, to, resting)] unless moved?

        low, high = natural(0.0), natural(1.0)
        Within.arcs(@signal, from, to).map do |arc|
          low.zero? && high == 1 ? arc : arc.lined(arc.from, arc.to, high - low, low)
        end
      end

      # What it stays between.
      # @return [Array(Float, Float)]
      def bounds(from, to)
        return [resting, resting] unless moved?

        @signal.between(from, to).map { |value| natural(value) }
      end

      # Of the wave.
      # @return [Array<Array(Numeric, Numeric, String)>] from, to, wave
      def waves(from, to)
        return [[from, to, resting]] unless moved?

        steps = @signal.pieces(from, to).flat_map { |piece| Steps.of(piece) }
        steps.filter_map { |start, finish, value| [start, finish, natural(value)] if finish > start }
      end

      private

      def natural(value)
        case @name
        when "depth" then value
        when "rate" then (@envelope.source.free? ? Settings::FREE_RATE : Settings::RATE).scale.natural(value)
        when "wave" then Settings.wave(value)
        else
          allowed = @envelope.role_rules.values
          allowed.min + (value * (allowed.max - allowed.min))
        end
      end
    end
  end
end
