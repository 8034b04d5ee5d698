# frozen_string_literal: true

module KindSatchel
  module Devices
    STEREO_WIDTH = Type.define("stereo-width", "Stereo width", "effect") do |p|
      p.linear "width", "Width", 0..200, Units::PERCENT, "100 %"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
