# frozen_string_literal: true

module KindSatchel
  module Devices
    # Plays a sound of the store at the pitch of each note: from `start` to `end`, once or over and over from
    # `loop-start` on.
    SAMPLER = Type.define("sampler", "Sampler", "instrument", samples: true) do |p|
      p.steps "root", "Root note", 0..127, Units::NOTES, "C4"
      p.share "start", "Start", "0 %"
      p.share "end", "End", "100 %"
      p.switch "loop", "Loop", "off"
      p.share "loop-start", "Loop from", "0 %"
      p.log "cutoff", "Cutoff", 30..18_000, Units::HERTZ, "18 kHz"
      p.linear "resonance", "Resonance", 0..24, Units::DECIBELS, "0 dB"
      p.log "attack", "Attack", 0.001..2, Units::SECONDS, "2 ms"
      p.log "decay", "Decay", 0.01..4, Units::SECONDS, "300 ms"
      p.share "sustain", "Sustain", "100 %"
      p.log "release", "Release", 0.01..4, Units::SECONDS, "120 ms"
      p.steps "pitch", "Pitch", -24..24, Units::SEMITONES, "0"
      p.bipolar "fine", "Fine tune", -100..100, Units::CENTS, "0"
      p.bipolar "bend", "Bend", -24..24, Units::SEMITONES, "0"
      p.fader "level", "Level", 2, "0 dB"
    end
  end
end
