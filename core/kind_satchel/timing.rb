# frozen_string_literal: true

module KindSatchel
  # Positions in a song. A position is a whole number of ticks.
  module Timing
    # Ticks to the quarter note, as in the division word of a Standard MIDI File header.
    PPQ = 960
    # The last tick a song may use.
    LAST_TICK = Value::LARGEST
    # The shortest clip, and the shortest length an envelope may have of its own: a 1/64 note.
    SHORTEST_TICKS = PPQ * 4 / 64
  end
end

require_relative "timing/note_lengths"
require_relative "timing/meter"
require_relative "timing/meters"
require_relative "timing/tempo_map"
