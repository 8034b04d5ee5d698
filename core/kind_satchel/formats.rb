# frozen_string_literal: true

require_relative "formats/midi_events"
require_relative "formats/midi_controls"
require_relative "formats/midi_song"
require_relative "formats/midi_writer"

module KindSatchel
  # Other forms of music, read: {MidiEvents} the events of a Standard MIDI File, counted before they are read;
  # {MidiSong} a song made of them.
  module Formats
  end
end
