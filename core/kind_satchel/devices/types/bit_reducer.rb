# frozen_string_literal: true

module KindSatchel
  module Devices
    BIT_REDUCER = Type.define("bit-reducer", "Bit reducer", "effect") do |p|
      p.linear "bits", "Bits", 1..16, Units::PLAIN, "8"
      p.log "rate", "Rate", 200..48_000, Units::HERTZ, "12 kHz"
      p.share "mix", "Mix", "100 %"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
