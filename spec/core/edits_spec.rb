# frozen_string_literal: true

RSpec.describe KindSatchel::Edits do
  let(:song) { small_song(clip: [envelope([0, 0.2], [1920, 0.8, 0.5], [3840, 0.4])]) }

  def first_region(song) = song.track("bass").regions.first
  def move(song) = song.directory.envelope("e1").envelope
  def ticks(song) = move(song).points.map(&:tick)

  it "has a schema for every edit and an edit for every schema, each file in the folder that lists it" do
    folder = File.expand_path("../../core/kind_satchel/edits", __dir__)
    files = (Dir.children(folder) - ["helpers"]).to_h { |kind| [kind, Dir.children("#{folder}/#{kind}").map { |file| File.basename(file, ".rb") }.sort] }
    expect(described_class::FOLDERS.transform_values(&:sort)).to eq files
    edits = files.values.flatten.select { |file| described_class.const_get(file.split("_").map(&:capitalize).join).respond_to?(:call) }
    schemas = Dir[File.expand_path("../../schemas/edits/*.json", __dir__)].map { |file| File.basename(file, ".json") }
    expect([edits.sort, described_class::ALL.ids]).to all eq schemas.sort
  end

  it "leaves the song it was given alone, and shares what it did not change" do
    before = json_of(song)
    after = apply(song, "add_point", envelope_id: "e1", tick: 960, value: 0.5).song
    expect(json_of(song)).to eq before
    expect(after.tracks).to equal song.tracks
  end

  describe "points" do
    it "adds a point on the line without changing the curve" do
      after = apply(song, "add_point", envelope_id: "e1", tick: 2500).song
      (0..3840).step(60) { |tick| expect(move(after).at(tick)).to be_within(1e-9).of(move(song).at(tick)) }
      expect(ticks(after)).to eq [0, 1920, 2500, 3840]
    end

    it "adds a point on the line of a move with limits, of every shape, before the first and past the last, without changing what is heard" do
      shapes = [[0, 0.2, 0.7], [900, 0.8], [1800, 0.4, "hold"], [2400, 0.9]]
      some = small_song(clip: [envelope(*shapes, limits: [0.25, 0.75])])
      (100..3500).step(271) do |tick|
        after = apply(some, "add_point", envelope_id: "e1", tick:).song
        (0..3840).step(60) { |place| expect(move(after).at(place)).to be_within(1e-9).of(move(some).at(place)) }
      end
      expect(faults { apply(small_song(clip: [envelope]), "add_point", envelope_id: "e1", tick: 0) }).to eq [["no_value", "/value"]]
    end

    it "adds before the first and after the last" do
      after = apply(apply(song, "add_point", envelope_id: "e1", tick: 5000, value: 0.1).song, "add_point", envelope_id: "e1", tick: 0, value: 0.9).song
      expect(ticks(after)).to eq [0, 0, 1920, 3840, 5000]
    end

    it "moves points with their value, stopping at the neighbours" do
      after = apply(song, "move_points", envelope_id: "e1", points: [{ "index" => 1, "tick" => 9000, "value" => 0.3 }])
      expect([ticks(after.song), move(after.song).points[1].value, after.words]).to eq [[0, 3840, 3840], 0.3, "move a point of Cutoff"]
    end

    it "moves neighbours together" do
      moves = [{ "index" => 1, "tick" => 2400, "value" => 0.8 }, { "index" => 2, "tick" => 4320, "value" => 0.4 }]
      expect(ticks(apply(song, "move_points", envelope_id: "e1", points: moves).song)).to eq [0, 2400, 4320]
    end

    it "removes points; the segment before runs on" do
      after = apply(song, "remove_points", envelope_id: "e1", runs: [[1, 1]])
      expect([ticks(after.song), move(after.song).at(1920)]).to match [[0, 3840], be_within(1e-12).of(0.3)]
    end

    it "shapes a segment, and refuses a shape it does not know" do
      after = apply(song, "shape_segments", envelope_id: "e1", runs: [[0, 0]], shape: { "shape" => "hold" }).song
      expect([move(after).at(1919), move(after).at(1920)]).to eq [0.2, 0.8]
      expect(faults { apply(song, "shape_segments", envelope_id: "e1", runs: [[0, 0]], shape: { "shape" => "wave" }) }).to eq [["unknown_shape", "/shape"]]
    end

    it "names every point that is not there" do
      found = faults { apply(song, "remove_points", envelope_id: "e1", runs: [[0, 0], [1, 7], [9, 9]]) }
      expect(found).to eq [["unknown_point", "/runs/1"], ["unknown_point", "/runs/2"]]
    end

    it "keeps a value out of the envelope that its role does not allow" do
      found = faults { apply(song, "move_points", envelope_id: "e1", points: [{ "index" => 0, "tick" => 0, "value" => -0.2 }]) }
      expect(found).to eq [["out_of_range", "/points/0/value"]]
    end
  end

  describe "envelopes" do
    it "embeds one that changes nothing until it is drawn on" do
      bare = small_song(knobs: { "cutoff" => "640 Hz" })
      after = apply(bare, "embed_envelope", clip_id: "line", address: CUTOFF)
      expect([heard(after.song, CUTOFF, BAR), after.words]).to match [be_within(1e-12).of(heard(bare, CUTOFF, BAR)), "embed Cutoff in Line"]
    end

    it "refuses a second one, one out of reach, and one on what cannot move" do
      expect(faults { apply(song, "embed_envelope", clip_id: "line", address: CUTOFF) }).to eq [["already_there", "/address"]]
      expect(faults { apply(song, "embed_envelope", clip_id: "line", address: "master/channel/volume") }).to eq [["out_of_reach", "/address"]]
      fixed = song.parameter(address(CUTOFF)).with(automatable: false, reason: "it is nailed down.")
      expect { fixed.automatable!("/address") }.to raise_error(KindSatchel::InvalidInput, /cannot be automated: it is nailed down/)
      expect(faults { apply(song, "add_lane", address: "bass/synth/nose") }).to eq [["unknown_parameter", "/address"]]
    end

    it "makes a lane with its resting value" do
      after = apply(song, "add_lane", address: "master/channel/volume").song
      expect(heard(after, "master/channel/volume", 0)).to be_within(1e-12).of song.knob(address("master/channel/volume"))
      expect(faults { apply(after, "add_lane", address: "master/channel/volume") }).to eq [["already_there", "/address"]]
    end

    it "switches off, on, and removes" do
      off = apply(song, "switch_envelope", envelope_id: "e1", on: false).song
      expect(heard(off, CUTOFF, BAR)).to eq song.knob(address(CUTOFF))
      expect(apply(off, "switch_envelope", envelope_id: "e1", on: true).song).to eq song
      expect(apply(song, "remove_envelope", envelope_id: "e1").song.clip("line").envelopes).to eq []
      expect(faults { apply(song, "remove_envelope", envelope_id: "e9") }).to eq [["unknown_envelope", "/envelope_id"]]
    end

    it "changes the role and keeps what is heard at the points over the resting knob" do
      %w[shift scale set].each do |role|
        changed = apply(small_song(clip: [envelope([0, 0.2], [1920, 0.35])], knobs: { "cutoff" => "2 kHz" }), "set_role", envelope_id: "e1", role:).song
        expect([heard(changed, CUTOFF, BAR), heard(changed, CUTOFF, BAR + 1920)]).to match [be_within(1e-9).of(0.2), be_within(1e-9).of(0.35)]
      end
    end

    it "lets a switch only be set" do
      muted = small_song(clip: [envelope([0, 0.0], target: "bass/channel/mute")])
      expect(faults { apply(muted, "set_role", envelope_id: "e1", role: "shift") }).to eq [["set_only", "/role"]]
    end

    it "runs a clip envelope by another clock, a lane by none" do
      once = apply(song, "set_clock", envelope_id: "e1", clock: "once").song
      expect(heard(once, CUTOFF, 2 * BAR)).to eq 0.4
      lane = small_song(lanes: [envelope([0, 0.1], id: "l1")])
      expect(faults { apply(lane, "set_clock", envelope_id: "l1", clock: "once") }).to eq [["no_clock", "/envelope_id"]]
    end
  end

  describe "regions" do
    it "moves one with its envelopes" do
      after = apply(song, "move_regions", region_ids: [first_region(song).id], ticks: 7 * BAR).song
      [0, 500, BAR, BAR + 77].each { |into| expect(heard(after, CUTOFF, (8 * BAR) + into)).to eq heard(song, CUTOFF, BAR + into) }
    end

    it "shares the clip with a copy until one is separated" do
      copied = apply(song, "copy_regions", region_ids: [first_region(song).id], ticks: 8 * BAR).song
      new_id = copied.track("bass").regions.last.id
      apart = apply(copied, "separate_regions", region_ids: [new_id]).song
      edited = ->(base, id) { apply(base, "move_points", envelope_id: id, points: [{ "index" => 0, "tick" => 0, "value" => 0.9 }]).song }
      expect(heard(edited.call(copied, "e1"), CUTOFF, 9 * BAR)).to eq 0.9
      expect(heard(edited.call(apart, "e1"), CUTOFF, 9 * BAR)).to eq 0.2
      expect(apart.clips.values.map(&:name)).to eq ["Line", "Line 2"]
      expect(faults { apply(apart, "separate_regions", region_ids: [new_id]) }).to eq [["not_shared", "/region_ids"]]
    end

    it "duplicates right after itself" do
      after = apply(song, "duplicate_regions", region_ids: [first_region(song).id]).song
      expect(after.track("bass").regions.map(&:start_tick)).to eq [BAR, 3 * BAR, 5 * BAR]
    end

    it "trims, splits or takes away what it is dropped on" do
      far = song.track("bass").regions.last
      trimmed = apply(song, "move_regions", region_ids: [far.id], ticks: -3 * BAR).song.track("bass").regions
      expect(trimmed.map { |region| [region.start_tick, region.length_ticks] }).to eq [[BAR, BAR], [2 * BAR, BAR]]
      split = apply(song, "copy_regions", region_ids: [far.id], ticks: 960 - (4 * BAR)).song.track("bass").regions
      expect(split.map { |r| [r.start_tick, r.length_ticks, r.offset_ticks] })
        .to eq [[BAR, 960, 0], [BAR + 960, BAR, 0], [(2 * BAR) + 960, BAR - 960, BAR + 960], [5 * BAR, BAR, 0]]
      gone = apply(song, "move_regions", region_ids: [first_region(song).id], ticks: 4 * BAR).song.track("bass").regions
      expect(gone.map(&:id)).to eq [first_region(song).id]
    end

    it "removes one, and knows it no longer" do
      after = apply(song, "remove_regions", region_ids: [first_region(song).id]).song
      expect(after.track("bass").regions.size).to eq 1
      expect(faults { apply(after, "move_regions", region_ids: [first_region(song).id], ticks: 0) }).to eq [["unknown_region", "/region_ids/0"]]
    end
  end

  describe "the song" do
    it "turns knobs, on their steps" do
      after = apply(song, "set_knob", address: "bass/synth/pitch", value: 0.51)
      expect([after.song.knob(address("bass/synth/pitch")), after.words]).to eq [0.5, "turn Pitch of Bass to 0 st"]
      sent = apply(song, "set_knob", address: "bass/channel/send-hall", value: 0.25).song
      expect(sent.knob(address("bass/channel/send-hall"))).to eq 0.25
    end

    it "takes a name, tempo, meter and range" do
      expect(apply(song, "rename_song", name: " Ebb ").song.name).to eq "Ebb"
      expect(apply(song, "set_tempo", tick: 0, bpm: 92).song.tempo.bpm_at(5)).to eq 92.0
      expect(apply(song, "set_meter", beats: 7, unit: 8).song.meters.at(0).bar_ticks).to eq 3360
      expect(apply(song, "set_range", on: true, start_tick: 960, end_tick: 1920).words).to eq "set the range 1.2.0 to 1.3.0"
      expect(faults { apply(song, "set_range", start_tick: 960, end_tick: 960) }).to eq [["out_of_range", "/end_tick"]]
    end

    it "counts a clip by a time signature of its own, or by that of the song where it lies" do
      moved = small_song(clip: [envelope([0, 0.2], [960, 0.5], [2880, 0.9])])
      own = apply(moved, "set_clip", clip_id: "line", meter: { "beats" => 3, "unit" => 8 })
      expect([own.words, own.song.meters_of(own.song.clip("line")).text(1440)]).to eq ["count Line in 3/8", "2.1.0"]
      typed = apply(own.song, "enter_points", envelope_id: "e1", runs: [[1, 1]], position: "2.1")
      expect(typed.song.clip("line").envelopes.first.points[1].tick).to eq 1440
      expect(apply(own.song, "rub_out", envelope_id: "e1", from_tick: 1440, to_tick: 2880).words).to start_with "rub out 2.1.0 to 3.1.0 of"
      expect(faults { apply(own.song, "enter_points", envelope_id: "e1", runs: [[1, 1]], position: "1.4") }).to eq [["bad_position", "/position"]]
      expect(KindSatchel::Document.load(JSON.parse(json_of(own.song)))).to eq own.song
      expect(apply(own.song, "set_clip", clip_id: "line", meter: nil).song).to eq moved
      later = apply(moved, "set_meter", bar: 2, beats: 7, unit: 8).song
      expect(later.meters_of(later.clip("line")).text(3360)).to eq "2.1.0"
      expect(faults { apply(moved, "set_clip", clip_id: "line", meter: { "beats" => 3, "unit" => 5 }) }).to eq [["out_of_range", "/meter/unit"]]
    end
  end
end
