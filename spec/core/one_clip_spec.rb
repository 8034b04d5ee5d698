# frozen_string_literal: true

RSpec.describe "Making one clip of regions" do
  let(:moves) { [envelope([0, 0.2, 0.6], [BAR, 0.9]), envelope([0, 0.6], [3 * BAR, 1.0], id: "e2", role: "scale", clock: "once")] }
  let(:song) do
    some = small_song(clip: moves, lanes: [envelope([0, 0.3], [8 * BAR, 0.7], id: "l1")])
    notes = [[0, 480, 40], [960, 480, 43], [(3 * 960) + 700, 900, 45]].map { |tick, length_ticks, pitch| KindSatchel::Note.new(tick:, length_ticks:, pitch:, velocity: 90) }
    some.with_clip(some.clip("line").with(notes:))
  end
  let(:ids) { song.track("bass").regions.map(&:id) }

  def worst(before, after, target = CUTOFF)
    (0..(9 * BAR)).step(101).map { |tick| (heard(before, target, tick) - heard(after, target, tick)).abs }.max
  end

  def events(some)
    KindSatchel::Heard::Events.new(some).in_range(0, 9 * BAR).map { |one| one.slice("start_tick", "end_tick", "pitch", "velocity") }.sort_by(&:to_a)
  end

  it "writes repeats, gaps, notes and moves out: nothing heard changes, and it says so" do
    made = apply(song, "consolidate_regions", region_ids: ids)
    expect(made.notices.map(&:text)).to eq ["nothing heard changes"]
    expect(made.song.track("bass").regions.map { |region| [region.id, region.start_tick, region.end_tick] })
      .to eq [[ids.first, song.track("bass").regions.first.start_tick, song.track("bass").regions.last.end_tick]]
    expect([events(made.song), worst(song, made.song)]).to match [events(song), be < 1e-9]
    expect(made.song.clip("line")).to eq song.clip("line")
    expect(KindSatchel::Document.load(JSON.parse(json_of(made.song)))).to eq made.song
  end

  it "keeps what is heard for any song and any neighbours" do
    Seeds.list(6, long: 60).each do |seed|
      some = RandomSongs.new(seed).song
      regions = some.track("bass").regions.reject(&:muted).first(3)
      between = some.track("bass").regions_in(regions.first.start_tick, regions.last.end_tick)
      next if between.size > regions.size || regions.map { |region| some.clip(region.clip_id).kind }.uniq.size > 1

      made = apply(some, "consolidate_regions", region_ids: regions.map(&:id))
      expect(events(made.song)).to eq events(some)
      clip = made.song.clip(made.song.directory.region(regions.first.id).region.clip_id)
      clip.envelopes.map(&:target).uniq.select { |target| some.parameter?(target) }.map(&:to_s).each do |target|
        told = made.notices.first.text[/[\d.e-]+(?= %)/].to_f / 100
        expect(worst(some, made.song, target)).to be <= told + 1e-6 unless made.notices.first.text.include?("jump")
      end
    end
  end

  it "crops one region to what it plays: a part of a repeat, or of a sound" do
    cut = apply(song, "split_region", region_id: ids.first, tick: song.track("bass").regions.first.start_tick + 500).song
    right = cut.track("bass").regions[1]
    made = apply(cut, "consolidate_regions", region_ids: [right.id]).song
    clip = made.clip(made.track("bass").regions[1].clip_id)
    expect([clip.length_ticks, clip.notes.first.tick, events(made)]).to eq [right.length_ticks, 460, events(cut)]
    sound = apply(song, "place_sound", sound: "a" * 64, name: "Rain", seconds: 4.0, bpm: 120, start_tick: 0).song
    wave = sound.tracks.find { |track| track.kind == "audio" }.regions.first
    half = apply(sound, "split_region", region_id: wave.id, tick: 960).song
    part = half.tracks.find { |track| track.kind == "audio" }.regions.last
    cropped = apply(half, "consolidate_regions", region_ids: [part.id]).song
    expect(cropped.clips.values.last.audio.start_seconds).to be_within(1e-9).of(0.5)
  end

  it "fills what a carrier sets in some of its regions only with the lane of the track it moves" do
    carrier = apply(song, "make_carrier", start_tick: 0, length_ticks: BAR).song
    track = carrier.tracks.find { |one| one.kind == "carrier" }
    twice = apply(carrier, "duplicate_regions", region_ids: [track.regions.first.id]).song
    apart = apply(twice, "separate_regions", region_ids: [twice.track(track.id).regions.last.id]).song
    moved = apply(apart, "embed_envelope", clip_id: apart.track(track.id).regions.first.clip_id, address: "bass/channel/pan").song
    laned = apply(moved, "add_lane", address: "bass/channel/pan").song
    lane = laned.track("bass").lane_for(address("bass/channel/pan"), "set")
    laned = apply(laned, "shift_points", envelope_id: lane.id, runs: [[0, 0]], ticks: 0, value: 0.3).song
    made = apply(laned, "consolidate_regions", region_ids: laned.track(track.id).regions.map(&:id))
    expect([made.notices.first.text, worst(laned, made.song, "bass/channel/pan")]).to match ["nothing heard changes", be < 1e-9]
  end

  it "says what cannot be one" do
    other = apply(song, "mute_regions", region_ids: [ids.first], muted: true).song
    expect(faults { apply(other, "consolidate_regions", region_ids: ids) }).to eq [["partly_muted", "/region_ids"]]
    three = apply(song, "duplicate_regions", region_ids: [ids.last]).song
    outer = three.track("bass").regions.values_at(0, -1).map(&:id)
    expect(faults { apply(three, "consolidate_regions", region_ids: outer) }).to eq [["not_neighbours", "/region_ids"]]
    carrier = apply(song, "make_carrier", start_tick: 0, length_ticks: BAR).song
    far = carrier.tracks.flat_map(&:regions).map(&:id)
    expect(faults { apply(carrier, "consolidate_regions", region_ids: far) }).to eq [["other_tracks", "/region_ids"]]
    off = apply(song, "switch_envelope", envelope_id: moves.last.id, on: false).song
    expect(apply(off, "consolidate_regions", region_ids: ids).notices.map(&:code)).to eq %w[same lost]
  end
end
