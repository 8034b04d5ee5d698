# frozen_string_literal: true

require_relative "hand_over/limits"
require_relative "hand_over/course"
require_relative "hand_over/fit"
require_relative "hand_over/loss"
require_relative "hand_over/meter"
require_relative "hand_over/material"
require_relative "hand_over/comparison"
require_relative "hand_over/bake"
require_relative "hand_over/one_clip"
require_relative "hand_over/stepped_tempo"
require_relative "hand_over/controllers"
require_relative "hand_over/control_events"
require_relative "hand_over/score"
require_relative "hand_over/table"

module KindSatchel
  # What leaves for other programs: the song baked to what they can do, with what that costs; its notes and moves as a
  # MIDI score; its moves as tables.
  module HandOver
  end
end
