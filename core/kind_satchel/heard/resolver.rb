# frozen_string_literal: true

module KindSatchel
  module Heard
    # The value of one parameter over a song: a pure function of song and tick.
    #
    # @example
    #   Resolver.new(song, Address.parse("rope-bass/synth/cutoff")).at(4800).round(2) #=> 0.37
    class Resolver
      attr_reader :song, :address, :parameter, :acting, :amounts, :driven

      # @param song [Song]
      # @param address [Address]
      # @param except [Array<String>] ids of envelopes that are left out
      # @param frame [Frame, nil] in what settings of moves, and all on the way to them, are resolved; nil for the song
      # @raise [NotFound] when the address names nothing
      def initialize(song, address, except: [], frame: nil)
        @song = song
        @address = address
        @parameter = song.parameter(address)
        @acting = Acting.new(song, address, except:, frame:)
        @amounts = Amounts.new(@acting)
        @driven = Driven.of(song, address, frame)
      end

      # @param tick [Integer]
      # @return [Float] normalised, as heard
      def at(tick) = scale.heard(raw(tick))

      # @return [Float] normalised, neither limited nor stepped
      def raw(tick)
        set, scales, shifts = @amounts.by_role_at(tick)
        value = set || knob_at(tick)
        scales&.each { |amount| value = scale.scaled(value, amount) }
        shifts&.each { |amount| value = scale.shifted(value, amount) }
        value
      end

      # The value after a source has acted on it.
      # @param tick [Numeric] where
      def applied(source, value, amount, tick)
        case source.envelope.role
        when "scale" then scale.scaled(value, amount)
        when "shift" then scale.shifted(value, amount)
        else
          factor, offset = @amounts.line(source.envelope, tick)
          factor ? (amount * factor) + offset : amount
        end
      end

      # What the knob comes to at a tick: its rest, what a hand holds, or what a macro makes of it.
      # @return [Float]
      def knob_at(tick) = @driven ? @driven.at(tick) : knob

      # Whether nothing ever acts on it, no hand and no macro either.
      def idle? = @driven.nil? && @acting.idle?

      # The value at many ticks in rising order.
      # @return [Array<Float>]
      def at_each(ticks) = ticks.empty? ? [] : Pieces.read(pieces(ticks.first, ticks.last + 1), ticks)

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Piece>] in order, without gaps
      # @raise [TooManyPieces]
      def pieces(from, to)
        lists = @amounts.spans(from, to)
        sets = @driven ? under(lists["set"], from, to) : lists["set"]
        Pieces.new(scale, knob, sets, *lists.values_at("scale", "shift")).between(from, to)
      end

      # What is heard stays between these over a stretch, or a little wider: known from the bounds of what acts,
      # however often it repeats.
      # @return [Array(Float, Float)] normalised
      def between(from, to)
        bounds = bounds_by_role(from, to)
        value = bounds["set"]
        value = scale.scaled_jet(value, bounds["scale"]) if bounds["scale"]
        value = scale.shifted_jet(value, bounds["shift"]) if bounds["shift"]
        [scale.heard(value.low), scale.heard(value.high)]
      end

      # What is heard where nothing acts: the resting value, or what a hand holds.
      def knob = @knob ||= @song.held_value(@address) || @song.knob(@address)

      # @return [Scales::Scale]
      def scale = @parameter.scale

      private

      # What is driven lies beneath all that sets.
      def under(sets, from, to)
        base = @driven.arcs(from, to)
        sets.any? ? [*base, *sets].sort_by.with_index { |arc, i| [arc.from, i] } : base
      end

      # By role, what the amounts stay between; what changes nothing is among them unless something acts throughout.
      # @return [Hash{String=>Jet}]
      def bounds_by_role(from, to)
        found, covered = { "set" => [] }, {}
        @amounts.each_bound(from, to) do |role, low, high, throughout|
          (found[role] ||= []) << low << high
          covered[role] = true if throughout
        end
        found.to_h do |role, list|
          list += rest(role, from, to) unless covered[role]
          [role, Jet.new(*list.minmax, 0.0, 0.0)]
        end
      end

      def rest(role, from, to)
        return [Roles::ALL.fetch(role).neutral] unless role == "set"

        @driven ? @driven.bounds(from, to) : [knob]
      end
    end

    Evaluation.signals = ->(song, address, frame) { Resolver.new(song, address, frame:) }
  end
end
