# frozen_string_literal: true

module KindSatchel
  module Devices
    DELAY = Type.define("delay", "Delay", "effect") do |p|
      p.log "time", "Time", 0.005..2, Units::SECONDS, "489 ms"
      p.linear "feedback", "Feedback", 0..95, Units::PERCENT, "40 %"
      p.log "tone", "Tone", 200..18_000, Units::HERTZ, "3 kHz"
      p.share "mix", "Mix", "30 %"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
