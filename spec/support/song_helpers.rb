# frozen_string_literal: true

BAR = 3840
CUTOFF = "bass/synth/cutoff"

# Small songs for examples, and random ones for invariants.
module SongHelpers
  include KindSatchel

  def address(text) = KindSatchel::Address.parse(text)
  def shape(name, **settings) = KindSatchel::Shapes.of({ "shape" => name, **settings.transform_keys(&:to_s) })

  # Points from [tick, value, shape name or bend].
  def points(*entries)
    entries.map do |tick, value, kind|
      form = kind.is_a?(Numeric) ? shape("curved", curve: kind) : shape(kind || "straight")
      KindSatchel::Point.new(tick:, value:, shape: form)
    end
  end

  def envelope(*entries, target: CUTOFF, id: "e1", role: "set", **more)
    KindSatchel::Envelope.fresh(id:, target: address(target), points: points(*entries), role:).with(**more)
  end

  # A song of one bass track with one clip of a bar, looped over two bars from bar 2, and a second region in bar 6.
  def small_song(clip: [], lanes: [], knobs: {})
    writer = SongWriter.new(name: "Small", bpm: 120, range: [0, BAR])
    writer.track "bass", "Bass", "notes", "madder", devices: { "synth" => ["mono-synth", knobs] }
    writer.track "hall", "Hall", "return", "lichen", devices: { "reverb" => ["reverb", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    writer.clip "line", "Line", 1, notes: [KindSatchel::Note.new(tick: 0, length_ticks: 480, pitch: 40, velocity: 100)]
    writer.region "bass", "line", 2, 2
    writer.region "bass", "line", 6, 1
    song = writer.song
    song = song.with_clip(song.clip("line").with(envelopes: clip))
    song.with_track(song.track("bass").with(lanes:))
  end

  def heard(song, text, tick) = KindSatchel::Heard::Resolver.new(song, address(text)).at(tick)
  def apply(song, name, **inputs) = KindSatchel::Edits.apply(song, name, inputs.transform_keys(&:to_s))
  def json_of(song) = JSON.generate(KindSatchel::Document.dump(song))

  # Every fault a block raises, as [code, path].
  def faults
    yield
    []
  rescue KindSatchel::InvalidInput => e
    e.faults.map { |fault| [fault.code, fault.path] }
  end
end
