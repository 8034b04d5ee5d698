# frozen_string_literal: true

# That outside of these stretches heard is equal is held by spec/core/invariants_spec.rb, for random edits of every kind.
RSpec.describe KindSatchel::Heard::Changes do
  let(:song) { DemoSong.build }
  let(:region) { song.track("rope-bass").regions.first }
  let(:cutoff) { "rope-bass/synth/cutoff" }

  def between(before, after) = described_class.between(before, after)
  def touched(name, target = cutoff, **inputs) = between(song, apply(song, name, **inputs).song).heard[address(target)]

  it "are where a region lay and where it lies, a tick more on both sides, apart or as one" do
    far = { region_ids: [region.id], ticks: 40 * 960 }
    expect(touched("copy_regions", **far)).to eq [[(12 * BAR) - 1, (18 * BAR) + 1]]
    expect(touched("move_regions", **far).first).to eq [(4 * BAR) - 1, (8 * BAR) + 1]
    expect(touched("mute_regions", region_ids: [region.id], muted: true)).to eq [[(4 * BAR) - 1, (8 * BAR) + 1]]
  end

  it "are just what surrounds a point that moved, in every place where it sounds" do
    small = small_song(clip: [envelope(*Array.new(9) { |i| [i * 480, i / 10.0] })])
    moved = apply(small, "shift_points", envelope_id: "e1", runs: [[4, 4]], ticks: 0, value: 0.05).song
    around = ->(start) { [start + 959, start + 2881] }
    expect(between(small, moved).heard).to eq(address(CUTOFF) => [BAR, 2 * BAR, 5 * BAR].map(&around))
    lane = song.track("rope-bass").lanes.first
    after = touched("shift_points", envelope_id: lane.id, runs: [[4, 4]], ticks: 0, value: 0.05)
    expect(after).to eq [[lane.points[2].tick - 1, KindSatchel::Timing::LAST_TICK + 1]]
  end

  it "are everywhere for a knob, a hand on it, a lane's role; nothing for names and for what is off" do
    always = [described_class::ALWAYS]
    expect(touched("set_knob", "rope-bass/drive/mix", address: "rope-bass/drive/mix", value: 0.1)).to eq always
    expect(touched("set_knob", address: cutoff, value: 0.1)).to eq always
    expect(touched("set_role", envelope_id: song.track("rope-bass").lanes.first.id, role: "scale")).to eq always
    expect(between(song, apply(song, "rename_track", track_id: "rope-bass", name: "Rope").song).heard).to eq({})
    off = song.track("bell-buoy").lanes.first
    expect(touched("flip_points", off.target.to_s, envelope_id: off.id, runs: [[0, 1]])).to be_nil
  end

  # Two carriers that set one knob: the one further down the tracks is heard.
  it "count the order of the tracks, which decides between carriers" do
    low = apply(song, "make_carrier", start_tick: 0, length_ticks: BAR).song
    two = apply(low, "make_carrier", start_tick: 0, length_ticks: BAR).song
    clips = two.clips.values.last(2).map(&:id)
    set = ->(now, clip, value) { now.with_clip(now.clip(clip).with(envelopes: [envelope([0, value], id: "on-#{clip}", target: "deck/filter/cutoff")])) }
    two = set.call(set.call(two, clips[0], 0.2), clips[1], 0.8)
    tracks = two.tracks.dup
    rows = tracks.each_index.select { |i| tracks[i].kind == "carrier" && tracks[i].regions.any? { |one| clips.include?(one.clip_id) } }
    tracks[rows[0]], tracks[rows[1]] = tracks.values_at(rows[1], rows[0])
    turned = two.with(tracks:)
    expect([two, turned].map { |one| heard(one, "deck/filter/cutoff", 0) }).to contain_exactly(0.2, 0.8)
    expect(between(two, turned).heard[address("deck/filter/cutoff")]).to include([0, BAR + 1])
  end

  it "tell from where the clock differs" do
    expect(between(song, song).clock_from).to be_nil
    later = apply(song, "set_tempo", tick: 8 * BAR, bpm: 60).song
    expect(between(song, later).clock_from).to eq 8 * BAR
    ramp = apply(apply(song, "set_tempo", tick: 0, bpm: 92, shape: "straight").song, "set_tempo", tick: 4 * BAR, bpm: 60).song
    moved = apply(ramp, "set_tempo", tick: 4 * BAR, bpm: 61).song
    expect(between(ramp, moved).clock_from).to eq 0
  end
end
