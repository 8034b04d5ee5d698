# frozen_string_literal: true

require_relative "heard/sources"
require_relative "heard/evaluate"
require_relative "heard/resolver"
require_relative "heard/song_clock"
require_relative "heard/flatten"
require_relative "heard/difference"
require_relative "heard/inputs"
require_relative "heard/explanation"
require_relative "heard/changes"

module KindSatchel
  # What a song does to one parameter, and what it plays. In reading order; each room knows only those above it.
  #
  # `sources/`: song in, list of sources out.
  #
  # - {Source}       one that acts
  # - {Frame}        in what settings of moves are resolved: the song or one region
  # - {Acting}       everything that acts on a parameter, and who overrules whom
  # - {SameInputs}   whether a parameter has the same sources in two songs
  #
  # `evaluate/`: how much they give. Values of other parameters come by {Evaluation#signal}; nothing here makes a
  # {Resolver}.
  #
  # - {Evaluation}   what is worked out once in a frame: {Setting}s, {LiveMove}s, {Integral}s
  # - {Arc}          whatever gives values over a stretch: a segment at work ({Span}), or what moved settings make of
  #   it
  # - {Integral}     what a rate adds up to, and back: the phase of an LFO ({MovedWave})
  # - {Driven}       what a macro makes of a knob
  # - {Amounts}      what everything that acts gives, at a tick and over a stretch
  # - {Pieces}       a stretch cut where something begins or ends to act
  # - {Effort}       about how long it takes to work that out; {Budget} how much of it is done at once
  #
  # {Resolver} brings both together: the value at a tick, and the ordered pieces of a range. {SongClock} is the tempo
  # by it.
  #
  # `flatten/`: what eyes and sound engines take.
  #
  # - {Outline}      pieces as a line chain for the eye; {Crowd} where there are more corners than pixels
  # - {Ramps}        pieces as straight ramps for the ear, in seconds and in the engine's unit
  # - {Events}       the notes and audio of a range
  # - {NoteEffects}  what arpeggiators and scale quantisers make of the notes; {StepGate} steps of loudness; both by
  #   {StepClock}
  # - {Beat}         how long a quarter note lasts
  # - {OwnChain}     when a clip's own effects are heard
  #
  # Last what is told of it all:
  #
  # - {Explanation}  the steps that made a value, in words with numbers; {Inputs} the settings of moves that made a
  #   step
  # - {Difference}   how far two songs are apart in one parameter
  # - {Changes}      where what is heard may differ after an edit
  module Heard
  end
end
