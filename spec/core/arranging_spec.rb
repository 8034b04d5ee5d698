# frozen_string_literal: true

RSpec.describe "Arranging regions" do
  let(:song) { small_song(clip: [envelope([0, 0.2], [BAR, 0.9])]) }
  let(:region) { song.track("bass").regions.first }

  def regions(some) = some.track("bass").regions
  def curve(some, target, ticks) = KindSatchel::Heard::Resolver.new(some, address(target)).at_each(ticks)

  it "splits where it is told, and joins again to what was" do
    split = apply(song, "split_region", region_id: region.id, tick: BAR + 1000).song
    expect(regions(split).map { |one| [one.start_tick, one.length_ticks, one.offset_ticks] }).to start_with([BAR, 1000, 0], [BAR + 1000, 6680, 1000])
    joined = apply(split, "join_region", region_id: region.id).song
    expect(regions(joined)).to eq regions(song)
  end

  it "refuses a cut outside, a region without what goes on with it, and an edge past the other or before the material" do
    expect(faults { apply(song, "split_region", region_id: region.id, tick: BAR) }).to eq [["outside", "/tick"]]
    expect(faults { apply(song, "join_region", region_id: region.id) }).to eq [["not_joined", "/region_id"]]
    expect(faults { apply(song, "trim_region", region_id: region.id, end_tick: BAR) }).to eq [["too_short", "/end_tick"]]
    plain = song.with_track(song.track("bass").with(regions: [region.with(looped: false)]))
    expect(faults { apply(plain, "trim_region", region_id: region.id, start_tick: 0) }).to eq [["no_material", "/start_tick"]]
    once = small_song(clip: [envelope([0, 0.2], [3840, 0.9], clock: "once")])
    expect(faults { apply(once, "trim_region", region_id: regions(once).first.id, start_tick: 0) }).to eq [["runs_once", "/start_tick"]]
    off = apply(once, "switch_envelope", envelope_id: "e1", on: false).song
    longer = regions(apply(off, "trim_region", region_id: region.id, start_tick: 0).song).first
    expect(longer).to have_attributes(start_tick: 0, length_ticks: 3 * BAR, span_ticks: 3 * BAR)
  end

  it "repeats the loop earlier at the left edge, with all that sounds where it was" do
    seven = envelope([0, 0.2], [7 * 960, 0.9], clock: "own_length", own_length_ticks: 7 * 960)
    some = small_song(clip: [seven])
    longer = apply(some, "trim_region", region_id: regions(some).first.id, start_tick: 960).song
    ticks = (BAR...(7 * BAR)).step(127).to_a
    expect(curve(longer, CUTOFF, ticks)).to eq curve(some, CUTOFF, ticks)
    expect([regions(longer).first.start_tick, heard(longer, CUTOFF, 960)]).to eq [960, heard(some, CUTOFF, 960 + (7 * 960)) || 0]
    expect(regions(longer).first.passes(longer.clip("line")).first).to eq [960, BAR, 960]
  end

  it "extends over more repeats, and over what lies in the way" do
    longer = apply(song, "trim_region", region_id: region.id, end_tick: (5 * BAR) + 960).song
    expect(regions(longer).map { |one| [one.start_tick, one.end_tick, one.offset_ticks] }).to eq [[BAR, (5 * BAR) + 960, 0], [(5 * BAR) + 960, 6 * BAR, 960]]
    expect(heard(longer, CUTOFF, (4 * BAR) + 1920)).to eq heard(song, CUTOFF, BAR + 1920)
  end

  # Source: music theory, the least common multiple: 7 beats over 4 meet after 28.
  it "says when an envelope of its own length meets its loop again" do
    seven = envelope([0, 0.2], clock: "own_length", own_length_ticks: 7 * 960)
    clip = song.clip("line")
    expect(KindSatchel::Clocks.meeting(clip, seven)).to eq 28 * 960
    expect(KindSatchel::Clocks.meeting(clip, seven.with(clock: "once"))).to be_nil
  end

  it "says where in a region they meet, its end not among them, and of a region that does not loop nothing" do
    seven = envelope([0, 0.2], clock: "own_length", own_length_ticks: 7 * 960)
    every = 28 * 960
    cut = region.with(start_tick: 10_000, offset_ticks: 960, length_ticks: (3 * every) - 960, span_ticks: 3 * every)
    meet = ->(one, most = 9) { KindSatchel::Clocks.meeting_ticks(one, song.clip("line"), seven, most) }
    expect(meet.call(cut)).to eq [9040 + every, 9040 + (2 * every)]
    expect(meet.call(cut, 1)).to eq [9040 + every]
    expect(meet.call(cut.with(offset_ticks: every))).to eq [10_000 + every, 10_000 + (2 * every)]
    expect(meet.call(cut.with(looped: false))).to eq []
  end

  it "says how much of its own time an envelope is heard of" do
    extent = ->(some, owner) { KindSatchel::Clocks.extent(some, some.directory.envelopes.fetch(owner.id)) }
    clip = ->(**fields) { small_song(clip: [envelope([0, 0.2], **fields)]).then { |some| [some, some.clip("line").envelopes[0]] } }
    expect(extent.call(*clip.call)).to eq BAR
    expect(extent.call(*clip.call(clock: "once"))).to eq 2 * BAR
    expect(extent.call(*clip.call(clock: "own_length", own_length_ticks: 7 * 960))).to eq 7 * 960
    laned = small_song(lanes: [envelope([0, 0.2])])
    lane = laned.track("bass").lanes.first
    expect(extent.call(laned, lane)).to eq laned.length_ticks
    expect(extent.call(laned.with(range: laned.range.with(end_tick: 90 * BAR)), lane)).to eq 90 * BAR
  end

  Seeds.list(25).each do |seed|
    it "hears no difference in splitting, joining and trimming, for any clock, with seed #{seed}" do
      maker = RandomSongs.new(seed)
      random = maker.song
      one = maker.some_region(random)
      cut = one.start_tick + 1 + maker.random.rand(one.length_ticks - 1)
      ticks = (0..random.length_ticks).step(397).to_a
      split = apply(random, "split_region", region_id: one.id, tick: cut).song
      joined = apply(split, "join_region", region_id: one.id).song
      later = apply(random, "trim_region", region_id: one.id, start_tick: cut).song
      RandomSongs::TARGETS.each do |target|
        before = curve(random, target, ticks)
        expect(curve(split, target, ticks).zip(before).map { |a, b| (a - b).abs }.max).to be < 1e-12
        rest = ticks.reject { |tick| tick >= one.start_tick && tick < cut }
        expect(curve(later, target, rest).zip(curve(random, target, rest)).map { |a, b| (a - b).abs }.max).to be < 1e-12
      end
      expect(regions(joined)).to eq regions(random)
    end
  end
end
