# frozen_string_literal: true

# Very many repeats: what may be, and that a read costs what the asked stretch holds.
RSpec.describe "Crowds" do
  let(:last) { KindSatchel::Timing::LAST_TICK }

  # A clip of a 1/64 note that repeats 100,000 times.
  let(:many) do
    song = small_song(clip: [envelope([0, 0.2], [30, 0.9], [59, 0.2])])
    clip = song.clip("line").with(length_ticks: 60)
    region = song.track("bass").regions.first.with(start_tick: 0, length_ticks: 6_000_000, span_ticks: 6_000_000)
    song.with_clip(clip).with_track(song.track("bass").with(regions: [region]))
  end

  def resolver(song) = KindSatchel::Heard::Resolver.new(song, address(CUTOFF))

  it "are refused beyond 100,000 passes of a region, by edits and on import, and below a 1/64 note" do
    id = many.track("bass").regions.first.id
    expect(faults { apply(many, "trim_region", region_id: id, end_tick: 6_000_060) }).to eq [["too_many_passes", ""]]
    document = JSON.parse(json_of(many))
    document["tracks"][0]["regions"][0]["length_ticks"] = last
    expect(faults { KindSatchel::Document.load(document) }).to eq [["too_many_passes", ""]]
    document["clips"][0]["length_ticks"] = 59
    expect(faults { KindSatchel::Document.load(document) }).to eq [["out_of_range", "/clips/0/length_ticks"]]
    expect(faults { apply(small_song(clip: [envelope([0, 0.1])]), "set_clock", envelope_id: "e1", clock: "own_length", own_length_ticks: 59) })
      .to eq [["out_of_range", "/own_length_ticks"]]
  end

  it "cost a read only what the asked stretch holds" do
    expect(resolver(many).pieces(3_000_000, 3_000_060).size).to eq 3
    expect([resolver(many).at(5_999_990), resolver(many).at(30)]).to eq [resolver(many).at(50), 0.9]
    expect(many.track("bass").regions.first.passes(many.clip("line"), 3_000_000, 3_000_120).size).to eq 2
  end

  it "are drawn with at most four corners a pixel, the least and the most of each" do
    flat = KindSatchel::Heard::Outline.heard(resolver(many), 0, 600_000, width_px: 100)
    expect(flat.size / 2).to be_between(100, 400)
    pixels = flat.each_slice(2).group_by { |tick, _| (tick / 6000).floor }.except(100)
    expect(pixels.size).to eq 100
    expect(pixels.values.map { |corners| corners.map(&:last).minmax }).to all match [be_within(0.01).of(0.2), be_within(0.01).of(0.9)]
  end

  it "are drawn by their bounds, and otherwise refused, beyond a million pieces" do
    swings = many.with_clip(many.clip("line").with(envelopes: [envelope([0, 0.2], [59, 0.7]).then do |one|
      cycles = shape("cycle", wave: "sine", cycles: 12)
      one.with(points: [one.points[0].with(shape: cycles), one.points[1]])
    end]))
    lane = envelope([0, 0.1], id: "l1", role: "shift")
    both = swings.with_track(swings.track("bass").with(lanes: [lane]))
    expect(faults { resolver(both).pieces(0, 6_000_000) }).to eq [["too_many_pieces", "/to_tick"]]
    flat = KindSatchel::Heard::Outline.heard(resolver(both), 0, 6_000_000, width_px: 50)
    expect(flat.size / 2).to eq 100
    expect(flat.each_slice(2).map(&:last).minmax).to match [be_within(1e-9).of(0.3), be_within(1e-9).of(0.8)]
  end

  describe "of many regions" do
    # A clip of four points under a slow lane, so many times.
    def row(count)
      song = small_song(clip: [envelope([0, 0.2, 0.6], [900, 0.7, -0.5], [2400, 0.1], [3800, 0.6])])
      region = song.track("bass").regions.first.with(offset_ticks: 0, length_ticks: 3840, span_ticks: 3840)
      regions = (0...count).map { |i| region.with(id: "r#{i}", start_tick: i * 3840) }
      lane = envelope([0, 0.0, 0.3], [3840 * count, 0.25, 0.3], id: "l1", role: "shift")
      song.with_track(song.track("bass").with(regions:, lanes: [lane]))
    end

    # By pixel, what the drawing goes over, and what is heard there at 512 places.
    def drawn(song, width_px)
      every = song.length_ticks / width_px
      chain = KindSatchel::Heard::Outline.heard(resolver(song), 0, song.length_ticks, width_px:).each_slice(2).to_a
      (0...width_px).map do |px|
        from, to = px * every, (px + 1) * every
        inside = chain.select { |tick, _| tick.between?(from, to) }.map(&:last)
        [[*inside, read(chain, from), read(chain, to)].compact.minmax, resolver(song).at_each((0...512).map { |i| from + (i * every / 512) }).minmax]
      end
    end

    def read(chain, at)
      (from, a), (to, b) = chain.each_cons(2).find { |(from, _), (to, _)| from < at && to > at }
      from && (a + ((b - a) * (at - from) / (to - from)))
    end

    it "is known from the bounds of each pixel where points crowd, and holds all that is heard" do
      pairs = drawn(row(200), 50)
      pairs.each do |(low, high), (least, most)|
        expect([low <= least + 1e-9, high >= most - 1e-9]).to eq [true, true]
        expect([low, high]).to match [be_within(0.02).of(least), be_within(0.02).of(most)]
      end
    end

    it "turns at every pixel where pieces are narrow" do
      pairs = drawn(row(20), 100)
      expect(pairs.map { |drawn, heard| heard[1] - drawn[1] }.max).to be < 0.05
      expect(pairs.map { |drawn, heard| drawn[0] - heard[0] }.max).to be < 0.05
    end

    it "costs no more pieces than its pixels" do
      allow(KindSatchel::Heard::Piece).to receive(:new).and_call_original
      KindSatchel::Heard::Outline.heard(resolver(row(2000)), 0, 2000 * 3840, width_px: 100)
      expect(KindSatchel::Heard::Piece).not_to have_received(:new)
    end
  end
end
