# frozen_string_literal: true

module KindSatchel
  module Heard
    # The value of one parameter over a song: a pure function of song and tick.
    #
    # @example
    #   Resolver.new(song, Address.parse("rope-bass/synth/cutoff")).at(4800)
    class Resolver
      attr_reader :song, :address, :parameter, :acting, :driven

      # @param except [Array<String>] ids of envelopes that are left out
      # @param frame [Frame, nil] in what settings of moves, and all on the way to them, are resolved; nil for the song
      # @raise [NotFound] when the address names nothing
      def initialize(song, address, except: [], frame: nil)
        @song = song
        @address = address
        @parameter = song.parameter(address)
        @acting = Acting.new(song, address, except:, frame:)
        @driven = Driven.of(song, address, frame)
      end

      # @param tick [Integer]
      # @return [Float] normalised, as heard
      def at(tick) = scale.heard(raw(tick))

      # @return [Float] normalised, neither limited nor stepped
      def raw(tick)
        set, scales, shifts = @acting.amounts_at(tick)
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
          factor, offset = @acting.line(source.envelope, tick)
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
      def at_each(ticks) = ticks.empty? ? [] : Resolver.read(pieces(ticks.first, ticks.last + 1), ticks)

      # The values that pieces have at ticks in rising order, all of which they cover.
      # @return [Array<Float>]
      def self.read(pieces, ticks)
        size = ticks.size
        values, room, first = Array.new(size), Array.new(size), 0
        pieces.each do |piece|
          to, last = piece.to, first
          last += 1 while last < size && ticks[last] < to
          piece.read(ticks, first, last, values, room) if last > first
          first = last
        end
        values
      end

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Piece>] in order, without gaps
      def pieces(from, to)
        lists = @acting.spans(from, to)
        sets = @driven ? under(lists["set"], from, to) : lists["set"]
        Pieces.new(scale, knob, sets, *lists.values_at("scale", "shift")).between(from, to)
      end

      # What is driven lies beneath all that sets.
      def under(sets, from, to)
        base = @driven.arcs(from, to)
        sets.any? ? [*base, *sets].sort_by.with_index { |arc, i| [arc.from, i] } : base
      end

      # What is heard where nothing acts: the resting value, or what a hand holds.
      def knob = @knob ||= @song.held_value(@address) || @song.knob(@address)
      def scale = @parameter.scale
    end

    # Cuts what acts into pieces.
    class Pieces
      # @param sets [Array<Arc>] by start, like the other lists
      def initialize(scale, knob, sets, scales, shifts)
        @scale = scale
        @knob = knob
        @sets = sets
        @scales = scales
        @shifts = shifts
      end

      def between(from, to)
        return one_by_one(from, to) if @scales.empty? && @shifts.empty? && apart?

        rows = [@sets, @scales, @shifts].map { |list| Row.new(list) }
        cuts(from, to).each_cons(2).map do |start, finish|
          sets, scales, shifts = rows.map { |row| row.at(start) }
          Piece.new(start, finish, @scale, @knob, sets.last, scales, shifts)
        end
      end

      private

      # Whether one thing at a time sets the value: the commonest case by far.
      def apart? = @sets.each_cons(2).all? { |a, b| b.from >= a.to }

      def one_by_one(from, to)
        list = []
        at = from
        @sets.each do |span|
          list << Piece.new(at, span.from, @scale, @knob, nil) if span.from > at
          list << Piece.new(span.from, at = span.to, @scale, @knob, span)
        end
        list << Piece.new(at, to, @scale, @knob, nil) if to > at
        list
      end

      def cuts(from, to)
        list = [from, to]
        [@sets, @scales, @shifts].each { |spans| spans.each { |span| list << span.from << span.to } }
        list.sort!
        list.uniq!
        list
      end

      # The spans of one role on their way through time; what is active, by turn.
      class Row
        def initialize(spans)
          @spans = spans
          @next = 0
          @active = Piece::NONE
        end

        # @param tick [Numeric] not before the one asked for last
        # @return [Array<Span>] a list of its own whenever it differs
        def at(tick)
          @active = @active.reject { |span| span.to <= tick } if @active.any? { |span| span.to <= tick }
          while @next < @spans.size && @spans[@next].from <= tick
            @active = [*@active, @spans[@next]].sort_by.with_index { |span, i| [span.source.turn, i] }
            @next += 1
          end
          @active
        end
      end
      private_constant :Row
    end
  end
end
