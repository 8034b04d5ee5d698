# frozen_string_literal: true

module KindSatchel
  module Devices
    FILTER = Type.define("filter", "Filter", "effect") do |p|
      p.choice "kind", "Kind", ["low pass", "band pass", "notch", "high pass"], "low pass"
      p.log "cutoff", "Cutoff", 30..18_000, Units::HERTZ, "18 kHz"
      p.linear "resonance", "Resonance", 0..24, Units::DECIBELS, "1 dB"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
