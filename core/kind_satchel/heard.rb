# frozen_string_literal: true

require_relative "heard/bounds"
require_relative "heard/arcs"
require_relative "heard/span"
require_relative "heard/frame"
require_relative "heard/setting"
require_relative "heard/integral"
require_relative "heard/song_clock"
require_relative "heard/live_move"
require_relative "heard/driven"
require_relative "heard/acting"
require_relative "heard/piece"
require_relative "heard/resolver"
require_relative "heard/crowd"
require_relative "heard/outline"
require_relative "heard/effort"
require_relative "heard/same_inputs"
require_relative "heard/difference"
require_relative "heard/inputs"
require_relative "heard/explanation"
require_relative "heard/tempo_breaks"
require_relative "heard/ramps"
require_relative "heard/step_clock"
require_relative "heard/step_gate"
require_relative "heard/note_effects"
require_relative "heard/beat"
require_relative "heard/events"
require_relative "heard/own_chain"
require_relative "heard/changes"

module KindSatchel
  # What a song does to one parameter, and what it plays:
  #
  # - {Arc}          whatever gives values over a stretch: a segment at work ({Span}), or what moved settings make of it ({LiveMove})
  # - {Frame}        in what settings of moves are resolved: the song or one region; {Setting} one of them
  # - {Integral}     what a rate adds up to, and back: the phase of an LFO ({MovedWave})
  # - {Driven}       what a macro makes of a knob
  # - {Acting}       everything that acts on a parameter, and who overrules whom
  # - {Resolver}     the value at a tick, and the ordered pieces of a range
  # - {Inputs}       the settings of moves that made a step
  # - {Explanation}  the steps that made a value, in words with numbers
  # - {Outline}      pieces as a line chain for the eye; {Crowd} where there are more corners than pixels
  # - {Effort}       about how long it takes to work that out; {Budget} how much of it is done at once
  # - {Difference}   how far two songs are apart in one parameter
  # - {Ramps}        pieces as straight ramps for the ear, in seconds and in the engine's unit
  # - {Events}       the notes and audio of a range
  # - {NoteEffects}  what arpeggiators and scale quantisers make of the notes; {StepGate} steps of loudness; both by {StepClock}
  # - {Beat}         how long a quarter note lasts
  # - {OwnChain}     when a clip's own effects are heard
  # - {Changes}      where what is heard may differ after an edit
  module Heard
  end
end
