# frozen_string_literal: true

# Envelopes made from how loud something is, and from notes.
RSpec.describe "Following" do
  include SongHelpers

  # A sound of half a second of nothing, half a second of a level, over and over, of four seconds: a bar at 60 BPM.
  let(:sounds) { { "pulses" => { "hop_seconds" => 0.01, "energy" => Array.new(400) { |i| (i / 50).odd? ? 0.25 : 0.0 } } } }
  let(:song) do
    writer = SongWriter.new(name: "Pulses", bpm: 60, range: [0, BAR])
    writer.track "loop", "Loop", "audio", "weld", devices: { "player" => ["loop-player", {}] }
    writer.track "bass", "Bass", "notes", "madder", devices: { "synth" => ["mono-synth", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    writer.clip "pulses", "Pulses", 1, audio: ["pulses", 60]
    writer.clip "line", "Line", 2, notes: [[0, 480, 36, 127], [1920, 480, 40, 64]].map { |tick, length, pitch, velocity|
      KindSatchel::Note.new(tick:, length_ticks: length, pitch:, velocity:)
    }
    writer.region "loop", "pulses", 2, 2
    writer.region "bass", "line", 2, 2
    writer.song
  end
  let(:volume) { "loop/channel/volume" }

  def follow(on = song, **inputs) = apply(on, "follow_level", sounds:, **inputs)
  def made(result, target) = result.song.directory.envelopes.values.map(&:envelope).find { |one| one.target == address(target) }
  def seconds(ticks) = ticks / 960.0

  it "rises by the attack and falls by the release: 63.2 % of the way after one time constant" do
    follower = KindSatchel::Follow::Follower.new(attack: 0.1, release: 0.4)
    levels = [*Array.new(1000, 1.0), *Array.new(1000, 0.0)]
    shares = follower.shares(levels, 0.001)
    expect(shares[99]).to be_within(0.002).of(1 - Math.exp(-1))
    expect(shares[1399]).to be_within(0.002).of(Math.exp(-1))
    expect(follower.shares(levels, 0.001).zip(KindSatchel::Follow::Follower.new(attack: 0.1, release: 0.4, over: true).shares(levels, 0.001)))
      .to all(satisfy { |one, other| (one + other - 1).abs < 1e-12 })
  end

  it "makes the loop's loudness an envelope beside it, on in the copies, and turned over it ducks" do
    result = follow(of: { "clip_id" => "pulses" }, address: volume, clip_id: "pulses", attack_ms: 0, release_ms: 0, floor_db: -40)
    shape = made(result, volume)
    expect([[100, 0.0], [700, 1.0], [1200, 0.0], [3700, 1.0]].map { |tick, _| shape.at(tick).round(3) }).to eq [0.0, 1.0, 0.0, 1.0]
    expect(result.notices.map(&:code)).to eq ["thinned"]
    over = made(
      follow(of: { "clip_id" => "pulses" }, address: volume, clip_id: "pulses", role: "scale", attack_ms: 0, release_ms: 50, over: true, low: "20 %"), volume
    )
    expect([over.at(460) > 0.9, over.at(900).round(2)]).to eq [true, 0.2]
    # -6 dB under the loudest at a floor of -12 dB is half way.
    half = sounds["pulses"]["energy"].each_with_index.map { |level, i| i < 100 ? level / 4 : level }
    quiet = apply(song, "follow_level", sounds: { "pulses" => sounds["pulses"].merge("energy" => half) }, of: { "clip_id" => "pulses" }, address: volume,
                                        clip_id: "pulses", attack_ms: 0, release_ms: 0, floor_db: -12)
    expect(made(quiet, volume).at(700)).to be_within(0.01).of(1 - (20 * Math.log10(2) / 12))
  end

  it "goes on where the loop begins again as it ended" do
    late = { "pulses" => { "hop_seconds" => 0.01, "energy" => Array.new(400) { |i| i > 380 ? 1.0 : 0.0 } } }
    shape = made(
      apply(song, "follow_level", sounds: late, of: { "clip_id" => "pulses" }, address: volume, clip_id: "pulses", attack_ms: 0, release_ms: 800,
floor_db: -60), volume
    )
    expect(shape.at(0)).to be > 0.9
    expect(shape.at(0)).to be_within(0.03).of(shape.at(3839))
  end

  it "follows notes by their velocity, all or some, on a lane wherever they sound" do
    lane = made(follow(of: { "track_id" => "bass" }, address: volume, attack_ms: 0, release_ms: 0), volume)
    expect([100, 3900, 4400, 5900, 6400].map { |tick| lane.at(tick).round(3) }).to eq [0.0, 1.0, 0.0, (64 / 127.0).round(3), 0.0]
    only = made(follow(of: { "clip_id" => "line" }, address: volume, pitches: [40], attack_ms: 0, release_ms: 0), volume)
    expect([3900, 5900].map { |tick| only.at(tick).round(3) }).to eq [0.0, 0.504]
    sound = made(follow(of: { "sound" => "pulses" }, tick: 960, address: volume, attack_ms: 0, release_ms: 0), volume)
    expect([900, 960 + 700, 960 + 1200].map { |tick| sound.at(tick).round(2) }).to eq [0.0, 1.0, 0.0]
  end

  it "follows in a clip what a track plays where the clip lies" do
    shape = made(follow(of: { "track_id" => "bass" }, address: volume, clip_id: "pulses", attack_ms: 0, release_ms: 0), volume)
    expect([100, 600, 2000, 2600].map { |tick| shape.at(tick).round(3) }).to eq [1.0, 0.0, 0.504, 0.0]
    elsewhere = song.with_track(song.track("bass").with(regions: song.track("bass").regions.map { |region| region.with(start_tick: 90 * BAR) }))
    expect(faults { follow(elsewhere, of: { "track_id" => "bass" }, address: volume, clip_id: "pulses") }).to eq [["silent", "/of"]]
  end

  it "is made again otherwise until it is edited by hand, and stays what it is through documents" do
    first = follow(of: { "clip_id" => "pulses" }, address: volume, clip_id: "pulses", attack_ms: 0).song
    id = made(follow(of: { "clip_id" => "pulses" }, address: volume, clip_id: "pulses"), volume).id
    again = follow(KindSatchel::Document.load(KindSatchel::Document.dump(first)), envelope_id: id, release_ms: 20).song.directory.envelope(id).envelope
    expect([again.followed?, again.source.attack_ms, again.source.release_ms]).to eq [true, 0, 20]
    edited = apply(first, "shift_points", envelope_id: id, runs: [[0, 0]], ticks: 0, value: 0.1).song
    expect(edited.directory.envelope(id).envelope.followed?).to be false
    expect(faults { follow(edited, envelope_id: id, release_ms: 20) }).to eq [["edited_by_hand", "/of"]]
    expect(follow(edited, envelope_id: id, of: { "clip_id" => "pulses" }).notices.map(&:code)).to include "replaced"
  end

  it "stays within its tolerance of what it followed, and refuses what it cannot follow" do
    fine = made(follow(of: { "clip_id" => "pulses" }, address: volume, clip_id: "pulses", tolerance: 0.001), volume)
    coarse = made(follow(of: { "clip_id" => "pulses" }, address: volume, clip_id: "pulses", tolerance: 0.05), volume)
    expect(coarse.points.size).to be < fine.points.size
    (0...3840).step(10) { |tick| expect(coarse.at(tick)).to be_within(0.0511).of(fine.at(tick)) }
    wrong = ->(**inputs) { faults { follow(address: volume, **inputs) } }
    expect(wrong.call(of: { "clip_id" => "none" })).to eq [["unknown_clip", "/of/clip_id"]]
    expect(wrong.call(of: { "track_id" => "bass" }, pitches: [99])).to eq [["silent", "/of"]]
    expect(wrong.call(of: { "sound" => "lost" })).to eq [["no_energy", "/of"]]
    expect(wrong.call).to eq [["bad_request", "/of"]]
    expect(wrong.call(of: { "clip_id" => "pulses" }, attack_ms: -1)).to eq [["out_of_range", "/attack_ms"]]
  end

  describe "something that changes" do
    let(:made_one) { follow(of: { "clip_id" => "pulses" }, address: volume, clip_id: "pulses").song }

    def stale(some) = KindSatchel::Checks::LooseEnds.of_check(some, "stale_followers").map { |found| found.tell(some) }
    def id(some) = some.directory.envelopes.values.find { |home| home.envelope.source.is_a?(KindSatchel::Sources::Followed) }.envelope.id
    def as_made?(some) = some.directory.envelope(id(some)).envelope.followed?

    it "is told among loose ends, with Again" do
      expect(stale(made_one)).to eq []
      changed = apply(made_one, "set_audio", clip_id: "pulses", backwards: true).song
      expect(stale(changed).map(&:text)).to eq ["Volume in Pulses follows something that has changed since its points were made."]
      fix = stale(changed)[0].fixes[0]
      expect([fix.words, fix.edit]).to eq %w[Again follow_level]
      again = apply(changed, fix.edit, sounds:, **fix.inputs.transform_keys(&:to_sym)).song
      expect([stale(again), as_made?(again)]).to eq [[], true]
      expect(stale(apply(made_one, "set_tempo", tick: 0, bpm: 90).song).size).to eq 1
      expect(stale(apply(made_one, "rename_song", name: "Ebb").song)).to eq []
    end

    it "is not what moves along: bars put in before, a region that is moved, split or copied leave it as it was made" do
      lane = follow(of: { "track_id" => "bass" }, address: "bass/channel/volume").song
      region = lane.track("bass").regions[0]
      bar = { tick: 0, length_ticks: BAR }
      moved = { region_ids: [made_one.track("loop").regions[0].id], ticks: BAR }
      split = { region_id: region.id, tick: region.start_tick + 700 }
      tried = [[made_one, "insert_time", bar], [made_one, "move_regions", moved], [lane, "split_region", split], [lane, "insert_time", bar]]
      tried.each do |some, name, inputs|
        moved = apply(some, name, **inputs).song
        expect([as_made?(moved), stale(moved)]).to eq([true, []]), name
      end
    end

    it "is what lies inside: bars put in there leave the points, which then are stale; a hand on a point makes it drawn" do
      lane = follow(of: { "track_id" => "bass" }, address: "bass/channel/volume").song
      opened = apply(lane, "insert_time", tick: BAR + 300, length_ticks: BAR).song
      expect([as_made?(opened), stale(opened).size]).to eq [true, 1]
      index = made_one.directory.envelope(id(made_one)).envelope.points.size / 2
      point = made_one.directory.envelope(id(made_one)).envelope.points[index]
      moved = apply(made_one, "move_points", envelope_id: id(made_one), points: [{ "index" => index, "tick" => point.tick, "value" => 0.77 }]).song
      expect([as_made?(moved), stale(moved)]).to eq [false, []]
      all = made_one.directory.envelope(id(made_one)).envelope.points.size - 1
      expect(as_made?(apply(made_one, "shift_points", envelope_id: id(made_one), runs: [[0, all]], ticks: 120, value: 0.0).song)).to be true
    end
  end
end
