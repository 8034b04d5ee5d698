# frozen_string_literal: true

module KindSatchel
  module Devices
    # The sounds of the kit by note number; the files are made by db/sounds.
    DRUM_SOUNDS = {
      36 => "kick", 37 => "rim", 38 => "snare", 39 => "clap", 42 => "hat", 46 => "open-hat", 70 => "shaker", 75 => "crate"
    }.freeze

    DRUM_KIT = Type.define("drum-kit", "Drum kit", "instrument") do |p|
      p.bipolar "tune", "Tune", -12..12, Units::SEMITONES, "0"
      p.log "decay", "Decay", 0.03..3, Units::SECONDS, "2 s"
      p.log "tone", "Tone", 200..18_000, Units::HERTZ, "18 kHz"
      p.bipolar "bend", "Bend", -24..24, Units::SEMITONES, "0"
      p.fader "kick", "Kick level", 2, "0 dB"
      p.fader "snare", "Snare level", 2, "0 dB"
      p.fader "hats", "Hats level", 2, "0 dB"
    end
  end
end
