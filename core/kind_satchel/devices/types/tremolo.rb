# frozen_string_literal: true

module KindSatchel
  module Devices
    TREMOLO = Type.define("tremolo", "Tremolo", "effect") do |p|
      p.share "level", "Level", "100 %"
      p.share "depth", "Depth", "100 %"
      p.bipolar "place", "Place", -100..100, Units::SIDES, "C"
      p.share "width", "Width", "100 %"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
