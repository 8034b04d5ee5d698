# frozen_string_literal: true

module KindSatchel
  module Devices
    # What comes again: after a time of its own or, with `in-notes`, after a note length at the song's tempo. What
    # went in and what comes again have a level each; the mix is between them.
    DELAY = Type.define("delay", "Delay", "effect") do |p|
      p.log "time", "Time", 0.005..2, Units::SECONDS, "489 ms"
      p.linear "feedback", "Feedback", 0..95, Units::PERCENT, "40 %"
      p.log "tone", "Tone", 200..18_000, Units::HERTZ, "3 kHz"
      p.share "mix", "Mix", "30 %"
      p.switch "in-notes", "In notes", "off"
      p.length "note", "Note", "1/8 dotted"
      p.fader "dry", "Dry", 2, "0 dB"
      p.fader "wet", "Wet", 2, "0 dB"
      p.log "sway-rate", "Sway rate", 0.05..10, Units::HERTZ, "0.5 Hz"
      p.linear "sway", "Sway", 0..0.02, Units::SECONDS, "0 s"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
