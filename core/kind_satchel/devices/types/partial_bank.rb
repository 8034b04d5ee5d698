# frozen_string_literal: true

module KindSatchel
  module Devices
    # A struck sound built from single partials, each with a level, a tuning, a place and a time of its own.
    PARTIALS = 64
    # Levels of the first partials, as people write them; the others are silent until turned up.
    PARTIAL_LEVELS = ["-3 dB", "-14 dB", "-9 dB", "-18 dB", "-16 dB", "-24 dB", "-22 dB", "-30 dB"].freeze

    PARTIAL_BANK = Type.define("partial-bank", "Partial bank", "instrument") do |p|
      p.log "ring", "Ring", 0.05..6, Units::SECONDS, "1.4 s"
      p.share "strike", "Strike", "40 %"
      p.log "stretch", "Stretch", 0.5..2, Units::PLAIN, "1.06"
      p.steps "pitch", "Pitch", -24..24, Units::SEMITONES, "0"
      p.bipolar "fine", "Fine tune", -100..100, Units::CENTS, "0"
      p.bipolar "bend", "Bend", -24..24, Units::SEMITONES, "0"
      p.steps "count", "Partials", 1..PARTIALS, Units::PLAIN, "16"
      p.fixed "partials are made when a note starts, and cannot come and go while it rings."
      (1..PARTIALS).each do |i|
        p.fader "level-#{i}", "Partial #{i} level", 1, PARTIAL_LEVELS.fetch(i - 1, "-inf")
        p.bipolar "tune-#{i}", "Partial #{i} tune", -100..100, Units::CENTS, "0"
        p.bipolar "pan-#{i}", "Partial #{i} pan", -100..100, Units::SIDES, "C"
        p.log "attack-#{i}", "Partial #{i} attack", 0.001..2, Units::SECONDS, "2 ms"
        p.share "ring-#{i}", "Partial #{i} ring", "#{100 - i} %"
      end
    end
  end
end
