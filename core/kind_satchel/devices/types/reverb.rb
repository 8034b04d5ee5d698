# frozen_string_literal: true

module KindSatchel
  module Devices
    REVERB = Type.define("reverb", "Reverb", "effect") do |p|
      p.log "length", "Length", 0.2..8, Units::SECONDS, "2.2 s"
      p.log "predelay", "Predelay", 0.001..0.25, Units::SECONDS, "12 ms"
      p.log "tone", "Tone", 400..18_000, Units::HERTZ, "6 kHz"
      p.share "mix", "Mix", "30 %"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
