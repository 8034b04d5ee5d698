# frozen_string_literal: true

module KindSatchel
  module Devices
    # Another pitch at the same pace. It needs a while to know what it hears, which is taken off elsewhere.
    PITCH_SHIFT = Type.define("pitch-shift", "Pitch shift", "effect") do |p|
      p.bipolar "pitch", "Pitch", -24..24, Units::SEMITONES, "0"
      p.log "tonality", "Tonality", 1000..18_000, Units::HERTZ, "8 kHz"
      p.share "mix", "Mix", "100 %"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
