# frozen_string_literal: true

RSpec.describe "The time an edit touches" do
  let(:song) { DemoSong.build }
  let(:region) { song.track("rope-bass").regions.first }

  def touched(name, **inputs)
    after = apply(song, name, **inputs).song
    TouchedTime.new(song, after, KindSatchel::Parts.between(song, after)).stretches
  end

  it "is where a region lay and where it lies, a tick more on both sides, apart or as one" do
    far = { region_ids: [region.id], ticks: 40 * 960 }
    expect(touched("copy_regions", **far)).to eq [[(12 * BAR) - 1, (18 * BAR) + 1]]
    expect(touched("move_regions", **far).first).to eq [(4 * BAR) - 1, (8 * BAR) + 1]
    expect(touched("mute_regions", region_ids: [region.id], muted: true)).to eq [[(4 * BAR) - 1, (8 * BAR) + 1]]
  end

  it "is all regions of a clip whose envelopes changed" do
    move = song.clip("mooring").envelopes.first.id
    expect(touched("flip_points", envelope_id: move, runs: [[0, 1]])).to eq [[(4 * BAR) - 1, (12 * BAR) + 1], [(20 * BAR) - 1, (28 * BAR) + 1]]
  end

  it "is not known for lanes, knobs, tracks, or a song that becomes longer" do
    lane = song.track("rope-bass").lanes.first.id
    expect(touched("flip_points", envelope_id: lane, runs: [[0, 1]])).to be_nil
    expect(touched("set_knob", address: "rope-bass/synth/cutoff", value: 0.1)).to be_nil
    expect(touched("make_group", track_ids: ["fog-pad"])).to be_nil
    expect(touched("copy_regions", region_ids: [region.id], ticks: 60 * BAR)).to be_nil
  end
end
