# frozen_string_literal: true

module KindSatchel
  module Sources
    # Even random numbers by place, the same on every machine: output k of splitmix64 begun at a seed, its upper 53
    # bits over 2^53. Source: G. Steele, D. Lea, C. Flood, "Fast splittable pseudorandom number generators", 2014
    # (constants from memory).
    module RandomLevels
      MASK = (2**64) - 1
      STEP = 0x9E3779B97F4A7C15

      module_function

      # @example
      #   RandomLevels.at(1, 0).between?(0, 1) #=> true
      # @param seed [Integer]
      # @param place [Integer] 0 for the first; negative ones go back
      # @return [Float] 0 up to 1
      def at(seed, place)
        mixed = (seed + ((place + 1) * STEP)) & MASK
        mixed = ((mixed ^ (mixed >> 30)) * 0xBF58476D1CE4E5B9) & MASK
        mixed = ((mixed ^ (mixed >> 27)) * 0x94D049BB133111EB) & MASK
        ((mixed ^ (mixed >> 31)) >> 11) / (2.0**53)
      end
    end
  end
end
