# frozen_string_literal: true

module KindSatchel
  module Devices
    DRIVE = Type.define("drive", "Drive", "effect") do |p|
      p.linear "amount", "Amount", 0..36, Units::DECIBELS, "9 dB"
      p.log "tone", "Tone", 400..18_000, Units::HERTZ, "9 kHz"
      p.share "mix", "Mix", "60 %"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
