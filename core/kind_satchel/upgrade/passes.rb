# frozen_string_literal: true

module KindSatchel
  module Upgrade
    # Region records that hold more passes than a region may are shortened.
    module Passes
      module_function

      # @param region [Hash]
      # @param clip [Hash, nil]
      # @param envelopes [Array<Hash>] the clip's
      # @return [Hash]
      def limited(region, clip, envelopes)
        shortest = clip && shortest(region, clip, envelopes) or return region
        most = (shortest * Integrity::MOST_PASSES) - (region["offset_ticks"] % shortest)
        region["length_ticks"] > most ? region.merge("length_ticks" => most) : region
      end

      def shortest(region, clip, envelopes)
        own = envelopes.select do |one|
          one["clock"] == "own_length"
        end.map { |one| one["own_length_ticks"] || clip["length_ticks"] }
        [*own, *(clip["length_ticks"] if region["looped"])].min
      end
      private_class_method :shortest
    end
  end
end
