# frozen_string_literal: true

module KindSatchel
  module Devices
    MONO_SYNTH = Type.define("mono-synth", "Mono synth", "instrument") do |p|
      p.choice "wave", "Wave", %w[saw square triangle sine], "saw"
      p.log "cutoff", "Cutoff", 30..18_000, Units::HERTZ, "800 Hz"
      p.linear "resonance", "Resonance", 0..24, Units::DECIBELS, "4 dB"
      p.bipolar "sweep", "Sweep", -60..60, Units::SEMITONES, "12"
      p.log "attack", "Attack", 0.001..2, Units::SECONDS, "3 ms"
      p.log "decay", "Decay", 0.01..4, Units::SECONDS, "300 ms"
      p.share "sustain", "Sustain", "60 %"
      p.log "release", "Release", 0.01..4, Units::SECONDS, "80 ms"
      p.log "glide", "Glide", 0.001..1, Units::SECONDS, "1 ms"
      p.steps "pitch", "Pitch", -24..24, Units::SEMITONES, "0"
      p.bipolar "fine", "Fine tune", -100..100, Units::CENTS, "0"
      p.bipolar "bend", "Bend", -24..24, Units::SEMITONES, "0"
      p.share "sub", "Sub", "30 %"
    end
  end
end
