# frozen_string_literal: true

# Random songs: every role, clock and shape, over parameters of every scale; regions that were split or muted, a lane whose
# fader trims, and a carrier clip on a track below.
class RandomSongs
  include KindSatchel

  TARGETS = %w[bass/synth/cutoff bass/synth/sweep bass/synth/pitch bass/channel/volume bass/channel/pan bass/channel/mute
               bass/channel/send-hall bass/drive/mix].freeze
  CLOCKS = Clocks::ALL.ids

  attr_reader :random

  def initialize(seed) = @random = Random.new(seed)

  def song
    base = frame
    clips = base.clips.transform_values do |clip|
      targets = TARGETS.sample(4, random:)
      clip.with(envelopes: targets.map.with_index { |target, i| envelope(base, target, "#{clip.id}-#{i}") })
    end
    lanes = TARGETS.sample(3, random:).map.with_index { |target, i| lane(base, target, "lane-#{i}") }
    cut(base.with(clips:).with_track(base.track("bass").with(lanes:)))
  end

  def some_tick(song) = random.rand(song.length_ticks)
  def some_region(song) = song.track("bass").regions.sample(random:)

  private

  def lane(song, target, id)
    made = envelope(song, target, id, clock: "once")
    trims = made.role == "set" && !song.parameter(made.target).scale.set_only? && random.rand < 0.4
    trims ? made.with(fader: "trim") : made
  end

  # Some regions cut in two, one in six muted.
  def cut(song)
    regions = song.track("bass").regions.flat_map do |region|
      halves = random.rand < 0.3 ? region.split(region.start_tick + 1 + random.rand(region.length_ticks - 1), "#{region.id}-cut") : [region]
      halves.map { |half| half.with(muted: random.rand < 0.16) }
    end
    song.with_track(song.track("bass").with(regions:))
  end

  def frame
    writer = SongWriter.new(name: "Random", bpm: 60 + random.rand(100), range: [0, 3840])
    writer.track "bass", "Bass", "notes", "madder", devices: { "synth" => ["mono-synth", {}], "drive" => ["drive", {}] }
    writer.track "lead", "Lead", "notes", "moss", devices: { "synth" => ["mono-synth", {}] }
    writer.track "carriers", "Carriers", "carrier", "walnut", devices: {}
    writer.track "hall", "Hall", "return", "lichen", devices: { "reverb" => ["reverb", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    %w[a b c].each { |id| writer.clip id, id.upcase, 1 + random.rand(2), notes: notes }
    bar = 1
    while bar < 16
      bars = 1 + random.rand(4)
      writer.region "bass", %w[a b c].sample(random:), bar, bars
      bar += bars + random.rand(2)
    end
    writer.clip "carrier", "Carrier", 2
    3.times { |i| writer.region "carriers", "carrier", 2 + (i * 5) + random.rand(2), 1 + random.rand(3) }
    writer.song
  end

  def notes = Array.new(4) { Note.new(tick: random.rand(3840), length_ticks: 1 + random.rand(900), pitch: 30 + random.rand(40), velocity: 90) }

  def envelope(song, target, id, clock: CLOCKS.sample(random:))
    parameter = song.parameter(Address.parse(target))
    role = parameter.scale.set_only? ? "set" : Roles::ALL.ids.sample(random:)
    low = role == "shift" ? -1.0 : 0.0
    ticks = Array.new(2 + random.rand(6)) { random.rand(32) * 240 }.sort
    list = ticks.map { |tick| Point.new(tick:, value: low + (random.rand * (1 - low)), shape:) }
    Envelope.fresh(id:, target: Address.parse(target), role:, clock:, points: list).with(own_length_ticks: 240 * (1 + random.rand(30)))
  end

  def shape
    curve = (random.rand * 2) - 1
    cycles = { "wave" => Shapes::Cycle::WAVES.keys.sample(random:), "cycles" => 0.25 + random.rand(12), "skew" => random.rand,
               "note_ticks" => [nil, nil, 240, 320].sample(random:) }
    Shapes.of([{ "shape" => "hold" }, { "shape" => "straight" }, { "shape" => "curved", "curve" => curve }, { "shape" => "ess", "curve" => curve },
               { "shape" => "cycle", **cycles }].sample(random:))
  end
end
