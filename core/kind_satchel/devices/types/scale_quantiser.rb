# frozen_string_literal: true

module KindSatchel
  module Devices
    # Semitones above the root, by scale: twelve-tone equal temperament.
    SCALE_STEPS = {
      "major" => [0, 2, 4, 5, 7, 9, 11], "minor" => [0, 2, 3, 5, 7, 8, 10], "dorian" => [0, 2, 3, 5, 7, 9, 10],
      "phrygian" => [0, 1, 3, 5, 7, 8, 10], "lydian" => [0, 2, 4, 6, 7, 9, 11], "mixolydian" => [0, 2, 4, 5, 7, 9, 10],
      "harmonic minor" => [0, 2, 3, 5, 7, 8, 11], "major pentatonic" => [0, 2, 4, 7, 9],
      "minor pentatonic" => [0, 3, 5, 7, 10],
      "blues" => [0, 3, 5, 6, 7, 10], "whole tone" => [0, 2, 4, 6, 8, 10]
    }.freeze

    # Brings every note to one of a scale (see {Heard::NoteEffects}).
    SCALE_QUANTISER = Type.define("scale-quantiser", "Scale quantiser", "note-effect") do |p|
      p.choice "root", "Root", Units::NoteNames::NAMES, "C"
      p.choice "scale", "Scale", SCALE_STEPS.keys, "minor"
      p.choice "towards", "Towards", %w[nearest lower higher], "nearest"
      p.switch "bypass", "Bypass", "off"
    end
  end
end
