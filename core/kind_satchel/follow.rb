# frozen_string_literal: true

require_relative "follow/tempo_guess"

module KindSatchel
  # What is taken from sound: {TempoGuess} how fast a recording is, and where it begins.
  module Follow
  end
end
