# frozen_string_literal: true

module KindSatchel
  module Devices
    # The sounds of the kit by note number; the files are made by db/sounds.
    DRUM_SOUNDS = {
      36 => "kick", 37 => "rim", 38 => "snare", 39 => "clap", 42 => "hat", 46 => "open-hat", 70 => "shaker",
      75 => "crate"
    }.freeze
    # The parts of the kit, in the order in which people see them.
    DRUM_PARTS = DRUM_SOUNDS.values.freeze

    DRUM_KIT = Type.define("drum-kit", "Drum kit", "instrument", parts: DRUM_PARTS) do |p|
      p.bipolar "tune", "Tune", -12..12, Units::SEMITONES, "0"
      p.log "decay", "Decay", 0.03..3, Units::SECONDS, "2 s"
      p.log "tone", "Tone", 200..18_000, Units::HERTZ, "18 kHz"
      p.bipolar "bend", "Bend", -24..24, Units::SEMITONES, "0"
      p.fader "kick", "Kick level", 2, "0 dB"
      p.fader "snare", "Snare level", 2, "0 dB"
      p.fader "hats", "Hats level", 2, "0 dB"
      DRUM_PARTS.each do |part|
        name = Devices.part_name(part)
        p.fader "#{part}-level", "#{name}: level", 2, "0 dB"
        p.bipolar "#{part}-tune", "#{name}: tune", -24..24, Units::SEMITONES, "0"
        p.log "#{part}-decay", "#{name}: decay", 0.03..3, Units::SECONDS, "3 s"
        p.bipolar "#{part}-pan", "#{name}: pan", -100..100, Units::SIDES, "C"
        p.log "#{part}-cutoff", "#{name}: cutoff", 60..18_000, Units::HERTZ, "18 kHz"
        p.linear "#{part}-resonance", "#{name}: resonance", 0..24, Units::DECIBELS, "0 dB"
        p.choice "#{part}-choke", "#{name}: chokes", %w[nothing 1 2 3 4], part.end_with?("hat") ? "1" : "nothing"
      end
    end
  end
end
