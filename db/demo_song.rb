# frozen_string_literal: true

require_relative "../core/kind_satchel"
require_relative "song_writer"

# Low Tide Market: a quay at dawn, stalls setting up. 92 BPM, 4/4, 32 bars; made up for this project.
module DemoSong
  BAR = 3840
  SIXTEENTH = 240
  # Every second sixteenth comes this late: a loose swing.
  SWING = 38

  # @return [KindSatchel::Song]
  def self.build = moving(still)

  # Without moves that move, as older versions of the format can hold it.
  # @return [KindSatchel::Song]
  def self.still
    writer = SongWriter.new(name: "Low Tide Market", bpm: 92, range: [4 * BAR, 12 * BAR])
    tracks(writer)
    crate_kit(writer)
    rope_bass(writer)
    fog_pad(writer)
    gull_chop(writer)
    bell_buoy(writer)
    tideline(writer)
    master(writer)
    turns(writer)
    writer.song
  end

  LANTERNS = "deck/macro-strip/macro-1"

  # Mist that comes and goes in the pad's clip; a knob that warms the deck and lets it ring before the turn.
  def self.moving(song)
    mist, lanterns = ["envelope-#{song.next_id}", "envelope-#{song.next_id + 1}"]
    edits = [
      ["embed_envelope", { "clip_id" => "fog", "address" => "fog-pad/chorus/depth", "role" => "shift" }],
      ["set_lfo", { "envelope_id" => mist, "rate" => "2 bars" }],
      ["set_limits", { "envelope_id" => mist, "depth" => 0.3 }],
      ["add_device", { "track_id" => "deck", "type" => "macro-strip" }],
      ["set_macro", { "address" => LANTERNS, "name" => "Lanterns" }],
      ["set_drive", { "macro" => LANTERNS, "target" => "deck/drive/amount", "low" => "4 dB", "high" => "9 dB" }],
      ["set_drive", { "macro" => LANTERNS, "target" => "deck/filter/resonance", "low" => "0 dB", "high" => "5 dB" }],
      ["add_lane", { "address" => LANTERNS }],
      ["draw_stretch", { "envelope_id" => lanterns, "how" => "ramp", "points" => [[12 * BAR, 0.0], [16 * BAR, 1.0]] }]
    ]
    edits.reduce(song) { |now, (name, inputs)| KindSatchel::Edits.apply(now, name, inputs).song }
  end

  def self.tracks(writer)
    writer.track "crate-kit", "Crate Kit", "notes", "walnut", output: "deck",
                 devices: { "kit" => ["drum-kit", { "decay" => "900 ms", "hat-pan" => "L20", "shaker-pan" => "R35",
                                                    "snare-send-boathouse" => "-20 dB" }] },
                 channel: { "volume" => "-2 dB", "send-boathouse" => "-28 dB" }
    writer.track "rope-bass", "Rope Bass", "notes", "madder", output: "deck",
                 devices: { "synth" => ["mono-synth", { "cutoff" => "520 Hz", "decay" => "420 ms", "sub" => "55 %" }],
                            "drive" => ["drive", { "amount" => "8 dB", "mix" => "35 %", "tone" => "4 kHz" }] },
                 channel: { "volume" => "-5 dB" }
    writer.track "fog-pad", "Fog Pad", "notes", "indigo",
                 devices: { "synth" => ["pad-synth", { "cutoff" => "1.1 kHz" }], "chorus" => ["chorus", {}],
                            "filter" => ["filter", { "kind" => "high pass", "cutoff" => "120 Hz" }],
                            "gate" => ["step-gate", { "note" => "1/8", "count" => "8", "depth" => "0 %", "soft" => "20 ms" }] },
                 channel: { "volume" => "-9 dB", "send-boathouse" => "-11 dB" }
    writer.track "gull-chop", "Gull Chop", "audio", "weld",
                 devices: { "player" => ["loop-player", {}], "filter" => ["filter", { "cutoff" => "7 kHz" }] },
                 channel: { "volume" => "-8 dB", "pan" => "R12", "send-boathouse" => "-18 dB" }
    writer.track "bell-buoy", "Bell Buoy", "notes", "moss",
                 devices: { "pluck" => ["partial-bank", {}], "drive" => ["drive", { "bypass" => "on" }] },
                 channel: { "volume" => "-10 dB", "send-boathouse" => "-12 dB", "send-echo-pier" => "-14 dB" }
    writer.track "tideline", "Tideline", "carrier", "lichen", devices: {}
    writer.track "boathouse", "Boathouse", "return", "lichen", devices: { "reverb" => ["reverb", { "mix" => "100 %", "length" => "2.8 s" }] }
    writer.track "echo-pier", "Echo Pier", "return", "lichen",
                 devices: { "delay" => ["delay", { "mix" => "100 %", "in-notes" => "on", "note" => "1/8 dotted", "sway" => "1.5 ms",
                                                   "feedback" => "46 %", "tone" => "2.4 kHz" }] }
    writer.track "deck", "Deck", "group", "walnut",
                 devices: { "filter" => ["filter", {}], "drive" => ["drive", { "amount" => "4 dB", "mix" => "25 %" }] }
    writer.track "master", "Master", "master", "indigo", devices: { "filter" => ["filter", { "kind" => "high pass", "cutoff" => "30 Hz" }] }
  end

  def self.crate_kit(writer)
    opening = steps(70, "..x...x...x...x.", 58) + steps(42, "x...x...x...x...", 48) + steps(75, "......x.......x.", 50)
    writer.clip "opening", "Opening", 1, notes: opening
    writer.clip "crates", "Crates", 2, notes: crates
    writer.clip "tip-over", "Tip Over", 1, notes: steps(36, "x..x..x...x.x...", 108) + steps(38, "....x..x.x.xx.xx", 92) + steps(46, "..............x.", 80)
    writer.region "crate-kit", "opening", 1, 4
    [5, 9, 21, 25].each { |bar| writer.region "crate-kit", "crates", bar, 4 }
    writer.region "crate-kit", "crates", 13, 3
    writer.region "crate-kit", "tip-over", 16, 1
    writer.region "crate-kit", "opening", 17, 4
    writer.region "crate-kit", "crates", 29, 4
    writer.move "crates", "crate-kit/kit/tone", "set", [[0, "6 kHz", :straight], [4, "18 kHz", :hold], [6, "7 kHz", -0.3], [8, "6 kHz", :hold]]
  end

  def self.crates
    steps(36, "x.....x...x.....x..x..x...x.....", 112) + steps(38, "....x.......x.......x.......x...", 100) +
      steps(42, "x.x.xxx.x.x.x.x.x.x.xxx.x.x.x.xx", 66) + steps(46, "..............x.................", 72) +
      steps(37, ".......x.........x.......x......", 44) + steps(75, "...........x...............x....", 52)
  end

  def self.rope_bass(writer)
    writer.clip "mooring", "Mooring", 2, notes: bass([[0, 33, 3], [3, 33, 1], [6, 45, 2], [10, 36, 3], [14, 40, 2],
                                                      [16, 29, 3], [20, 29, 2], [22, 41, 2], [26, 33, 3], [30, 31, 2]])
    writer.clip "cast-off", "Cast Off", 2,
                notes: bass([[0, 38, 4], [6, 38, 2], [8, 50, 1], [10, 41, 4], [16, 40, 4], [20, 28, 2], [24, 40, 3], [28, 43, 2], [30, 44, 2]])
    [5, 9, 21, 25].each { |bar| writer.region "rope-bass", "mooring", bar, 4 }
    [13, 29].each { |bar| writer.region "rope-bass", "cast-off", bar, 4 }
    writer.move "mooring", "rope-bass/synth/cutoff", "shift", [[0, 0.0, 0.35], [5, 0.42, :straight], [6.5, 0.18, 0.3], [8, -0.08, :hold]]
    writer.move "cast-off", "rope-bass/synth/cutoff", "shift", [[0, -0.1, 0.5], [7.5, 0.38, :straight], [8, 0.0, :hold]]
    writer.move "cast-off", "rope-bass/synth/resonance", "set", [[0, "4 dB", 0.4], [7, "13 dB", :straight], [8, "6 dB", :hold]]
    writer.lane "rope-bass/synth/cutoff", [[16, "320 Hz", :straight], [32, "420 Hz", 0.4], [64, "1.5 kHz", :hold], [80, "360 Hz", 0.4], [128, "1.8 kHz", :hold]]
  end

  def self.fog_pad(writer)
    chords = [[57, 60, 64, 67], [53, 57, 60, 64], [50, 57, 60, 65], [52, 55, 59, 62]]
    notes = chords.each_with_index.flat_map { |chord, bar| chord.map { |pitch| note((bar * BAR) + 20, BAR - 60, pitch, 70) } }
    writer.clip "fog", "Fog", 4, notes: notes
    (1..29).step(4) { |bar| writer.region "fog-pad", "fog", bar, 4 }
    writer.move "fog", "fog-pad/channel/volume", "scale", [[0, 0.45, -0.3], [8, 1.0, 0.3], [16, 0.45, :hold]]
    writer.lane "fog-pad/synth/cutoff", [[0, "400 Hz", 0.2], [16, "1.4 kHz", :straight], [64, "900 Hz", 0.4], [78, "4 kHz", 0.4], [80, "1.2 kHz", :hold]]
  end

  def self.gull_chop(writer)
    writer.clip "gulls", "Gulls", 2, audio: ["gull-loop", 92]
    writer.clip "far-gulls", "Far Gulls", 2, audio: ["gull-loop", 92]
    [9, 13, 21, 25].each { |bar| writer.region "gull-chop", "gulls", bar, 4 }
    writer.region "gull-chop", "far-gulls", 17, 4
    writer.move "gulls", "gull-chop/channel/send-echo-pier", "set", [[0, "-inf", :hold], [5, "-4 dB", :hold], [6, "-inf", :hold]]
    writer.move "gulls", "gull-chop/channel/pan", "set", [[0, "L20", :straight], [4, "R35", :straight], [8, "L20", :hold]]
    writer.move "far-gulls", "gull-chop/filter/cutoff", "set", [[0, "900 Hz", 0.3], [8, "2.2 kHz", :straight], [16, "900 Hz", :hold]], clock: "once"
    writer.move "far-gulls", "gull-chop/channel/volume", "shift", [[0, -0.25, :hold]]
  end

  def self.bell_buoy(writer)
    notes = [[0, 76], [3, 81], [6, 84], [11, 79], [16, 77], [19, 81], [24, 84], [32, 74], [35, 77], [38, 81], [44, 84], [48, 76], [52, 79], [56, 83]]
    writer.clip "bells", "Bells", 4, notes: notes.map { |step, pitch| note(swung(step), 480, pitch, 72 + (step % 5 * 6)) }
    [13, 25, 29].each { |bar| writer.region "bell-buoy", "bells", bar, 4 }
    writer.move "bells", "bell-buoy/channel/pan", "set", [[0, "L60", :straight], [3.5, "R60", :straight], [7, "L60", :hold]], own_beats: 7
    writer.move "bells", "bell-buoy/pluck/ring", "set", [[0, "500 ms", 0.5], [14, "3.5 s", :straight], [16, "600 ms", :hold]]
    writer.lane "bell-buoy/drive/mix", [[48, "0 %", :straight], [64, "80 %", :hold]], on: false
  end

  # A clip of moves only, for the group and a return: the deck goes under water and comes up again.
  def self.tideline(writer)
    writer.clip "undertow", "Undertow", 2
    [19, 27].each { |bar| writer.region "tideline", "undertow", bar, 2 }
    writer.move "undertow", "deck/filter/cutoff", "set", [[0, "12 kHz", 0.4], [6, "800 Hz", -0.5], [8, "16 kHz", :hold]]
    writer.move "undertow", "echo-pier/delay/feedback", "shift", [[0, 0.0, :straight], [7, 0.2, :straight], [8, 0.0, :hold]]
  end

  # The fade starts a hair under the level before it: the loose end of this song.
  def self.master(writer)
    writer.lane "master/channel/volume", [[0, "0 dB", :hold], [112, "-0.4 dB", -0.35], [127.5, "-inf", :hold]]
    writer.lane "master/filter/cutoff", [[60, "30 Hz", 0.6], [64, "260 Hz", :hold], [80, "30 Hz", :hold]]
  end

  # An effect of one clip's own, which falls to pieces in it; and a pad that begins to stutter before the turn.
  def self.turns(writer)
    writer.effects "tip-over", { "bit-reducer" => ["bit-reducer", { "bits" => "10", "mix" => "80 %" }] }
    writer.move "tip-over", "clip-tip-over/bit-reducer/rate", "set", [[0, "40 kHz", 0.5], [3.5, "2.4 kHz", :straight], [4, "1.6 kHz", :hold]]
    writer.lane "fog-pad/gate/depth", [[48, "0 %", 0.3], [62, "85 %", :straight], [64, "0 %", :hold]]
  end

  def self.note(tick, length, pitch, velocity)
    KindSatchel::Note.new(tick:, length_ticks: length, pitch:, velocity:)
  end

  def self.swung(step) = (step * SIXTEENTH) + (step.odd? ? SWING : 0)

  # A drum line: an x for every sixteenth that is struck.
  def self.steps(pitch, line, velocity)
    line.each_char.with_index.filter_map do |mark, step|
      note(swung(step), 120, pitch, velocity - (step.odd? ? 16 : 0) - (step % 4 == 2 ? 6 : 0)) if mark == "x"
    end
  end

  def self.bass(entries) = entries.map { |step, pitch, length| note(swung(step), (length * SIXTEENTH) - 20, pitch, 100) }

  private_class_method :moving, :tracks, :crate_kit, :crates, :rope_bass, :fog_pad, :gull_chop, :bell_buoy, :tideline, :master, :turns, :note, :swung,
                       :steps, :bass
end
