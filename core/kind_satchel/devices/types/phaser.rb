# frozen_string_literal: true

module KindSatchel
  module Devices
    PHASER = Type.define("phaser", "Phaser", "effect") do |p|
      p.log "centre", "Centre", 100..8000, Units::HERTZ, "900 Hz"
      p.log "rate", "Rate", 0.02..10, Units::HERTZ, "0.3 Hz"
      p.share "depth", "Depth", "50 %"
      p.share "mix", "Mix", "70 %"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
