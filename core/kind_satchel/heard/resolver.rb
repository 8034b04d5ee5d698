# frozen_string_literal: true

module KindSatchel
  module Heard
    # The value of one parameter over a song: a pure function of song and tick.
    #
    # @example
    #   Resolver.new(song, Address.parse("rope-bass/synth/cutoff")).at(4800)
    class Resolver
      attr_reader :song, :address, :parameter

      # @param only [Array<String>, nil] ids of the regions that count; nil for all
      # @raise [NotFound] when the address names nothing
      def initialize(song, address, only: nil)
        @song = song
        @address = address
        @parameter = song.parameter(address)
        @layers = Layers.new(song, address, only:)
      end

      # @param tick [Integer]
      # @return [Float] normalised, as heard
      def at(tick) = pieces(tick, tick + 1).first.at(tick)

      # The value at many ticks in rising order.
      # @return [Array<Float>]
      def at_each(ticks) = ticks.empty? ? [] : Resolver.read(pieces(ticks.first, ticks.last + 1), ticks)

      # The values that pieces have at ticks in rising order, all of which they cover.
      # @return [Array<Float>]
      def self.read(pieces, ticks)
        i = 0
        ticks.map do |tick|
          i += 1 while pieces[i].to <= tick
          pieces[i].at(tick)
        end
      end

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Piece>] in order, without gaps
      def pieces(from, to)
        spans = @layers.spans(from, to)
        cuts = cuts(spans, from, to)
        active, i = [], 0
        cuts.each_cons(2).map do |start, finish|
          active = active.reject { |span| span.to <= start } unless active.empty?
          while i < spans.size && spans[i].from <= start
            active += [spans[i]]
            i += 1
          end
          Piece.new(start, finish, scale, knob, in_order(active))
        end
      end

      def knob = @knob ||= @song.knob(@address)
      def scale = @parameter.scale

      private

      def cuts(spans, from, to)
        list = [from, to]
        spans.each { |span| list << span.from << span.to }
        list.sort!
        list.uniq!
        list
      end

      # In the order in which they act; whatever a later one sets anew is left out.
      def in_order(active)
        return active if active.size < 2

        sorted = active.sort_by(&:order)
        last_set = sorted.rindex { |span| span.rules.equal?(Roles::Set) }
        last_set ? sorted[last_set..] : sorted
      end
    end
  end
end
