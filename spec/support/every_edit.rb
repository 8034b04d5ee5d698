# frozen_string_literal: true

# One small song, with notes and points of any number, and every edit of it: inputs that it takes, and what is done first where an edit
# needs something to act on. Fields that a record need not have come and go.
class EveryEdit
  include KindSatchel

  FOG = [{ "place" => 0.0, "values" => { "cutoff" => 0.2 } }, { "place" => 1.0, "values" => { "cutoff" => 0.8 } }].freeze

  # @param count [Integer] notes of the clips, points of the moves
  def initialize(count) = @count = count

  def song
    writer = SongWriter.new(name: "Every", bpm: 100, range: [0, 7680])
    tracks(writer)
    clips(writer)
    song = writer.song
    song = drawn(song, "line", ["e1", "bass/synth/cutoff", "set"], ["e2", "bass/channel/volume", "scale"], ["e3", "bass/synth/pitch", "shift"])
    song = drawn(song, "drift", ["c1", "loop/channel/volume", "set"])
    lanes = [envelope("l1", "bass/synth/cutoff", "set"), envelope("l2", "bass/channel/pan", "set")]
    waving = Envelope.fresh(id: "w1", target: Address.parse("bass/drive/mix"), role: "set", clock: "once", points: []).with(source: Sources::Lfo.plain)
    song.with_track(song.track("bass").with(lanes: [*lanes, waving]))
  end

  # Every edit that is tried: its name, its inputs, and what is done first.
  # @param song [Song] as {#song} gives it
  # @return [Array<Array(String, Hash, Array<Array(String, Hash)>)>]
  def list(song)
    @song = song
    tables = [of_points, of_envelopes, of_moves, of_notes, of_clips, of_regions, of_time, of_tracks, of_devices, of_macros, of_taking, of_ends]
    tables.flatten(1).map { |name, inputs, *first| [name, inputs, first] }
  end

  private

  def tracks(writer)
    writer.track "bass", "Bass", "notes", "madder", devices: { "synth" => ["mono-synth", {}], "drive" => ["drive", {}] }, output: "pair"
    writer.track "lead", "Lead", "notes", "weld", devices: { "synth" => ["mono-synth", {}] }, output: "pair"
    writer.track "loop", "Loop", "audio", "moss", devices: { "filter" => ["filter", {}] }
    writer.track "carriers", "Carriers", "carrier", "walnut", devices: {}
    writer.track "pair", "Pair", "group", "weld", devices: {}
    writer.track "hall", "Hall", "return", "lichen", devices: { "reverb" => ["reverb", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
  end

  def clips(writer)
    %w[line riff].each { |id| writer.clip id, id.capitalize, 2, notes: notes }
    writer.clip "gulls", "Gulls", 2, audio: ["gull-loop", 92]
    writer.clip "drift", "Drift", 2
    writer.region "bass", "line", 1, 4
    writer.region "bass", "line", 7, 2
    writer.region "lead", "riff", 1, 2
    writer.region "loop", "gulls", 1, 4
    writer.region "carriers", "drift", 1, 4
  end

  def notes = Array.new(@count) { |i| Note.new(tick: i * 150, length_ticks: 120, pitch: 36 + (i % 12), velocity: 80 + (i % 20)) }

  def drawn(song, clip_id, *moves)
    song.with_clip(song.clip(clip_id).with(envelopes: moves.map { |move| envelope(*move) }))
  end

  def envelope(id, target, role)
    points = Array.new(@count) { |i| Point.new(tick: i * 180, value: 0.05 + (((i * 7) % 10) / 12.0), shape: Shapes::Straight::PLAIN) }
    Envelope.fresh(id:, target: Address.parse(target), role:, clock: id[0] == "l" ? "once" : "each_loop", points:)
  end

  def some(id = "e1") = { envelope_id: id, runs: [[1, 3]] }
  def few(id = "line") = { clip_id: id, runs: [[1, 3]] }
  def stretch = { envelope_id: "e1", from_tick: 200, to_tick: 900 }
  def regions(*places) = { region_ids: places.map { |place| "region-#{place}" } }
  def document = JSON.parse(JSON.generate(Document.dump(@song)))

  def of_points
    snippet = Snippet.new(role: "set", length_ticks: 480, points: envelope("x", "bass/synth/cutoff", "set").points.first(3))
    [["add_point", { envelope_id: "e1", tick: 77, value: 0.3 }], ["boost_points", { **some, amount: "100 Hz" }],
     ["draw_stretch", { envelope_id: "e1", how: "freehand", points: [[0, 0.1], [300, 0.9], [600, 0.4]] }],
     ["duplicate_stretch", stretch], ["enter_points", { **some, value: "800 Hz" }], ["fade", { **stretch, direction: "out" }], ["flip_points", some],
     ["level_points", { **some, to: "first" }], ["move_points", { envelope_id: "e1", points: [{ index: 1, tick: 190, value: 0.2 }] }],
     ["paste_snippet", { envelope_id: "e1", tick: 300, snippet: Records.snippet(snippet) }], ["quantise_points", { **some, grid_ticks: 240 }],
     ["remove_points", some], ["reverse_points", some], ["rub_out", stretch], ["scale_points", { **some, factor: 0.5 }],
     ["shape_segments", { **some, shape: { "shape" => "curved", "curve" => 0.3 } }], ["shift_points", { **some, ticks: 40, value: 0.1 }],
     ["stretch_points", { **some, start_tick: 200, end_tick: 700 }], ["thin_points", { envelope_id: "e1", runs: [[0, @count - 1]], tolerance: 0.5 }],
     ["tilt_points", { **some, amount: "100 Hz" }]]
  end

  def of_envelopes
    followed = ["follow_level", { of: { clip_id: "gulls" }, address: "loop/channel/volume", clip_id: "gulls" }]
    [["add_lane", { address: "lead/synth/cutoff" }], ["clear_envelope", { envelope_id: "e1" }], ["crop_envelope", { envelope_id: "e1" },
                                                                                                 ["set_clip", { clip_id: "line", length_ticks: 960 }]],
     ["draw_lfo", { envelope_id: "w1" }], ["embed_envelope", { clip_id: "line", address: "bass/channel/pan" }], followed,
     ["raise_envelope", { envelope_id: "e1", amount: "100 Hz" }],
     ["add_point", { envelope_id: "envelope-6", tick: 20, value: 0.5 }, followed], ["remove_envelope", { envelope_id: "e1" }],
     ["remove_envelopes", { envelope_ids: %w[e1 l1] }],
     ["set_clock", { envelope_id: "e1", clock: "own_length", own_length_ticks: 1920 }], ["set_fader", { envelope_id: "l1", fader: "trim" }],
     ["set_lfo", { envelope_id: "e1", wave: "sine" }], ["set_lfo", { envelope_id: "w1", free: true }],
     ["set_limits", { envelope_id: "e1", low: 0.2, depth: 0.5 }],
     ["set_limits", { envelope_id: "e1", low: 0, high: 1, depth: 1 }, ["set_limits", { envelope_id: "e1", low: 0.2, depth: 0.5 }]],
     ["set_knob", { address: "move/e1/depth", value: 0.4 }, ["add_lane", { address: "move/e1/depth" }]],
     ["hand_back", {}, ["add_lane", { address: "move/e1/depth" }], ["set_knob", { address: "move/e1/depth", value: 0.4 }]],
     ["set_role", { envelope_id: "e1", role: "scale" }], ["switch_envelope", { envelope_id: "e1", on: false }],
     ["switch_envelopes", { envelope_ids: %w[e1 l1], on: false }],
     ["set_knob", { address: "bass/synth/cutoff", value: 0.4 }],
     ["vary_move", { envelope_id: "e1", repeats: 2, scatter: 0.1 }]]
  end

  def of_moves
    kept = { "name" => "Swell", "tags" => [], "role" => "set", "length_ticks" => 960,
             "points" => [{ "tick" => 0, "value" => 0.1, "shape" => "straight" }, { "tick" => 960, "value" => 0.9, "shape" => "straight" }] }
    samples = Array.new(40) { |i| [i * 0.05, (i % 20) / 20.0] }.flatten
    pass = { pass: "p", lap: 0, from_seconds: 0.0, to_seconds: 2.0, into: "clip",
moves: [{ address: "bass/synth/cutoff", grips: [{ samples:, until_seconds: 2.0 }] }] }
    [["copy_moves", { from_clip_id: "line", to_clip_id: "riff" }], ["drop_move", { move: kept, envelope_id: "e1", tick: 0, length_ticks: 960 }],
     ["lay_out", { track_id: "bass" }], ["pack", { envelope_id: "l2", from_tick: 0, to_tick: 7680 }], ["record_moves", pass],
     ["rewrite_pass", { pass: "p", address: "bass/synth/cutoff", tolerance: 0.05 }, ["record_moves", pass]],
     ["fit_carrier", { region_id: "region-5", start_tick: 0, end_tick: 3840 }]]
  end

  def of_notes
    [["add_notes", { clip_id: "line", notes: [{ tick: 5, length_ticks: 100, pitch: 60, velocity: 90 }] }], ["humanise_notes", { **few, ticks: 10 }],
     ["legato_notes", few], ["move_notes", { **few, ticks: 40, steps: 2 }], ["pace_notes", { **few, pace: 0.5 }],
     ["quantise_notes", { **few, grid_ticks: 240 }],
     ["record_notes", { track_id: "bass", from_seconds: 0.0, to_seconds: 2.0, notes: [{ start_seconds: 0.3, end_seconds: 0.5, pitch: 50, velocity: 80 }] }],
     ["remove_notes", few], ["set_velocity", { **few, add: 10 }], ["stretch_notes", { **few, ticks: 20 }]]
  end

  def of_clips
    [["set_clip", { clip_id: "line", hue: "moss" }], ["set_clip", { clip_id: "line", hue: nil }, ["set_clip", { clip_id: "line", hue: "moss" }]],
     ["set_clip", { clip_id: "line", meter: { beats: 3, unit: 8 } }], ["set_clip", { clip_id: "line", meter: nil },
                                                                       ["set_clip", { clip_id: "line", meter: { beats: 3, unit: 8 } }]],
     ["double_clip", { clip_id: "line" }], ["make_clip", { track_id: "bass", start_tick: 38_400, length_ticks: 3840 }],
     ["make_carrier", { start_tick: 30_720, length_ticks: 3840 }],
     ["set_audio", { clip_id: "gulls", stretched: true, backwards: true }],
     ["chain_to_clip", { track_id: "bass", device_id: "drive", clip_id: "line" }],
     ["set_tails", { clip_id: "line", tails: "stop" }, ["chain_to_clip", { track_id: "bass", device_id: "drive", clip_id: "line" }]],
     ["chain_to_track", { clip_id: "line" }, ["chain_to_clip", { track_id: "bass", device_id: "drive", clip_id: "line" }]],
     ["swap_clip", { **regions(1), clip_id: "riff" }], ["swap_clip", { **regions(3), clip_id: "line" }],
     ["place_sound", { track_id: "loop", start_tick: 38_400, sound: "gull-loop", name: "Far", seconds: 5.2, bpm: 92 }]]
  end

  def of_regions
    [["consolidate_regions", regions(1)], ["copy_regions", { **regions(1), ticks: 38_400 }],
     ["fade_region", { region_id: "region-1", side: "out", length: 960 }],
     ["duplicate_regions", regions(2)],
     ["move_regions", { **regions(2), ticks: 960, track_steps: 1 }],
     ["join_region", { region_id: "region-1" }, ["split_region", { region_id: "region-1", tick: 4000 }]],
     ["loop_regions", { **regions(1), looped: false }],
     ["mute_regions", { **regions(1), muted: true }], ["remove_regions", regions(1, 2)], ["separate_regions", regions(2)],
     ["split_region", { region_id: "region-1", tick: 4000 }],
     ["trim_region", { region_id: "region-1", start_tick: 960 }]]
  end

  def of_time
    [["add_marker", { tick: 960, name: "Tide" }], ["set_marker", { marker_id: "marker-6", name: "Ebb" }, ["add_marker", { tick: 960 }]],
     ["remove_marker", { marker_id: "marker-6" }, ["add_marker", { tick: 960 }]], ["delete_time", { from_tick: 960, to_tick: 4800 }],
     ["insert_time", { tick: 960, length_ticks: 3840 }],
     ["glide_tempo", { from_tick: 960, to_tick: 4800, to_bpm: 80 }],
     ["paste_time", { tick: 960, stretch: Transfer::SongStretch.of(@song, 0, 3840).to_record }],
     ["set_meter", { beats: 3, unit: 4, bar: 2 }], ["remove_meter", { bar: 2 }, ["set_meter", { beats: 3, unit: 4, bar: 2 }]],
     ["set_points_follow", { on: true }],
     ["set_range", { on: true, start_tick: 0, end_tick: 960 }], ["set_tempo", { tick: 3840, bpm: 120 }], ["set_tempo", { tick: 0, bpm: 91 }],
     ["rename_song", { name: "Ebb" }]]
  end

  def of_tracks
    [["add_track", { kind: "notes", devices: [{ type: "mono-synth" }] }], ["colour_track", { track_id: "bass", hue: "weld" }],
     ["duplicate_track", { track_id: "bass", moves: true }],
     ["make_group", { track_ids: %w[bass lead] }], ["move_track", { track_id: "lead", before: "bass" }], ["remove_track", { track_id: "bass" }],
     ["remove_track", { track_id: "pair" }],
     ["rename_track", { track_id: "bass", name: "Keel" }], ["set_output", { track_ids: ["bass"], output: "master" }]]
  end

  def of_devices
    chained = ["chain_to_clip", { track_id: "bass", device_id: "drive", clip_id: "line" }]
    [["add_device", { track_id: "bass", type: "filter" }], ["add_device", { clip_id: "line", type: "filter" }],
     ["move_device", { track_id: "bass", device_id: "filter", before: "drive" }, ["add_device", { track_id: "bass", type: "filter" }]],
     ["remove_device", { track_id: "bass", device_id: "drive" }], ["remove_device", { clip_id: "line", device_id: "drive" }, chained],
     ["replace_device", { track_id: "bass", device_id: "drive", type: "filter" }],
     ["set_chain", { clip_id: "line", devices: [{ type: "filter", values: {} }] }],
     ["set_device", { track_id: "bass", device_id: "synth", values: { "cutoff" => 0.9 } }],
     ["set_sound", { track_id: "lead", device_id: "synth", sound: "gull-loop" },
      ["replace_device", { track_id: "lead", device_id: "synth", type: "sampler" }]]]
  end

  def of_macros
    strip = ["add_device", { track_id: "bass", type: "macro-strip" }]
    drive = ["set_drive", { macro: "bass/macro-strip/macro-1", target: "bass/drive/mix" }]
    [["set_macro", { address: "bass/macro-strip/macro-1", name: "Swell" }, strip], [*drive, strip],
     ["remove_drive", { target: "bass/drive/mix" }, strip, drive],
     ["drive_from", { envelope_id: "e1", target: "bass/drive/mix" }],
     ["morph_macro", { macro: "bass/macro-strip/macro-1", device: "bass/synth", settings: FOG }, strip]]
  end

  def of_taking
    other = Records.envelope(@song.clip("line").envelopes[0]).merge("depth" => 0.5, "limits" => [0.1, 0.9])
    [["take_envelope", { owner: "clip/line", envelope: other }],
     ["take_regions", { document:, region_ids: ["region-1"], track_id: "lead", start_tick: 38_400 }],
     ["take_tracks", { document:, track_ids: ["bass"] }]]
  end

  def of_ends
    off = [["switch_envelope", { envelope_id: "e1", on: false }], ["switch_envelope", { envelope_id: "l1", on: false }]]
    aside = ["set_ends_aside", { check: "off", keys: ["e1"] }]
    [["mend_ends", { check: "off" }, *off], [*aside, *off], ["take_ends_back", { check: "off", keys: ["e1"] }, *off, aside]]
  end
end
