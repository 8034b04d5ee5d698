# frozen_string_literal: true

require_relative "demo_song"

# What a new song starts from: something that plays, with room to draw.
module StarterSong
  # @param name [String]
  def self.build(name)
    writer = SongWriter.new(name:, bpm: 100, range: [0, 4 * 3840])
    writer.track "kit", "Kit", "notes", "walnut", devices: { "kit" => ["drum-kit", {}], "filter" => ["filter", {}] }, channel: { "volume" => "-3 dB" }
    writer.track "bass", "Bass", "notes", "madder", devices: { "synth" => ["mono-synth", {}], "drive" => ["drive", {}] }, channel: { "volume" => "-6 dB" }
    writer.track "pad", "Pad", "notes", "indigo", devices: { "synth" => ["pad-synth", {}], "chorus" => ["chorus", {}] }, channel: { "volume" => "-10 dB" }
    writer.track "room", "Room", "return", "lichen", devices: { "reverb" => ["reverb", { "mix" => "100 %" }] }
    writer.track "echo", "Echo", "return", "lichen", devices: { "delay" => ["delay", { "mix" => "100 %" }] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    material(writer)
    writer.song
  end

  # Nothing but a master: for what one brings oneself.
  def self.empty(name)
    writer = SongWriter.new(name:, bpm: 100, range: [0, 4 * 3840])
    writer.track "master", "Master", "master", "indigo", devices: {}
    writer.song
  end

  def self.material(writer)
    writer.clip "beat", "Beat", 1, notes: notes([[0, 36], [4, 38], [7, 36], [10, 36], [12, 38], *(0..14).step(2).map { |i| [i, 42] }], 120)
    writer.clip "line", "Line", 1, notes: notes([[0, 36], [3, 36], [6, 48], [10, 43], [14, 39]], 400)
    writer.clip "chord", "Chord", 2, notes: notes([[0, 60], [0, 63], [0, 67], [16, 58], [16, 62], [16, 65]], 3700)
    writer.region "kit", "beat", 1, 4
    writer.region "bass", "line", 1, 4
    writer.region "pad", "chord", 1, 4
  end

  def self.notes(entries, length)
    entries.map { |step, pitch| KindSatchel::Note.new(tick: step * 240, length_ticks: length, pitch:, velocity: 96) }
  end

  private_class_method :material, :notes
end
