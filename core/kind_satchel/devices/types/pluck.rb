# frozen_string_literal: true

module KindSatchel
  module Devices
    PLUCK = Type.define("pluck", "Pluck", "instrument") do |p|
      p.log "ring", "Ring", 0.05..6, Units::SECONDS, "1.4 s"
      p.share "strike", "Strike", "40 %"
      p.log "partial", "Partial", 1.5..12, Units::PLAIN, "3.5"
      p.steps "pitch", "Pitch", -24..24, Units::SEMITONES, "0"
      p.bipolar "fine", "Fine tune", -100..100, Units::CENTS, "0"
      p.bipolar "bend", "Bend", -24..24, Units::SEMITONES, "0"
    end
  end
end
