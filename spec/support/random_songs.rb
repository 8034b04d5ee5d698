# frozen_string_literal: true

# Random songs: every role, clock and shape, over parameters of every scale; envelopes with limits, switched off, pointing at
# nothing; several roles for one parameter; regions split or muted; lanes whose fader trims; carrier clips on two tracks, one of them on
# both; a group; tempo jumps and ramps; other meters; bends and skews at their very ends; clips and moves of few entries and of many.
class RandomSongs
  include KindSatchel

  TARGETS = %w[bass/synth/cutoff bass/synth/sweep bass/synth/pitch bass/channel/volume bass/channel/pan bass/channel/mute
               bass/channel/send-hall bass/drive/mix].freeze
  LOST = "bass/synth/nothing"
  CLOCKS = Clocks::ALL.ids

  attr_reader :random

  def initialize(seed) = @random = Random.new(seed)

  # @param settings [Boolean] whether settings of moves are moved
  def song(settings: true)
    base = frame
    clips = base.clips.transform_values { |clip| clip.with(envelopes: envelopes(base, 5, clip.id)) }
    lanes = envelopes(base, 4, "lane", clock: "once").map { |lane| trimming(base, lane) }
    base = base.with(clips:, tempo:, meters:)
    song = cut(base.with_track(base.track("bass").with(lanes:)))
    settings ? paced(driven(moved(song))) : song
  end

  def some_tick(song) = random.rand(song.length_ticks)
  def some_region(song) = song.track("bass").regions.sample(random:)

  private

  # One of each role for a parameter at the most.
  def envelopes(song, count, word, clock: nil)
    made = Array.new(count) do |i|
      envelope(song, random.rand < 0.04 ? LOST : TARGETS.sample(random:), "#{word}-#{i}", clock: clock || CLOCKS.sample(random:))
    end
    made.uniq { |one| [one.target, one.role] }
  end

  # Some settings of its moves moved: in the clip itself, by a lane, by a carrier; and settings of those.
  def moved(song)
    (1 + random.rand(4)).times.reduce(song) do |now, i|
      home = now.directory.envelopes.each_value.select { |one| now.parameter?(one.envelope.target) }.sample(random:)
      mover = mover(now, home.envelope, "setting-#{i}")
      place(now, home, mover)
    end
  end

  # A strip of macros on the bass: the first, moved by something, drives the second, that the third, and each drives some parameters, of
  # devices and of moves.
  def driven(song)
    return song if random.rand < 0.4

    strip = Device.new(id: "macro-strip", type: "macro-strip", values: { "macro-1" => random.rand }, held: {})
    targets = (TARGETS + settings_of(song)).select { |text| song.parameter?(Address.parse(text)) }.shuffle(random:)
    macros = (1..3).map do |i|
      down = i < 3 ? ["bass/macro-strip/macro-#{i + 1}"] : []
      drives = [*down, *targets.shift(2)].map { |text| Drive.new(target: Address.parse(text), stops:) }
      Macro.new(id: "macro-#{i}", name: "Macro #{i}", drives:)
    end
    track = song.track("bass")
    song = song.with_track(track.with(devices: [strip.with(macros:), *track.devices]))
    mover = envelope(song, "bass/macro-strip/macro-1", "macro-move", clock: CLOCKS.sample(random:))
    random.rand < 0.5 ? drawn_in(song, song.clip(%w[a carriers].sample(random:)), mover) : with_lane(song, mover.with(clock: "once"))
  end

  # Some with a tempo that a carrier moves too, or that goes by curves; but no ring.
  def paced(song)
    return song if random.rand < 0.6

    mover = envelope(song, Address.tempo.to_s, "tempo-move", clock: CLOCKS.sample(random:))
    moved = random.rand < 0.6 ? drawn_in(song, song.clip("carriers"), mover) : on_master(song, mover.with(clock: "once"))
    Needs.new(moved).ring ? song : moved
  end

  def on_master(song, lane)
    master = song.tracks.last
    return song if master.lanes.any? { |one| one.target == lane.target && one.role == lane.role }

    song.with_track(master.with(lanes: [*master.lanes, lane]))
  end

  def with_lane(song, lane) = song.with_track(song.track("bass").with(lanes: [*song.track("bass").lanes, lane]))

  # Of moves that move a device, so that no ring comes of it.
  def settings_of(song)
    homes = song.directory.envelopes.each_value.reject { |home| home.envelope.target.setting? }
    homes.sample(3, random:).map { |home| Address.setting(home.envelope.id, Settings.names(home.envelope).sample(random:)).to_s }
  end

  def stops = [[0.0, random.rand], *(random.rand < 0.4 ? [[0.4, random.rand], [0.4, random.rand]] : []), [1.0, random.rand]]

  def mover(song, envelope, id)
    target = Address.setting(envelope.id, Settings.names(envelope).sample(random:)).to_s
    envelope(song, target, id, clock: CLOCKS.sample(random:))
  end

  def place(song, home, mover)
    return drawn_in(song, home.clip, mover) if home.clip && random.rand < 0.6
    return drawn_in(song, song.clip("carriers"), mover) if random.rand < 0.5

    track = home.track || song.track("lead")
    taken = song.lanes_of(mover.target).any? { |lane| lane.role == mover.role }
    taken ? song : song.with_track(track.with(lanes: [*track.lanes, mover.with(clock: "once")]))
  end

  def drawn_in(song, clip, mover)
    clip.envelope_for(mover.target, mover.role) ? song : song.with_clip(clip.with(envelopes: [*clip.envelopes, mover]))
  end

  def trimming(song, lane)
    trims = lane.role == "set" && song.parameter?(lane.target) && !song.parameter(lane.target).scale.set_only? && random.rand < 0.4
    trims ? lane.with(fader: "trim") : lane
  end

  # Steady, or with jumps and ramps.
  def tempo
    return Timing::TempoMap.steady(60 + random.rand(100)) if random.rand < 0.3

    ticks = [0, *Array.new(1 + random.rand(5)) { (1 + random.rand(60)) * 977 }].uniq.sort
    Timing::TempoMap.new(points: ticks.map { |tick| Timing::TempoPoint.new(tick:, bpm: 40 + random.rand(200), shape: %w[hold straight].sample(random:)) })
  end

  # One to three, each for some bars.
  def meters
    some = -> { Timing::Meter.new(beats: 2 + random.rand(6), unit: [4, 8].sample(random:)) }
    Array.new(random.rand(3)) { 2 + random.rand(12) }.reduce(Timing::Meters.steady(some.call)) { |list, bar| list.changed(bar, some.call) }
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
    writer = SongWriter.new(name: "Random", bpm: 100, range: [0, 3840])
    writer.track "bass", "Bass", "notes", "madder", devices: { "synth" => ["mono-synth", {}], "drive" => ["drive", {}] }, output: "pair"
    writer.track "lead", "Lead", "notes", "moss", devices: { "synth" => ["mono-synth", {}] }, output: "pair"
    %w[carriers others].each { |id| writer.track id, id.capitalize, "carrier", "walnut", devices: {} }
    writer.track "pair", "Pair", "group", "weld", devices: { "filter" => ["filter", {}] }
    writer.track "hall", "Hall", "return", "lichen", devices: { "reverb" => ["reverb", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    lay(writer)
    writer.song
  end

  def lay(writer)
    %w[a b c].each { |id| writer.clip id, id.upcase, 1 + random.rand(2), notes: notes }
    bar = 1
    while bar < 16
      bars = 1 + random.rand(4)
      writer.region "bass", %w[a b c].sample(random:), bar, bars
      bar += bars + random.rand(2)
    end
    %w[carriers others].each do |track|
      writer.clip track, track.capitalize, 2
      clips = track == "others" ? [track, [track, "carriers"].sample(random:), track] : [track] * 3
      clips.each_with_index { |clip, i| writer.region track, clip, 2 + (i * 5) + random.rand(2), 1 + random.rand(3) }
    end
  end

  def notes
    Array.new([4, 4, 9, 40].sample(random:)) do
      Note.new(tick: random.rand(3840), length_ticks: 1 + random.rand(900), pitch: 30 + random.rand(40), velocity: 90)
    end
  end

  def envelope(song, target, id, clock:)
    parameter = song.parameter?(Address.parse(target))
    role = parameter.nil? || parameter.scale.set_only? ? "set" : Roles::ALL.ids.sample(random:)
    low = role == "shift" ? -1.0 : 0.0
    ticks = Array.new(random.rand < 0.15 ? 9 + random.rand(8) : 2 + random.rand(6)) { random.rand(32) * 240 }.sort
    list = ticks.map { |tick| Point.new(tick:, value: low + (random.rand * (1 - low)), shape:) }
    limits = random.rand < 0.2 ? Array.new(2) { (low + (random.rand * (1 - low))).round(3) } : [low, 1.0]
    depth = random.rand < 0.15 ? random.rand.round(3) : 1.0
    source = random.rand < 0.25 ? lfo : Sources::Drawn::PLAIN
    Envelope.fresh(id:, target: Address.parse(target), role:, clock:, points: source.drawn? ? list : [])
            .with(own_length_ticks: 240 * (1 + random.rand(30)), limits:, depth:, source:, on: random.rand > 0.1)
  end

  def lfo
    cycle_ticks = [240, 320, 480, 960, 7680, 100.0 + (random.rand * 2000)].sample(random:)
    Sources::Lfo.new(wave: Sources::Lfo::WAVES.sample(random:), cycle_ticks:, skew: [0.5, random.rand.round(3), 0, 1].sample(random:),
                     bend: [0.0, ((random.rand * 2) - 1).round(3), 1, -1].sample(random:), phase: [0.0, random.rand.round(3)].sample(random:),
                     seed: random.rand(100))
  end

  def shape
    curve = random.rand < 0.2 ? [1.0, -1.0].sample(random:) : (random.rand * 2) - 1
    cycles = { "wave" => Shapes::Cycle::WAVES.keys.sample(random:), "cycles" => 0.25 + random.rand(12), "skew" => [random.rand, 0, 1].sample(random:),
               "note_ticks" => [nil, nil, 240, 320].sample(random:), "top" => [0.0, 0.0, 0.3].sample(random:) }
    Shapes.of([{ "shape" => "hold" }, { "shape" => "straight" }, { "shape" => "curved", "curve" => curve }, { "shape" => "ess", "curve" => curve },
               { "shape" => "cycle", **cycles }].sample(random:))
  end
end
