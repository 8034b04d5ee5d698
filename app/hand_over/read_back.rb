# frozen_string_literal: true

require "csv"
require "wavefile"

# Reads back what was written, and compares: nothing is handed out that says something else than it should.
module ReadBack
  include KindSatchel

  # Raised for a file that does not say what was written; a fault of ours.
  class Differs < StandardError; end

  # Whole MIDI files with more events than these are not read note by note.
  MOST_EVENTS = 20_000

  module_function

  # @param text [String] of a document
  # @param song [KindSatchel::Song]
  # @raise [Differs]
  def document!(text, song)
    differs!("The document") unless Schemas.read_song(text).song == song
  end

  # @param bytes [String] of one track of a MIDI file
  # @param part [KindSatchel::HandOver::Score::Part]
  # @return [String] the same bytes
  # @raise [Differs]
  def track!(bytes, part)
    unless KindSatchel::Formats::MidiEvents.new(bytes).count_track! == events(part) + part.texts.size + 2
      differs!("A track of the MIDI file")
    end
    bytes
  end

  # @return [KindSatchel::HandOver::Score::Part, nil] what is compared with the whole file; nil where that has too much
  def kept(part) = events(part) > MOST_EVENTS ? nil : part

  # @param bytes [String]
  # @param score [KindSatchel::HandOver::Score]
  # @param parts [Array<KindSatchel::HandOver::Score::Part, nil>]
  # @raise [Differs]
  def midi!(bytes, score, parts)
    return if parts.any?(&:nil?) || parts.sum { |part| events(part) } > MOST_EVENTS

    read = MidiFile.score(bytes)
    wrote = parts.map { |part| part.notes.sort }.reject(&:empty?)
    differs!("The MIDI file") unless read.parts.map do |part|
      part.notes.sort
    end.reject(&:empty?) == wrote && read.ppq == score.ppq
  end

  # @param path [String] of a WAV file
  # @raise [KindSatchel::InvalidInput]
  def sound!(path, frames:, rate:)
    reader = WaveFile::Reader.new(path)
    found = [reader.total_sample_frames, reader.native_format.sample_rate]
    reader.close
    return if found == [frames, rate]

    raise KindSatchel::InvalidInput.of("broken_sound", "",
                                       "The sound has #{found[0]} frames at #{found[1]} Hz, not #{frames} at #{rate}.")
  rescue WaveFile::FormatError
    raise KindSatchel::InvalidInput.of("no_sound", "", "This is no WAV file that can be read.")
  end

  def events(part) = (2 * part.notes.size) + part.lead.size + part.controls.sum { |control| control.ticks.size }

  # @param path [String]
  # @param rows [Integer] how many were written, the head among them
  # @raise [Differs]
  def csv!(path, rows)
    found, width = 0, nil
    CSV.foreach(path) do |row|
      width ||= row.size
      differs!("The table") unless row.size == width && row.none?(&:nil?)
      found += 1
    end
    differs!("The table") unless found == rows
  end

  def differs!(what) = raise(Differs, "#{what} does not say what was written.")
end
