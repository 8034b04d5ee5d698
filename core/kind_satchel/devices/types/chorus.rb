# frozen_string_literal: true

module KindSatchel
  module Devices
    CHORUS = Type.define("chorus", "Chorus", "effect") do |p|
      p.log "rate", "Rate", 0.05..10, Units::HERTZ, "0.6 Hz"
      p.share "depth", "Depth", "35 %"
      p.share "mix", "Mix", "40 %"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
