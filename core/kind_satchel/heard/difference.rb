# frozen_string_literal: true

module KindSatchel
  module Heard
    # How far what is heard in one song lies from what is heard in another.
    module Difference
      # Where each piece is looked at, as shares of its length.
      SHARES = [0, 0.13, 0.31, 0.5, 0.68, 0.87].freeze
      # Less than this is none: what adding up in another order leaves.
      NONE = 1e-9

      module_function

      # The largest difference of one parameter in from...to, as a share of the knob's travel; 0 for none. Points lie on whole
      # ticks, so what falls between two may come up to a tick early or late: that is no difference.
      # @return [Float]
      def largest(before, after, address, from, to)
        old, new = [before, after].map { |song| Resolver.new(song, address) }
        ticks = [old, new].flat_map { |resolver| looked_at(resolver.pieces(from, to)) }.sort.uniq
        around = ticks.map { |tick| [[tick - 1, from].max, tick, [tick + 1, to - 1].min] }
        all = around.flatten.sort.uniq
        near = all.zip(new.at_each(all)).to_h
        worst = old.at_each(ticks).zip(around).map { |value, places| beyond(value, near.values_at(*places)) }.max || 0.0
        worst < NONE ? 0.0 : worst
      end

      # @param share [Float]
      # @return [String] for people
      def words(share) = share.zero? ? "nothing heard changes" : "the largest difference heard is #{format('%.3g', share * 100)} % of the travel"

      # How far a value lies outside what the others span.
      def beyond(value, others) = [others.min - value, value - others.max, 0.0].max

      def looked_at(pieces)
        pieces.flat_map { |piece| SHARES.map { |share| (piece.from + ((piece.to - piece.from) * share)).floor } + [piece.to - 1] }
      end
      private_class_method :looked_at, :beyond
    end
  end
end
