# frozen_string_literal: true

module KindSatchel
  module Devices
    PAD_SYNTH = Type.define("pad-synth", "Pad synth", "instrument") do |p|
      p.log "cutoff", "Cutoff", 60..12_000, Units::HERTZ, "1.6 kHz"
      p.linear "spread", "Spread", 0..50, Units::CENTS, "12"
      p.log "attack", "Attack", 0.005..6, Units::SECONDS, "600 ms"
      p.log "release", "Release", 0.02..8, Units::SECONDS, "1.2 s"
      p.log "drift-rate", "Drift rate", 0.05..8, Units::HERTZ, "0.3 Hz"
      p.share "drift", "Drift", "20 %"
      p.steps "pitch", "Pitch", -24..24, Units::SEMITONES, "0"
      p.bipolar "bend", "Bend", -24..24, Units::SEMITONES, "0"
    end
  end
end
