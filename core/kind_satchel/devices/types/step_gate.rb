# frozen_string_literal: true

module KindSatchel
  module Devices
    # The most steps of a step gate.
    GATE_STEPS = 16

    # Levels one after the other, a note length each, counted from the start of the song (see {Heard::StepGate}). Each
    # is read where its step begins.
    STEP_GATE = Type.define("step-gate", "Step gate", "effect") do |p|
      p.length "note", "Note", "1/16"
      p.steps "count", "Steps", 1..GATE_STEPS, Units::PLAIN, "8"
      p.share "depth", "Depth", "100 %"
      p.log "soft", "Soft", 0.001..0.2, Units::SECONDS, "5 ms"
      (1..GATE_STEPS).each { |i| p.share "step-#{i}", "Step #{i}", (i % 3) == 1 ? "100 %" : "0 %" }
      p.switch "bypass", "Bypass", "off"
    end
  end
end
