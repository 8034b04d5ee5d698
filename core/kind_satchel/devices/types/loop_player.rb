# frozen_string_literal: true

module KindSatchel
  module Devices
    LOOP_PLAYER = Type.define("loop-player", "Loop player", "instrument", plays: "audio") do |p|
      p.bipolar "pitch", "Pitch", -12..12, Units::SEMITONES, "0"
      p.bipolar "bend", "Bend", -24..24, Units::SEMITONES, "0"
      p.log "tone", "Tone", 100..18_000, Units::HERTZ, "18 kHz"
      p.fader "gain", "Gain", 2, "0 dB"
      p.switch "backwards", "Backwards", "off"
      p.fixed "a loop is turned round as a whole, before it plays."
    end
  end
end
