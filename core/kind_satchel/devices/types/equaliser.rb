# frozen_string_literal: true

module KindSatchel
  module Devices
    EQUALISER = Type.define("equaliser", "Equaliser", "effect") do |p|
      p.bipolar "low", "Low", -18..18, Units::DECIBELS, "0 dB"
      p.log "low-frequency", "Low from", 30..500, Units::HERTZ, "110 Hz"
      p.bipolar "first-bell", "First bell", -18..18, Units::DECIBELS, "0 dB"
      p.log "first-frequency", "First at", 80..4000, Units::HERTZ, "400 Hz"
      p.log "first-width", "First narrow", 0.2..12, Units::PLAIN, "1"
      p.bipolar "second-bell", "Second bell", -18..18, Units::DECIBELS, "0 dB"
      p.log "second-frequency", "Second at", 400..14_000, Units::HERTZ, "2.5 kHz"
      p.log "second-width", "Second narrow", 0.2..12, Units::PLAIN, "1"
      p.bipolar "high", "High", -18..18, Units::DECIBELS, "0 dB"
      p.log "high-frequency", "High from", 1000..16_000, Units::HERTZ, "7 kHz"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
