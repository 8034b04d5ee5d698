# frozen_string_literal: true

RSpec.describe "Travel of regions" do
  let(:song) { two_basses(small_song(clip: [envelope([0, 0.2], [BAR, 0.9]), envelope([0, 0.4], id: "e2", target: "bass/drive/mix")])) }
  let(:region) { song.track("bass").regions.first }

  # A second notes track without a drive, and an audio track.
  def two_basses(song)
    device = ->(id, type) { KindSatchel::Device.new(id:, type:, values: {}, held: {}) }
    bass = song.track("bass").with(devices: [device.call("synth", "mono-synth"), device.call("drive", "drive"), song.track("bass").channel])
    pad = bass.with(id: "pad", name: "Pad", devices: [device.call("other", "mono-synth"), bass.channel], lanes: [], regions: [])
    loop_track = bass.with(id: "loop", name: "Loop", kind: "audio", devices: [bass.channel], lanes: [], regions: [])
    song.with(tracks: [bass, pad, loop_track, *song.tracks.drop(1)])
  end

  def regions(some, track = "bass") = some.track(track).regions
  def places(some, track = "bass") = regions(some, track).map { |one| [one.start_tick, one.end_tick] }
  def ids(some = song) = regions(some).map(&:id)

  describe "moving and copying several" do
    it "keeps what lies between them, and says what is cut" do
      three = apply(song, "copy_regions", region_ids: [region.id], ticks: 8 * BAR).song
      moved = apply(three, "move_regions", region_ids: ids(three)[0..1], ticks: 4 * BAR)
      expect(places(moved.song)).to eq [[5 * BAR, 7 * BAR], [9 * BAR, 10 * BAR], [10 * BAR, 11 * BAR]]
      expect(moved.words).to eq "move 2 regions to 6.1.0"
      expect(moved.notices.map(&:text)).to eq ["Cutoff, Mix go along", "cuts Line at 10.1.0"]
    end

    it "duplicates a group of regions after the last of them" do
      after = apply(song, "duplicate_regions", region_ids: ids).song
      expect(places(after)).to eq [[BAR, 3 * BAR], [5 * BAR, 6 * BAR], [6 * BAR, 8 * BAR], [10 * BAR, 11 * BAR]]
      expect(regions(after).map(&:clip_id).uniq).to eq ["line"]
    end

    it "places copies one after the other: later ones cut those before, and what lay there is cut once" do
      one, other = ids
      wide = apply(song, "trim_region", region_id: one, end_tick: 4 * BAR).song
      after = apply(wide, "copy_regions", region_ids: [one, other], ticks: 2 * BAR).song
      expect(places(after)).to eq [[BAR, 3 * BAR], [3 * BAR, 6 * BAR], [7 * BAR, 8 * BAR]]
      expect(ids(after).uniq.size).to eq 3
    end

    it "refuses places before the start, tracks that are not there or take no such clip, and unknown regions, all of them" do
      expect(faults { apply(song, "move_regions", region_ids: ids, ticks: -2 * BAR) }).to eq [["out_of_range", "/ticks"]]
      expect(faults { apply(song, "move_regions", region_ids: ids, ticks: 0, track_steps: -1) }).to eq [["no_track", "/track_steps"]] * 2
      both = ->(code) { [[code, "/region_ids/0"], [code, "/region_ids/1"]] }
      expect(faults { apply(song, "move_regions", region_ids: ids, ticks: 0, track_steps: 2) }).to eq both.call("wrong_kind")
      expect(faults { apply(song, "move_regions", region_ids: %w[x y], ticks: 0) }).to eq both.call("unknown_region")
    end

    it "turns envelopes to what answers on the other track; what finds no answer is off, not lost" do
      moved = apply(song, "move_regions", region_ids: ids, ticks: 0, track_steps: 1)
      envelopes = moved.song.clip("line").envelopes
      expect(envelopes.map { |one| [one.target.to_s, one.on] }).to eq [["pad/other/cutoff", true], ["bass/drive/mix", false]]
      expect(moved.notices.map(&:text)).to eq ["Cutoff goes along", "Mix has no place there and will be off"]
      [BAR, BAR + 1234].each { |tick| expect(heard(moved.song, "pad/other/cutoff", tick)).to eq heard(song, CUTOFF, tick) }
    end

    it "leaves the clip of those that stay as it is" do
      moved = apply(song, "move_regions", region_ids: [region.id], ticks: 0, track_steps: 1).song
      expect(moved.clip("line")).to eq song.clip("line")
      expect(regions(moved, "pad").map(&:clip_id)).to eq [moved.clips.keys.last]
      expect(regions(moved).map(&:id)).to eq [ids.last]
    end
  end

  describe "lane points that follow" do
    let(:lane) { envelope([0, 0.5], [BAR, 0.5], [2 * BAR, 0.9], [3 * BAR, 0.1], [12 * BAR, 0.1], id: "l1", target: "bass/channel/volume") }
    let(:song) { two_basses(small_song(lanes: [lane])) }
    let(:volume) { "bass/channel/volume" }

    it "stay when it is off" do
      expect(apply(song, "move_regions", region_ids: [region.id], ticks: 6 * BAR).song.track("bass").lanes).to eq [lane]
    end

    it "go along with a move, edges level, and back again" do
      on = apply(song, "set_points_follow", on: true).song
      moved = apply(on, "move_regions", region_ids: [region.id], ticks: 6 * BAR).song
      (0...(2 * BAR)).step(479) { |into| expect(heard(moved, volume, (7 * BAR) + into)).to be_within(1e-12).of heard(song, volume, BAR + into) }
      expect([BAR, 2 * BAR, (3 * BAR) - 1].map { |tick| heard(moved, volume, tick) }).to all eq 0.5
      [0, 3 * BAR, 6 * BAR, (7 * BAR) - 1, 9 * BAR, 12 * BAR].each do |tick|
        expect(heard(moved, volume, tick)).to be_within(1e-12).of heard(song, volume, tick)
      end
    end

    it "are copied, taken away, and brought to another track" do
      on = apply(song, "set_points_follow", on: true).song
      copied = apply(on, "copy_regions", region_ids: [region.id], ticks: 6 * BAR).song
      expect(heard(copied, volume, 8 * BAR)).to eq heard(song, volume, 2 * BAR)
      expect(heard(copied, volume, 2 * BAR)).to eq heard(song, volume, 2 * BAR)
      gone = apply(on, "remove_regions", region_ids: [region.id]).song
      expect(heard(gone, volume, 2 * BAR)).to eq 0.5
      other = apply(on, "move_regions", region_ids: [region.id], ticks: 0, track_steps: 1).song
      expect(heard(other, "pad/channel/volume", 2 * BAR)).to eq heard(song, volume, 2 * BAR)
    end
  end

  it "mutes regions, notes and moves alike" do
    muted = apply(song, "mute_regions", region_ids: ids, muted: true).song
    expect(heard(muted, CUTOFF, BAR)).to eq song.knob(address(CUTOFF))
    expect(KindSatchel::Heard::Events.new(muted).in_range(0, 8 * BAR)).to be_empty
    expect(json_of(apply(muted, "mute_regions", region_ids: ids, muted: false).song)).to eq json_of(song)
  end

  it "separates a selection together, or each by itself" do
    four = apply(song, "duplicate_regions", region_ids: ids).song
    pair = apply(four, "separate_regions", region_ids: ids(four)[0..1]).song
    expect(regions(pair).map(&:clip_id).tally.values).to eq [2, 2]
    each = apply(four, "separate_regions", region_ids: ids(four), each: true).song
    expect(regions(each).map(&:clip_id).uniq.size).to eq 4
    expect(faults { apply(four, "separate_regions", region_ids: ids(four)) }).to eq [["not_shared", "/region_ids"]]
  end

  it "swaps the clip under a region, and turns it to the track" do
    moved = apply(song, "move_regions", region_ids: [region.id], ticks: 0, track_steps: 1).song
    other = moved.clips.keys.last
    swapped = apply(moved, "swap_clip", region_ids: [ids.last], clip_id: other).song
    expect(swapped.directory.region(ids.last).region).to have_attributes(start_tick: 5 * BAR, length_ticks: BAR)
    expect(swapped.clip(swapped.directory.region(ids.last).region.clip_id).envelopes.map { |one| one.target.to_s }).to start_with(CUTOFF)
    audio = song.with_clip(song.clip("line").with(id: "wave", kind: "audio", notes: [], audio: KindSatchel::Audio.new(sound: "wave", bpm: 90), envelopes: []))
    expect(faults { apply(audio, "swap_clip", region_ids: [region.id], clip_id: "wave") }).to eq [["wrong_kind", "/region_ids/0"]]
  end

  describe "carrier clips" do
    let(:made) { apply(song, "make_carrier", start_tick: 8 * BAR, length_ticks: 2 * BAR).song }
    let(:carrier) { made.tracks.find { |track| track.kind == "carrier" } }

    it "come to a track of their own under the material, and move anything" do
      expect(made.tracks.map(&:kind)).to eq %w[notes notes audio carrier return master]
      swept = apply(made, "embed_envelope", clip_id: carrier.regions.first.clip_id, address: "hall/reverb/mix").song
      id = swept.clip(carrier.regions.first.clip_id).envelopes.first.id
      swept = apply(swept, "move_points", envelope_id: id, points: [{ "index" => 0, "tick" => 0, "value" => 0.9 }]).song
      expect([8 * BAR, (10 * BAR) - 1].map { |tick| heard(swept, "hall/reverb/mix", tick) }).to eq [0.9, 0.9]
      expect(heard(swept, "hall/reverb/mix", 10 * BAR)).to eq song.knob(address("hall/reverb/mix"))
      copied = apply(swept, "copy_regions", region_ids: [carrier.regions.first.id], ticks: 4 * BAR).song
      expect(heard(copied, "hall/reverb/mix", 12 * BAR)).to eq 0.9
    end

    it "use a carrier track that is free there, and any other track when asked" do
      again = apply(made, "make_carrier", start_tick: 0, length_ticks: BAR).song
      expect(again.track(carrier.id).regions.map(&:start_tick)).to eq [0, 8 * BAR]
      expect(apply(again, "make_carrier", start_tick: 0, length_ticks: BAR).song.tracks.count { |track| track.kind == "carrier" }).to eq 2
      here = apply(song, "make_carrier", track_id: "bass", start_tick: 2 * BAR, length_ticks: BAR)
      expect([places(here.song), here.notices.map(&:text)]).to eq [[[BAR, 2 * BAR], [2 * BAR, 3 * BAR], [5 * BAR, 6 * BAR]], ["cuts Line at 2.1.0"]]
      expect(faults { apply(song, "make_carrier", track_id: "hall", start_tick: 0, length_ticks: BAR) }).to eq [["no_regions_here", "/track_id"]]
    end

    it "fit a stretch of the song, their moves stretched along, others left as they were" do
      region = carrier.regions.first
      swept = made.with_clip(made.clip(region.clip_id).with(envelopes: [envelope([0, 0.0], [2 * BAR, 1.0], id: "e9", target: "hall/reverb/mix")]))
      two = apply(swept, "copy_regions", region_ids: [region.id], ticks: 8 * BAR).song
      fitted = apply(two, "fit_carrier", region_id: region.id, start_tick: 4 * BAR, end_tick: 12 * BAR).song
      expect([6, 8, 10].map { |bar| heard(fitted, "hall/reverb/mix", bar * BAR) }).to eq [0.25, 0.5, 0.75]
      expect(heard(fitted, "hall/reverb/mix", 17 * BAR)).to eq 0.5
      expect(faults { apply(song, "fit_carrier", region_id: ids.first, start_tick: 0, end_tick: BAR) }).to eq [["not_a_carrier", "/region_id"]]
    end
  end
end
