# frozen_string_literal: true

# Moves that move: an LFO whose rate a lane moves, a macro with many targets, the big song full of both.
module MovingBench
  include KindSatchel

  SECONDS = 600
  TICKS = SECONDS * 92 / 60 * Timing::PPQ
  WAVE = Address.parse("rope-bass/drive/mix")
  RATE = "rate-lane"
  MACRO = Address.parse("crate-kit/macro-strip/macro-1")
  TARGETS = 32

  module_function

  # Ten minutes of a wave of thirty-second notes on a lane, its rate moved by another.
  def wobble
    wave = Envelope.fresh(id: "wave", target: WAVE, clock: "once").with(source: Sources::Lfo.plain.with(cycle_ticks: 120))
    points = Array.new(40) { |i| Point.new(tick: i * TICKS / 40, value: rate(7.5 + (i % 4 / 3.0)), shape: Shapes::Straight::PLAIN) }
    lane = Envelope.fresh(id: RATE, target: Address.setting("wave", "rate"), points:, clock: "once")
    song = DemoSong.build
    region = song.track("rope-bass").regions.first.with(id: "long", start_tick: 0, length_ticks: TICKS, offset_ticks: 0)
    song.with_track(song.track("rope-bass").with(lanes: [wave, lane], regions: [region]))
  end

  def rate(cycles) = Settings::RATE.scale.normalised(cycles)

  # The demo, with a macro that drives what nothing sets.
  def macros
    song = DemoSong.build
    song = Edits.apply(song, "add_device", { "track_id" => "crate-kit", "type" => "macro-strip" }).song
    free = song.tracks.flat_map { |track| song.parameters_of(track).map(&:first) }
    free = free.reject { |one| song.automated.include?(one) || one.device_id == "macro-strip" }
    free = free.reject { |one| song.parameter(one).scale.steps || !song.parameter(one).automatable }
    free.first(TARGETS).reduce(song) { |now, target| Edits.apply(now, "set_drive", { "macro" => MACRO.to_s, "target" => target.to_s }).song }
  end

  # A third of its envelopes LFOs of one to four bars, and twenty macros, each driving what an envelope moves.
  def big(song)
    place = 0
    clips = song.clips.transform_values do |clip|
      clip.with(envelopes: clip.envelopes.map do |one|
        place += 1
        (place % 3).zero? ? one.with(points: [], source: Sources::Lfo.plain.with(cycle_ticks: 3840 * (1 + (place % 4)))) : one
      end)
    end
    song = song.with(clips:)
    song.tracks.select(&:holds_regions?).reject { |track| track.kind == "carrier" }.first(20).reduce(song) { |now, track| driven(now, track) }
  end

  def driven(song, track)
    strip = Device.new(id: "macro-strip", type: "macro-strip", values: { "macro-1" => 0.5 }, held: {})
    targets = song.automated.select { |one| one.owner_id == track.id && !song.parameter(one).scale.steps }.first(3)
    macro = Macro.new(id: "macro-1", name: "Macro 1", drives: targets.map { |target| Drive.plain(target) })
    song.with_track(track.with(devices: [strip.with(macros: [macro]), *track.devices]))
  end

  # @return [Hash] microseconds of processor time a corner of its ramps, and what a screen of it takes
  def measured(song, runs: 5)
    corners = 0
    times = Array.new(runs) do |i|
      resolver = Heard::Resolver.new(song.with(name: "Wobble #{i}"), WAVE)
      SpeedBench.time { corners = Heard::Ramps.new(resolver).flat(0, TICKS).size / 2 }
    end
    screen = Measure.milliseconds(15) { Heard::Outline.heard(Heard::Resolver.new(song.with(name: "Screen #{rand}"), WAVE), 0, TICKS, width_px: 1280) }
    { "corners" => corners, "us_a_corner" => (SpeedBench.median(times) * 1e6 / corners).round(2), "screen_ms" => screen["median_ms"] }
  end

  # A three minute sound that comes and goes, followed on a lane from its stored energy.
  # @return [Hash]
  def following
    random = Random.new(4)
    level = 0.0
    energy = Array.new(180 * 100) { (level = (level * 0.9) + (random.rand * 0.1))**4 }
    sounds = { "long" => { "hop_seconds" => 0.01, "energy" => energy } }
    song = DemoSong.build
    region = song.track("rope-bass").regions.first.with(id: "long", start_tick: 0, length_ticks: 180 * 92 / 60 * Timing::PPQ, offset_ticks: 0)
    song = song.with_track(song.track("rope-bass").with(regions: [region]))
    inputs = { "of" => { "sound" => "long" }, "address" => "fog-pad/channel/volume", "role" => "scale", "over" => true, "sounds" => sounds }
    Measure.milliseconds(9) { Edits.apply(song, "follow_level", inputs) }
  end

  # @return [Hash] processor time of all ramps with and without, in turn, and their ratio
  def ratio(song, runs: 5)
    moving = big(song)
    pairs = Array.new(runs + 1) { [song, moving].map { |one| SpeedBench.time { SpeedBench.all_ramps(SpeedBench.fresh(one)) } } }.drop(1)
    { "without_s" => SpeedBench.median(pairs.map(&:first)), "with_s" => SpeedBench.median(pairs.map(&:last)),
      "ratio" => SpeedBench.median(pairs.map { |without, with| with / without }) }
  end
end
