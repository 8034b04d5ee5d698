# frozen_string_literal: true

module KindSatchel
  module Devices
    GAIN = Type.define("gain", "Gain", "effect") do |p|
      p.bipolar "level", "Level", -24..24, Units::DECIBELS, "0 dB"
      p.switch "flip", "Turned over", "off"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
