# frozen_string_literal: true

module KindSatchel
  module Devices
    COMPRESSOR = Type.define("compressor", "Compressor", "effect") do |p|
      p.linear "threshold", "Threshold", -60..0, Units::DECIBELS, "-18 dB"
      p.log "ratio", "Ratio", 1..20, Units::PLAIN, "3"
      p.log "attack", "Attack", 0.0005..0.25, Units::SECONDS, "8 ms"
      p.log "release", "Release", 0.01..2, Units::SECONDS, "140 ms"
      p.linear "makeup", "Make-up", 0..24, Units::DECIBELS, "0 dB"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
