# frozen_string_literal: true

require_relative "heard/layers"
require_relative "heard/piece"
require_relative "heard/resolver"
require_relative "heard/outline"
require_relative "heard/points"
require_relative "heard/difference"
require_relative "heard/explanation"
require_relative "heard/ramps"
require_relative "heard/events"

module KindSatchel
  # What a song does to one parameter, and what it plays:
  #
  # - {Layers}       everything that acts on a parameter, placed in song time
  # - {Resolver}     the value at a tick, and the ordered pieces of a range
  # - {Explanation}  the steps that made a value, in words with numbers
  # - {Outline}      pieces as a line chain for the eye
  # - {Points}       what is heard as points of an envelope, for laying out and packing
  # - {Difference}   how far two songs are apart in one parameter
  # - {Ramps}        pieces as straight ramps for the ear, in seconds and in the engine's unit
  # - {Events}       the notes and audio of a range
  module Heard
  end
end
