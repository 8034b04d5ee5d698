# frozen_string_literal: true

module KindSatchel
  module Devices
    # Plays the notes that are held one after the other, a note length each, counted from the start of the song (see
    # {Heard::NoteEffects}).
    ARPEGGIATOR = Type.define("arpeggiator", "Arpeggiator", "note-effect") do |p|
      p.length "note", "Note", "1/16"
      p.choice "order", "Order", ["up", "down", "up and down", "as struck", "random"], "up"
      p.steps "octaves", "Octaves", 1..4, Units::PLAIN, "1"
      p.linear "gate", "Gate", 5..100, Units::PERCENT, "80 %"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
