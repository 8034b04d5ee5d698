# frozen_string_literal: true

RSpec.describe "Song time" do
  let(:lane) { envelope([0, 0.1], [8 * BAR, 0.9], id: "l1", target: "bass/channel/pan") }
  let(:song) { with_tempo(small_song(clip: [envelope([0, 0.2], [BAR, 0.9])], lanes: [lane])) }

  def with_tempo(song)
    points = [[0, 100, "hold"], [2 * BAR, 100, "straight"], [6 * BAR, 140, "hold"]].map { |tick, bpm, shape| KindSatchel::Timing::TempoPoint.new(tick:, bpm:, shape:) }
    song.with(tempo: KindSatchel::Timing::TempoMap.new(points:), range: KindSatchel::PlayRange.new(on: true, start_tick: 4 * BAR, end_tick: 6 * BAR))
  end

  def starts(some) = some.track("bass").regions.map { |one| [one.start_tick, one.end_tick, one.offset_ticks] }
  def all_heard(some, tick) = [heard(some, CUTOFF, tick), heard(some, "bass/channel/pan", tick), some.tempo.bpm_at(tick)]
  def stretch(some, from, to) = KindSatchel::Transfer::SongStretch.of(some, from, to).to_record

  it "deletes a stretch: what lies behind comes up as it was, tempo and range too" do
    after = apply(song, "delete_time", from_tick: BAR + 960, to_tick: (4 * BAR) + 960)
    expect(after.words).to eq "take out 2.2.0 to 5.2.0 of the song"
    expect(starts(after.song)).to eq [[BAR, BAR + 960, 0], [2 * BAR, 3 * BAR, 0]]
    expect([after.song.range.start_tick, after.song.range.end_tick]).to eq [BAR + 960, 3 * BAR]
    [0, BAR, BAR + 900].each { |tick| expect(all_heard(after.song, tick)).to eq all_heard(song, tick) }
    [BAR + 960, (2 * BAR) + 77, 4 * BAR].each do |tick|
      all_heard(after.song, tick).zip(all_heard(song, tick + (3 * BAR))) { |now, before| expect(now).to be_within(1e-9).of before }
    end
  end

  it "inserts room, where values and tempo hold, and deleting it again gives what was" do
    opened = apply(song, "insert_time", tick: 4 * BAR, length_ticks: 2 * BAR)
    after = opened.song
    expect(opened.words).to eq "open 2 bars at 5.1.0"
    expect([4 * BAR, 5 * BAR, (6 * BAR) - 1].map { |tick| after.tempo.bpm_at(tick) }).to all be_within(0.02).of 120
    expect([4 * BAR, (6 * BAR) - 1].map { |tick| heard(after, "bass/channel/pan", tick) }).to all be_within(1e-9).of 0.5
    expect([after.range.start_tick, after.range.end_tick]).to eq [6 * BAR, 8 * BAR]
    back = apply(after, "delete_time", from_tick: 4 * BAR, to_tick: 6 * BAR).song
    (0..(9 * BAR)).step(777) { |tick| all_heard(back, tick).zip(all_heard(song, tick)) { |now, before| expect(now).to be_within(0.02).of before } }
    expect(back.tempo.seconds_at(9 * BAR)).to be_within(0.001).of song.tempo.seconds_at(9 * BAR)
  end

  it "cuts a region that spans the place, and hears both halves as before" do
    after = apply(song, "insert_time", tick: BAR + 1000, length_ticks: 500).song
    expect(starts(after).first(2)).to eq [[BAR, BAR + 1000, 0], [BAR + 1500, (3 * BAR) + 500, 1000]]
    expect(heard(after, CUTOFF, BAR + 1700)).to eq heard(song, CUTOFF, BAR + 1200)
  end

  it "pastes what was copied, with room made or over what lies there" do
    copied = stretch(song, BAR, 3 * BAR)
    put = [false, true].map { |over| apply(song, "paste_time", tick: 8 * BAR, stretch: copied, over:) }
    expect(put.map(&:words)).to match [/\Aput \d bars? of song in at 9\.1\.0\z/, /\Aput \d bars? of song over what lies at 9\.1\.0\z/]
    pasted = put[0].song
    (0...(2 * BAR)).step(333) do |into|
      all_heard(pasted, (8 * BAR) + into).zip(all_heard(song, BAR + into)) do |now, was|
        expect(now).to be_within(0.02).of was
      end
    end
    over = apply(song, "paste_time", tick: 5 * BAR, stretch: copied, over: true).song
    expect(starts(over)).to eq [[BAR, 3 * BAR, 0], [5 * BAR, 7 * BAR, 0]]
    [0, 3 * BAR, (5 * BAR) - 1, 7 * BAR, 8 * BAR].each do |tick|
      all_heard(over, tick)[1..].zip(all_heard(song, tick)[1..]) { |now, was| expect(now).to be_within(0.02).of was }
    end
  end

  it "cuts and pastes to what was, whatever lies there" do
    copied = stretch(song, BAR + 480, (2 * BAR) + 960)
    cut = apply(song, "delete_time", from_tick: BAR + 480, to_tick: (2 * BAR) + 960).song
    back = apply(cut, "paste_time", tick: BAR + 480, stretch: copied).song
    (0..(8 * BAR)).step(391) { |tick| all_heard(back, tick).zip(all_heard(song, tick)) { |now, before| expect(now).to be_within(0.02).of before } }
  end

  it "refuses a stretch without length, and one whose tracks, clips or parameters are gone" do
    expect(faults { apply(song, "delete_time", from_tick: BAR, to_tick: BAR) }).to eq [["too_short", "/to_tick"]]
    lost = stretch(song, BAR, 3 * BAR)
    lost["regions"].first["clip_id"] = "gone"
    lost["lanes"].first["target"] = "bass/nothing/here"
    found = faults { apply(song, "paste_time", tick: 0, stretch: lost) }
    expect(found).to eq [["no_place", "/stretch/regions/0"], ["unknown_parameter", "/stretch/lanes/0/target"]]
    late = stretch(song, BAR, 3 * BAR).merge("length_ticks" => 100)
    expect(faults { apply(song, "paste_time", tick: 0, stretch: late) }.map(&:first)).to eq ["out_of_range"]
  end

  describe "time signatures" do
    # Four bars of 4/4, then 3/4, 7/8 from bar 9.
    let(:mixed) { [[5, 3, 4], [9, 7, 8]].reduce(song) { |now, (bar, beats, unit)| apply(now, "set_meter", bar:, beats:, unit:).song } }

    def meters(some) = some.meters.sections.map { |one| "#{one.bar} #{one.meter.beats}/#{one.meter.unit} #{one.tick}" }

    it "are set from a bar on and taken out again; positions, documents and undo words follow" do
      expect(meters(mixed)).to eq ["1 4/4 0", "5 3/4 15360", "9 7/8 26880"]
      expect(apply(song, "set_meter", bar: 5, beats: 3, unit: 4).words).to eq "set the meter to 3/4 from bar 5"
      expect(meters(apply(mixed, "remove_meter", bar: 5).song)).to eq ["1 4/4 0", "9 7/8 30720"]
      expect(apply(mixed, "set_range", on: true, start_tick: 15_360, end_tick: 18_240).words).to eq "set the range 5.1.0 to 6.1.0"
      expect(KindSatchel::Document.load(JSON.parse(json_of(mixed)))).to eq mixed
      expect(json_of(apply(mixed, "set_meter", bar: 5, beats: 4, unit: 4).song.then { |one| apply(one, "remove_meter", bar: 9).song })).to eq json_of(song)
    end

    it "refuse what cannot be, and a document whose list is out of order" do
      expect(faults { apply(mixed, "remove_meter", bar: 6) }).to eq [["no_meter", "/bar"]]
      expect(faults { apply(mixed, "set_meter", bar: 2, beats: 65, unit: 4) }).to include(["out_of_range", "/beats"])
      wrong = JSON.parse(json_of(mixed)).tap { |record| record["meter_changes"].reverse! }
      expect(faults { KindSatchel::Document.load(wrong) }.map(&:first)).to eq ["unsorted"]
    end

    it "go along with song time: deleted, opened, copied" do
      expect(meters(apply(mixed, "delete_time", from_tick: 0, to_tick: 7680).song)).to eq ["1 4/4 0", "3 3/4 7680", "7 7/8 19200"]
      expect(meters(apply(mixed, "insert_time", tick: 15_360, length_ticks: 3840).song)).to eq ["1 4/4 0", "6 3/4 19200", "10 7/8 30720"]
      copied = stretch(mixed, 15_360, 18_240)
      expect(meters(apply(mixed, "paste_time", tick: 3840, stretch: copied).song)).to eq ["1 4/4 0", "2 3/4 3840", "3 4/4 6720", "6 3/4 18240", "10 7/8 29760"]
      expect(meters(apply(mixed, "paste_time", tick: 0, stretch: copied.except("meters"), over: true).song)).to eq meters(mixed)
    end
  end

  describe "a wave on a lane" do
    waves = { "of one pace" => {}, "random" => { wave: "random" }, "between ticks" => { cycle_ticks: 701.3, wave: "saw" }, "by the clock" => { hertz: 0.37 } }

    def waving(**more)
      source = KindSatchel::Sources::Lfo.plain.with(cycle_ticks: 1100, phase: 0.3, **more)
      with_tempo(small_song(lanes: [envelope(id: "l1", target: "bass/channel/pan", clock: "once").with(points: [], source:)]))
    end

    def pan(some, ticks) = KindSatchel::Heard::Resolver.new(some, address("bass/channel/pan")).at_each(ticks)
    def restarts(some) = some.directory.envelope("l1").envelope.source.restarts

    def as_before(before, after, at, moved)
      ticks = (at..(12 * BAR)).step(41).to_a
      pan(before, ticks).zip(pan(after, ticks.map { |tick| tick + moved })).map { |one, other| (one - other).abs }.max
    end

    waves.each do |name, settings|
      it "goes on after bars put in, taken out and put in again as it did before: #{name}" do
        song = waving(**settings)
        opened = apply(song, "insert_time", tick: BAR + 77, length_ticks: 1000).song
        expect([as_before(song, opened, BAR + 77, 1000), restarts(opened).size]).to match [be < 1e-6, 1]
        twice = apply(opened, "insert_time", tick: 3 * BAR, length_ticks: 500).song
        expect([as_before(opened, twice, 3 * BAR, 500), restarts(twice).size]).to match [be < 1e-6, 2]
        closed = apply(twice, "delete_time", from_tick: 900, to_tick: (3 * BAR) + 500).song
        expect([as_before(twice, closed, (3 * BAR) + 500, 900 - (3 * BAR) - 500), restarts(closed).size]).to match [be < 1e-6, 1]
        (0...900).step(37) { |tick| expect(pan(closed, [tick])[0]).to be_within(1e-9).of pan(song, [tick])[0] }
      end
    end

    it "whose rate is moved goes on too, and needs no restart where whole cycles are put in" do
      rate = envelope([0, 0.3], [6 * BAR, 0.6], id: "r1", target: "move/l1/rate", clock: "once")
      song = waving.then { |one| one.with_track(one.track("bass").with(lanes: [*one.track("bass").lanes, rate])) }
      opened = apply(song, "insert_time", tick: BAR + 77, length_ticks: 1000).song
      expect(as_before(song, opened, BAR + 77, 1000)).to be < 1e-6
      expect(restarts(apply(waving, "insert_time", tick: BAR, length_ticks: 2200).song)).to eq []
      drawn = apply(opened, "draw_lfo", envelope_id: "l1").song
      expect(pan(drawn, (0..(4 * BAR)).step(53).to_a).zip(pan(opened, (0..(4 * BAR)).step(53).to_a)).map { |a, b| (a - b).abs }.max).to be < 0.002
    end

    it "keeps its restarts in documents and through undo, in order, one to a tick" do
      song = apply(waving, "insert_time", tick: BAR + 77, length_ticks: 1000).song
      expect(KindSatchel::Document.load(JSON.parse(json_of(song)))).to eq song
      broken = ->(list) { faults { KindSatchel::Sources::Lfo.plain.with(restarts: list) } }
      expect(broken.call([[5, 0.2], [5, 0.3]])).to eq [["unsorted", "/restarts/1/0"]]
      expect(broken.call([[5, -0.2]])).to eq [["out_of_range", "/restarts/0/1"]]
      expect(broken.call(Array.new(1001) { |i| [i, 0.0] })).to eq [["too_many", "/restarts"]]
    end
  end

  # A wave in a clip, over two bars of region, its rate moved by a lane of the song.
  describe "a wave in a clip whose rate is moved" do
    def clip_move(**more)
      source = KindSatchel::Sources::Lfo.plain.with(cycle_ticks: 1100, phase: 0.3, **more.except(:clock))
      envelope(id: "e1", target: "bass/channel/pan", clock: more.fetch(:clock, "once")).with(points: [], source:)
    end

    def moved(**more)
      rate = envelope([0, 0.2], [3 * BAR, 0.7], [9 * BAR, 0.4], id: "r1", target: "move/e1/rate", clock: "once")
      with_tempo(small_song(clip: [clip_move(**more)], lanes: [rate]))
    end

    def pan(some, ticks) = KindSatchel::Heard::Resolver.new(some, address("bass/channel/pan")).at_each(ticks)

    def as_before(before, after, from, moved)
      ticks = (from...(3 * BAR)).step(29).to_a
      pan(before, ticks).zip(pan(after, ticks.map { |tick| tick + moved })).map { |one, other| (one - other).abs }.max
    end

    kinds = { "once over all" => {}, "with each loop" => { clock: "each_loop" }, "at random" => { wave: "random", seed: 7 }, "by the clock" => { hertz: 1.3 } }
    kinds.each do |name, more|
      it "goes on as before after bars put in and taken out inside its region: #{name}" do
        song = moved(**more)
        [[BAR + 1000, 500], [2 * BAR, BAR], [(2 * BAR) + 700, 2 * BAR], [BAR - 960, BAR]].each do |tick, length|
          opened = apply(song, "insert_time", tick:, length_ticks: length).song
          expect(as_before(song, opened, tick, length)).to be < 1e-6
          expect(KindSatchel::Document.load(JSON.parse(json_of(opened)))).to eq opened
          back = apply(opened, "delete_time", from_tick: tick, to_tick: tick + length).song
          expect(as_before(song, back, 0, 0)).to be < 1e-6
          expect(back.track("bass").regions.map(&:phases)).to all be_empty
        end
        closed = apply(song, "delete_time", from_tick: BAR + 300, to_tick: BAR + 2100).song
        expect(as_before(song, closed, BAR + 2100, -1800)).to be < 1e-6
        twice = apply(closed, "delete_time", from_tick: BAR - 960, to_tick: BAR - 480).song
        expect(as_before(closed, twice, BAR - 480, -480)).to be < 1e-6
      end
    end

    it "goes on in a copied stretch, in a clip made separate, and where its region is cut again" do
      song = moved
      opened = apply(song, "insert_time", tick: BAR + 1000, length_ticks: 500).song
      right = opened.track("bass").regions[1]
      separate = apply(opened, "separate_regions", region_ids: [right.id]).song
      cut = apply(opened, "split_region", region_id: right.id, tick: BAR + 2000).song
      copied = apply(opened, "duplicate_track", track_id: "bass", moves: true).song
      double = KindSatchel::Heard::Resolver.new(copied, address("#{copied.tracks[copied.tracks.index { |one| one.id == 'bass' } + 1].id}/channel/pan"))
      ticks = ((BAR + 1500)...((3 * BAR) + 500)).step(37).to_a
      expect(pan(opened, ticks)).to eq pan(cut, ticks)
      expect(pan(separate, ticks).zip(pan(opened, ticks)).map { |a, b| (a - b).abs }.max).to be < 1e-12
      expect(double.at_each(ticks).zip(pan(opened, ticks)).map { |a, b| (a - b).abs }.max).to be < 1e-12
      pasted = apply(song, "paste_time", tick: 8 * BAR, stretch: stretch(song, BAR + 1000, 3 * BAR)).song
      expect(as_before(song, pasted, BAR + 1000, (7 * BAR) - 1000)).to be < 1e-6
    end

    it "is not joined with what goes on otherwise, and refuses phases that cannot be" do
      opened = apply(moved, "insert_time", tick: BAR + 1000, length_ticks: 500).song
      left, right = opened.track("bass").regions
      beside = apply(opened, "move_regions", region_ids: [right.id], ticks: -500).song
      expect(faults { apply(beside, "join_region", region_id: left.id) }).to eq [["not_joined", "/region_id"]]
      expect(faults { right.with(phases: { "e1" => [4, -0.5] }) }).to eq [["out_of_range", "/phases/e1/1"]]
      expect(faults { right.with(phases: { "e1" => [-4, 0.5] }) }).to eq [["out_of_range", "/phases/e1/0"]]
    end
  end
end
