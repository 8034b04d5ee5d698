# frozen_string_literal: true

RSpec.describe "Laying out and packing" do
  let(:song) { small_song(clip: [envelope([0, 0.2, 0.6], [BAR, 0.9])], lanes: [envelope([0, 0.3], [8 * BAR, 0.7], id: "l1")]) }
  let(:regions) { song.track("bass").regions }

  def curve(some, target, ticks) = KindSatchel::Heard::Resolver.new(some, address(target)).at_each(ticks)
  def worst(before, after, target, ticks) = curve(before, target, ticks).zip(curve(after, target, ticks)).map { |a, b| (a - b).abs }.max

  def lane(some) = some.track("bass").lanes.find { |one| one.target.to_s == CUTOFF }

  it "lays a set envelope out exactly, shapes and all, and leaves the clip without it" do
    laid = apply(song, "lay_out", track_id: "bass")
    expect([laid.words, laid.notices.map(&:text)]).to eq ["lay a move of 2 regions out", ["nothing heard changes"]]
    expect(laid.song.clip("line").envelopes).to be_empty
    expect(worst(song, laid.song, CUTOFF, (0..(9 * BAR)).step(101).to_a)).to be < 1e-9
    expect(lane(laid.song).points.count { |point| point.shape.is_a?(KindSatchel::Shapes::Curved) }).to eq 3
  end

  it "makes a lane where there was none, resting at the knob outside" do
    bare = small_song(clip: [envelope([0, 0.2], [BAR, 0.9])])
    laid = apply(bare, "lay_out", region_ids: [bare.track("bass").regions.last.id]).song
    expect(worst(bare, laid, CUTOFF, (0..(9 * BAR)).step(101).to_a)).to be < 1e-9
    expect(laid.clips.keys).to eq %w[line clip-4]
  end

  it "keeps the clip of other regions, and says that one was made separate" do
    laid = apply(song, "lay_out", region_ids: [regions.first.id])
    expect(laid.notices.map(&:text)).to eq ["nothing heard changes", "Line is made separate first"]
    expect(laid.song.clip("line")).to eq song.clip("line")
  end

  it "keeps roles apart: what scales goes to a lane that scales, and nothing heard changes" do
    gains = small_song(clip: [envelope([0, 1.0], [BAR, 0.1], role: "scale", target: "bass/channel/volume")])
    laid = apply(gains, "lay_out", track_id: "bass")
    expect([laid.notices.map(&:text), laid.song.track("bass").lanes.map(&:role)]).to eq [["nothing heard changes"], ["scale"]]
    expect(worst(gains, laid.song, "bass/channel/volume", (0..(9 * BAR)).step(17).to_a)).to be < 1e-9
  end

  it "states an upper bound of the largest difference where two moving shapes become one" do
    both = small_song(clip: [envelope([0, 1.0, 0.4], [BAR, 0.1], role: "scale")], lanes: [envelope([0, 0.9, -0.6], [8 * BAR, 0.2], role: "scale", id: "l1")])
    laid = apply(both, "lay_out", track_id: "bass")
    told = laid.notices.first.text[/[\d.e-]+(?= %)/].to_f / 100
    measured = worst(both, laid.song, CUTOFF, (0..(9 * BAR)).step(3).to_a)
    expect(measured).to be_between(1e-6, 0.0006)
    expect(told).to be_between(measured, measured + 1e-4)
  end

  it "lays only the parameters asked for out, and refuses where there is nothing or the lane is off" do
    two = song.with_clip(song.clip("line").with(envelopes: [*song.clip("line").envelopes, envelope([0, 0.6], id: "e2", target: "bass/channel/pan")]))
    laid = apply(two, "lay_out", track_id: "bass", addresses: ["bass/channel/pan"]).song
    expect(laid.clip("line").envelopes.map(&:id)).to eq ["e1"]
    expect(faults { apply(laid, "lay_out", track_id: "bass", addresses: ["bass/channel/pan"]) }).to eq [["nothing_to_lay_out", "/region_ids"]]
    off = apply(song, "switch_envelope", envelope_id: "l1", on: false).song
    expect(faults { apply(off, "lay_out", track_id: "bass") }).to eq [["lane_off", ""]]
    expect(faults { apply(song, "lay_out") }).to eq [["bad_request", ""]]
  end

  it "packs a lane into the clips beneath it: separate where it differs, cut out of the lane, nothing heard changes" do
    free = small_song(lanes: [envelope([0, 0.3], [8 * BAR, 0.7], id: "l1")])
    packed = apply(free, "pack", envelope_id: "l1", from_tick: BAR, to_tick: 6 * BAR)
    expect([packed.words, packed.notices.map(&:text)]).to eq ["pack Cutoff into 2 regions", ["nothing heard changes", "Line is made separate first"]]
    expect(worst(free, packed.song, CUTOFF, (0..(9 * BAR)).step(101).to_a)).to be < 1e-9
    moved = apply(packed.song, "move_regions", region_ids: [free.track("bass").regions.last.id], ticks: 4 * BAR).song
    expect(heard(moved, CUTOFF, 9 * BAR)).to be_within(1e-9).of heard(free, CUTOFF, 5 * BAR)
    expect(lane(packed.song).points.map(&:value).uniq.size).to be <= 6
  end

  it "shares a clip between regions that come to the same" do
    flat = small_song(lanes: [envelope([0, 0.3], id: "l1")])
    same = apply(flat, "trim_region", region_id: flat.track("bass").regions.first.id, end_tick: 2 * BAR).song
    packed = apply(same, "pack", envelope_id: "l1", from_tick: 0, to_tick: 8 * BAR)
    expect([packed.song.track("bass").regions.map(&:clip_id).uniq, packed.notices.map(&:text)]).to eq [["line"], ["nothing heard changes"]]
  end

  it "takes up what shifts there, and refuses where the lane is not heard" do
    shifted = small_song(clip: [envelope([0, 0.1], [BAR, -0.1], role: "shift")], lanes: [envelope([0, 0.3], [8 * BAR, 0.7], id: "l1")])
    packed = apply(shifted, "pack", envelope_id: "l1", from_tick: 0, to_tick: 8 * BAR).song
    expect(worst(shifted, packed, CUTOFF, (0..(9 * BAR)).step(101).to_a)).to be < 0.001
    expect(packed.clips.values.flat_map(&:envelopes).map(&:role).uniq).to include("set")
    expect(faults { apply(song, "pack", envelope_id: "l1", from_tick: BAR, to_tick: 2 * BAR) }).to eq [["nothing_beneath", "/from_tick"]]
    expect(faults { apply(song, "pack", envelope_id: "e1", from_tick: BAR, to_tick: 2 * BAR) }).to eq [["no_lane", "/envelope_id"]]
    expect(faults { apply(song, "pack", envelope_id: "l1", from_tick: BAR, to_tick: BAR) }).to eq [["too_short", "/to_tick"]]
  end

  [*Seeds.list(4, long: 250), 972_584, 300_675].each do |seed|
    it "differs by no more than is stated, for any clocks, roles, limits, shapes and splits, with seed #{seed}" do
      maker = RandomSongs.new(seed)
      random = maker.song
      # The points that an LFO's lane becomes end with the song.
      after_end = random.track("bass").lanes.any?(&:lfo?) ? 0 : BAR
      ticks = (0..(random.length_ticks + after_end)).step(61).to_a
      all_on = random.with_track(random.track("bass").with(lanes: random.track("bass").lanes.select(&:on)))
      laid = KindSatchel::Conversion::LayOut.call(all_on, all_on.directory.regions.values)
      after = laid.song
      expect(RandomSongs::TARGETS.map { |target| stated_apart(all_on, after, target, ticks) }.max).to be <= laid.largest + 1e-9
      lane = after.track("bass").lanes.select { |one| one.acts? && after.parameter?(one.target) }.sample(random: maker.random)
      packed = KindSatchel::Conversion::Pack.call(after, lane, 0, random.length_ticks)
      expect(RandomSongs::TARGETS.map { |target| stated_apart(after, packed.song, target, ticks) }.max).to be <= packed.largest + 1e-9
    rescue KindSatchel::InvalidInput => e
      expect(e.faults.map(&:code)).to all(eq("envelope_off").or(eq("nothing_beneath")).or(eq("settings_moved")))
    end
  end

  # The largest difference, beyond what the other song has within a tick: jumps may come up to a tick early or late, and in that
  # tick a curve itself goes on.
  def stated_apart(before, after, target, ticks)
    around = ticks.flat_map { |tick| [[tick - 1, 0].max, tick, tick + 1] }
    old, new = [before, after].map { |song| curve(song, target, around).each_slice(3).to_a }
    old.zip(new).map { |a, b| [b.min - a[1], a[1] - b.max, 0.0].max - [pace(a), pace(b)].max }.max
  end

  # How far a curve goes in a tick, on the side of no jump.
  def pace(around) = around.each_cons(2).map { |one, other| (one - other).abs }.min
end
