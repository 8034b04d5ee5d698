# frozen_string_literal: true

module KindSatchel
  module Heard
    # How far what is heard in one song lies from what is heard in another.
    module Difference
      # Where each piece is looked at, as shares of its length.
      SHARES = [0, 0.23, 0.5].freeze
      # Less than this is none: what adding up in another order leaves.
      NONE = 1e-9

      module_function

      # The largest difference of one parameter in from...to, as a share of the knob's travel; 0 for none. Points lie on whole
      # ticks, so what falls between two may come up to a tick early or late: that is no difference.
      # @return [Float]
      def largest(before, after, address, from, to)
        old, new = [before, after].map { |song| Resolver.new(song, address).pieces(from, to) }
        ticks = (looked_at(old) + looked_at(new)).map { |tick| tick.floor.clamp(from, to - 1) }.sort.uniq
        apart = ticks.zip(Resolver.read(old, ticks), Resolver.read(new, ticks)).select { |_, a, b| (a - b).abs > NONE }
        beyond(apart, new, from, to).max || 0.0
      end

      # @param share [Float]
      # @return [String] for people
      def words(share) = share < NONE ? "nothing heard changes" : "the largest difference heard is #{format('%.3g', share * 100)} % of the travel"

      # How far values lie outside what pieces have right around their ticks.
      def beyond(apart, pieces, from, to)
        around = apart.map { |tick,| [[tick - 1, from].max, tick, [tick + 1, to - 1].min] }
        all = around.flatten.sort.uniq
        near = all.zip(Resolver.read(pieces, all)).to_h
        apart.zip(around).map { |(_, value), places| near.values_at(*places).minmax.then { |low, high| [low - value, value - high, 0.0].max } }
      end

      def looked_at(pieces)
        pieces.flat_map { |piece| SHARES.map { |share| piece.from + ((piece.to - piece.from) * share) } + [piece.to - 1] }
      end
      private_class_method :looked_at, :beyond
    end
  end
end
