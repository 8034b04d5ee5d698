# frozen_string_literal: true

require_relative "follow/tempo_guess"
require_relative "follow/follower"
require_relative "follow/levels"

module KindSatchel
  # What is taken from sound: {TempoGuess} how fast a recording is, and where it begins; {Levels} how loud something
  # is over ticks, and {Follower} what an envelope makes of that.
  module Follow
  end
end
