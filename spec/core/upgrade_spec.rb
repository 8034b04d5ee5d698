# frozen_string_literal: true

RSpec.describe KindSatchel::Upgrade do
  def brought_up(document) = KindSatchel::Document.load(described_class.document(document))

  # A document of version 1 with some envelopes in its clip, in order, whatever their roles.
  def old(clip: [], lanes: [], knobs: {})
    document = OldSongs.document(small_song(knobs:))
    document["clips"][0]["envelopes"] = clip.map { |one| record(one) }
    document["tracks"][0]["lanes"] = lanes.map { |one| record(one) }
    document
  end

  def record(envelope) = JSON.parse(JSON.generate(KindSatchel::Records.envelope(envelope)))

  it "reads what version 1 left unsaid: the kind of a clip, and held values" do
    held = apply(small_song(lanes: [envelope([0, 0.3], id: "l1")]), "set_knob", address: CUTOFF, value: 0.5).song
    song = brought_up(OldSongs.document(held))
    expect([song.clip("line").kind, song.held_value(address(CUTOFF)), heard(song, CUTOFF, 0)]).to eq ["notes", 0.5, 0.5]
  end

  it "merges two that shift, or scale, with like clocks, within the bound" do
    one, two = envelope([0, 0.1], [BAR, 0.3], role: "shift"), envelope([0, -0.2, 0.4], [BAR, 0.2], role: "shift", id: "e2")
    song = brought_up(old(clip: [one, two]))
    expect(song.clip("line").envelopes.map { |found| [found.id, found.role, found.on] }).to eq [["e1", "shift", true]]
    (0...BAR).step(97) do |tick|
      expect(heard(song, CUTOFF, BAR + tick)).to be_within(0.0005).of(song.knob(address(CUTOFF)) + one.at(tick) + two.at(tick))
    end
    halves = brought_up(old(lanes: [envelope([0, 0.5], role: "scale", id: "l1"), envelope([0, 0.5], role: "scale", id: "l2")]))
    expect(heard(halves, CUTOFF, 0)).to be_within(1e-12).of(halves.knob(address(CUTOFF)) / 4)
  end

  it "keeps what cannot merge switched off: other clocks, and of what sets all but the last" do
    clip = [envelope([0, 0.1], role: "shift"), envelope([0, 0.2], role: "shift", id: "e2", clock: "once"), envelope([0, 0.3], id: "e3"),
            envelope([0, 0.4], id: "e4")]
    song = brought_up(old(clip:))
    expect(song.clip("line").envelopes.map { |one| [one.id, one.on] }).to eq [["e1", true], ["e2", false], ["e3", false], ["e4", true]]
    expect(heard(song, CUTOFF, BAR)).to be_within(1e-12).of(0.5)
  end

  it "lists the places that sound different, once for each stretch" do
    lane = envelope([0, 0.2], id: "l1", role: "shift")
    song = brought_up(old(clip: [envelope([0, 0.5])], lanes: [lane]))
    places = described_class.places(song)
    expect(places.map { |place| [place.from, place.to, place.largest.round(9)] }).to eq [[BAR, 3 * BAR, 0.2], [5 * BAR, 6 * BAR, 0.2]]
    expect(places[0].to_record(song)["text"]).to eq "Cutoff of Bass, 2.1.0 to 4.1.0"
    expect(described_class.places(brought_up(old(clip: [envelope([0, 0.1], role: "shift")], lanes: [envelope([0, 0.5], id: "l1")])))).to eq []
  end

  it "takes a range that reaches past the ends of a shift into its points, to the tick, whatever the shape" do
    given = Faults.read("old_shift_range")
    low, high = given["range"]
    wave = { "shape" => "cycle", "wave" => "sine", "cycles" => 3.0, "skew" => 0.5, "phase" => 0.25, "foot" => 0.2, "top" => 0.0 }
    [given["points"], [{ "tick" => 0, "value" => -0.4, "shape" => "ess", "curve" => 0.6 }, { "tick" => 900, "value" => 0.3, "shape" => "hold" }],
     [{ "tick" => 100, "value" => -0.9, **wave }, { "tick" => 1300, "value" => 0.5, "shape" => "straight" },
      { "tick" => 2000, "value" => -0.5, "shape" => "hold" }]]
      .each do |records|
      old = record(envelope([0, 0.0], role: "shift")).merge("points" => records, "range" => given["range"]).except("limits")
      made = KindSatchel::Records.read_envelope(KindSatchel::Older.record("envelope", old))
      raw = records.map { |one| [one["tick"], low + (one["value"] * (high - low)), KindSatchel::Shapes.of(one).scaled(high - low)] }
      (raw.first[0]...raw.last[0]).each do |tick|
        (from, a, shape), (to, b) = raw.each_cons(2).find { |one, two| tick >= one[0] && tick < two[0] }
        wanted = KindSatchel::Shapes.value_at(shape, KindSatchel::Shapes::Ends.new(a, b, to - from), (tick - from).fdiv(to - from)).clamp(-1.0, 1.0)
        expect(made.at(tick)).to be_within(1e-8).of(wanted), "#{records[0]['shape']} at #{tick}"
      end
    end
  end

  it "opens the song that shows it with nothing cut off" do
    song = Faults.song("old_shift_range_song")
    expect(song.directory.envelopes.each_value.map(&:envelope)).to all(have_attributes(limits: be_a(Array)))
    expect(KindSatchel::Document.load(JSON.parse(json_of(song)))).to eq song
  end

  it "brings lengths that are too short, and regions of too many passes, within what may be" do
    document = old(clip: [envelope([0, 0.1], clock: "own_length", own_length_ticks: 60)])
    document["clips"][0]["envelopes"][0]["own_length_ticks"] = 3
    document["tracks"][0]["regions"][1].merge!("length_ticks" => 200_000_000)
    song = brought_up(document)
    expect(song.clip("line").envelopes[0].own_length_ticks).to eq 60
    expect(song.track("bass").regions[1].length_ticks).to eq 6_000_000
  end

  it "renames tracks whose ids are kept for other things, wherever they are named" do
    document = old(clip: [envelope([0, 0.5])], lanes: [envelope([0, 0.2], id: "l1", role: "shift")])
    text = JSON.generate(document).gsub('"id":"bass"', '"id":"song"').gsub('"bass/', '"song/').gsub('"id":"hall"', '"id":"clip-hall"')
    song = brought_up(JSON.parse(text))
    expect(song.tracks.map(&:id)).to eq %w[track-song track-clip-hall master]
    expect(heard(song, "track-song/synth/cutoff", BAR)).to be_within(1e-12).of 0.7
    fresh = JSON.parse(json_of(small_song).gsub('"id":"bass"', '"id":"move"').gsub('"bass/', '"move/'))
    expect(faults { KindSatchel::Document.load(fresh) }).to eq [["reserved_id", "/tracks/0/id"]]
  end

  it "hears random songs of version 1 as they were wherever it lists no place" do
    5.times do |seed|
      song = RandomSongs.new(seed).song(settings: false)
      again = brought_up(OldSongs.document(song))
      expect(again).to eq song
      expect(described_class.places(again)).to all(have_attributes(largest: be > 0))
    end
  end
end

RSpec.describe KindSatchel::OneOfEach do
  let(:twice) { [envelope([0, 0.1]), envelope([0, 0.2], id: "e2")] }

  it "allows one envelope of each role for a parameter in a place, and others that are off" do
    expect(faults { small_song(clip: twice) }).to eq [["second_of_role", "/envelopes/1/role"]]
    expect(faults { small_song(lanes: twice) }).to eq [["second_of_role", "/lanes/1/role"]]
    three = [envelope([0, 0.5]), envelope([0, 0.5], id: "e2", role: "scale"), envelope([0, 0.1], id: "e3", role: "shift"),
             envelope([0, 0.9], id: "e4", on: false)]
    song = small_song(clip: three)
    expect(heard(song, CUTOFF, BAR)).to be_within(1e-12).of(0.35)
    expect(faults { apply(song, "switch_envelope", envelope_id: "e4", on: true) }).to eq [["second_of_role", "/on"]]
    expect(faults { apply(song, "set_role", envelope_id: "e2", role: "set") }).to eq [["already_there", "/role"]]
  end

  it "embeds and adds each role once" do
    song = small_song(clip: [envelope([0, 0.5])])
    both = apply(song, "embed_envelope", clip_id: "line", address: CUTOFF, role: "shift").song
    expect(both.clip("line").envelopes.map(&:role)).to eq %w[set shift]
    expect(heard(both, CUTOFF, BAR)).to eq 0.5
    expect(faults { apply(both, "embed_envelope", clip_id: "line", address: CUTOFF) }).to eq [["already_there", "/address"]]
    lanes = apply(apply(both, "add_lane", address: CUTOFF).song, "add_lane", address: CUTOFF, role: "scale").song
    expect(lanes.track("bass").lanes.map(&:role)).to eq %w[set scale]
    expect(faults { apply(song, "add_lane", address: "bass/channel/mute", role: "scale") }).to eq [["set_only", "/role"]]
  end

  describe "a set and a shift in one clip, each with its own clock" do
    let(:song) do
      set = envelope([0, 0.2], [BAR, 0.6], clock: "once")
      small_song(clip: [set, envelope([0, 0.0], [BAR / 2, 0.2], [BAR, 0.0], id: "e2", role: "shift")])
    end
    let(:ticks) { (0..(8 * BAR)).step(60).to_a }

    def curve(some) = KindSatchel::Heard::Resolver.new(some, address(CUTOFF)).at_each(ticks)
    def difference(one, other) = curve(one).zip(curve(other)).map { |a, b| (a - b).abs }.max

    it "are laid out as two lanes, and packed one by one, nothing heard changing" do
      laid = apply(song, "lay_out", track_id: "bass").song
      expect(laid.track("bass").lanes.map(&:role)).to match_array %w[set shift]
      expect(difference(laid, song)).to be <= 1e-3
      packed = laid.track("bass").lanes.reduce(laid) do |some, lane|
        apply(some, "pack", envelope_id: lane.id, from_tick: BAR, to_tick: 3 * BAR).song
      end
      expect(difference(packed, song)).to be <= 2e-3
    end

    it "go along with copies of the region and of the track, and into the document and back" do
      region = song.track("bass").regions.first
      copied = apply(song, "copy_regions", region_ids: [region.id], ticks: 3 * BAR).song
      here = ticks.select { |tick| tick.between?(BAR, (3 * BAR) - 1) }
      moved = KindSatchel::Heard::Resolver.new(copied, address(CUTOFF)).at_each(here.map { |tick| tick + (3 * BAR) })
      expect(moved).to eq KindSatchel::Heard::Resolver.new(song, address(CUTOFF)).at_each(here)
      twin = apply(song, "duplicate_track", track_id: "bass", moves: true).song
      copy = twin.clip(twin.tracks[1].regions.first.clip_id)
      expect(copy.envelopes.map { |one| [one.role, one.clock] }).to eq [%w[set once], %w[shift each_loop]]
      expect(KindSatchel::Document.load(JSON.parse(json_of(song)))).to eq song
    end

    it "are both told by the sum" do
      steps = KindSatchel::Heard::Explanation.new(song, address(CUTOFF), BAR + 960).steps
      expect(steps.filter_map(&:envelope_id)).to eq %w[e1 e2]
    end
  end
end
