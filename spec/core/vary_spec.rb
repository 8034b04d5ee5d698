# frozen_string_literal: true

# A move over several loops, each a little different.
RSpec.describe "Varying a move" do
  include SongHelpers

  let(:drawn) { envelope([0, 0.2, 0.3], [1920, 0.6], [3840, 0.2, "hold"], role: "set") }
  let(:song) { small_song(clip: [drawn]) }

  def varied(**inputs) = apply(song, "vary_move", envelope_id: "e1", repeats: 4, **inputs)
  def move(result) = result.song.directory.envelope("e1").envelope

  it "is the same over and over where nothing is said, in a length of its own; the region hears each repeat in turn" do
    same = move(varied)
    expect([same.clock, same.own_length_ticks]).to eq ["own_length", 4 * BAR]
    (0...(4 * BAR)).step(173) { |tick| expect(same.at(tick)).to be_within(1e-9).of(drawn.at(tick % BAR)) }
    louder = varied(level: "+30 %").song
    # The region in bars 2 and 3 plays the first two repeats, the last one a third of 30 % higher.
    expect(heard(louder, CUTOFF, (2 * BAR) + 960) - heard(louder, CUTOFF, BAR + 960)).to be_within(1e-9).of(0.1)
  end

  it "grows evenly from the first repeat to the last: louder, deeper, later, faster" do
    at = ->(result, repeat, tick) { move(result).at((repeat * BAR) + tick) }
    deeper = varied(depth: 1.6)
    4.times { |i| expect(at.call(deeper, i, 960)).to be_within(1e-9).of(0.2 + ((drawn.at(960) - 0.2) * (1 + (0.2 * i)))) }
    later = varied(later_ticks: 960)
    expect([at.call(later, 3, 500), at.call(later, 3, 1920), at.call(later, 1, 960)].map { |value| value.round(6) })
      .to eq([0.2, drawn.at(960), drawn.at(640)].map { |value| value.round(6) })
    faster = varied(faster: 4)
    expect([at.call(faster, 3, 480), at.call(faster, 3, 480 + 960), at.call(faster, 0, 1920)].map { |value| value.round(6) }).to eq [0.6, 0.6, 0.6]
  end

  it "turns every second repeat, leaves it out, and scatters by a seed" do
    back, over, out = %w[backwards over left_out].map { |way| move(varied(every_second: way)) }
    (1...BAR).step(97) do |tick|
      expect(back.at(BAR + tick)).to be_within(1e-9).of(drawn.at(BAR - tick))
      expect(over.at(BAR + tick)).to be_within(1e-9).of(0.8 - drawn.at(tick))
      expect([back.at(tick), out.at(BAR + tick),
              out.at((2 * BAR) + tick)]).to match [be_within(1e-9).of(drawn.at(tick)), 0.2, be_within(1e-9).of(drawn.at(tick))]
    end
    one, again, other = [5, 5, 6].map { |seed| move(varied(scatter: 0.2, seed:)).points }
    expect([one == again, one == other]).to eq [true, false]
    expect(move(varied(scatter: 0.2)).at(960)).to be_within(1e-9).of(drawn.at(960))
  end

  it "moves the depth instead where that is wished, also of an LFO, so that the move can still be drawn" do
    result = varied(as: "driven", depth: 0.25)
    beside = result.song.clip("line").envelopes.last
    expect([beside.target.to_s, beside.own_length_ticks, beside.points.map(&:value)]).to eq ["move/e1/depth", 4 * BAR, [1.0, 0.75, 0.5, 0.25]]
    expect(move(result)).to eq drawn
    lfo = apply(song, "set_lfo", envelope_id: "e1", rate: "1/4").song
    expect(faults { apply(lfo, "vary_move", envelope_id: "e1", repeats: 2) }).to eq [["lfo", "/envelope_id"]]
    expect(apply(lfo, "vary_move", envelope_id: "e1", repeats: 2, as: "driven",
every_second: "left_out").song.clip("line").envelopes.last.points.map(&:value)).to eq [1.0, 0.0]
    expect(faults { apply(result.song, "vary_move", envelope_id: "e1", repeats: 2, as: "driven") }).to eq [["already_there", "/address"]]
  end

  describe "in regions that follow one another" do
    # A bar in bar 1 and each of the three after it; two more bars after a gap.
    let(:song) do
      base = small_song(clip: [drawn, envelope([0, 0.1], [960, 0.9], id: "e2", target: "bass/channel/pan")])
      regions = [[0, 1], [1, 1], [2, 2], [6, 2]].each_with_index.map do |(bar, bars), i|
        KindSatchel::Region.fresh(id: "r#{i}", clip_id: "line", start_tick: bar * BAR, length_ticks: bars * BAR)
      end
      base.with_track(base.track("bass").with(regions:))
    end

    def offsets(some) = some.track("bass").regions.map { |region| region.offset_ticks / BAR }
    def told(result) = result.notices.find { |notice| notice.code == "loops_heard" }.text

    it "is counted on, so that all of it is heard; what else the clip does stays" do
      result = varied(level: "+30 %")
      expect([offsets(result.song), told(result)]).to eq [[0, 1, 2, 0], "all 4 loops are heard, the first at 1.1.0, the last at 4.1.0"]
      risen = (0..3).map { |bar| heard(result.song, CUTOFF, (bar * BAR) + 960) - drawn.at(960) }
      expect(risen.map { |value| value.round(9) }).to eq [0.0, 0.1, 0.2, 0.3]
      ticks = (0...(8 * BAR)).step(97).to_a
      pan = ->(some) { KindSatchel::Heard::Resolver.new(some, address("bass/channel/pan")).at_each(ticks) }
      expect(pan.call(result.song)).to eq pan.call(song)
      notes = ->(some) { KindSatchel::Heard::Events.new(some).in_range(0, 8 * BAR).map { |event| event.values_at("start_tick", "pitch") } }
      expect(notes.call(result.song)).to eq notes.call(song)
      driven = varied(as: "driven", depth: 0.25)
      expect([offsets(driven.song), told(driven)]).to eq [[0, 1, 2, 0], "all 4 loops are heard, the first at 1.1.0, the last at 4.1.0"]
    end

    it "is left as it is where another move would sound otherwise, and tells how few are heard" do
      once = apply(song, "set_clock", envelope_id: "e2", clock: "once").song
      result = apply(once, "vary_move", envelope_id: "e1", repeats: 4, level: "+30 %")
      expect([offsets(result.song), told(result)]).to eq [[0, 0, 0, 0], "2 of the 4 loops are heard, the first at 1.1.0, the last at 4.1.0"]
    end
  end

  it "makes less of a change that has no room, in all loops alike, and says so; none of it is cut off" do
    # From 0.6 half of the travel up has no room: 0.4 of it has.
    result = varied(level: "+50 %")
    expect(result.notices.find { |notice| notice.code == "limited" }.text).to eq "there is room for 80 % of that change; so much is made in all loops alike"
    expect((0..3).map { |i| (move(result).at((i * BAR) + 1920) - 0.6).round(9) }).to eq([0.0, 0.4 / 3, 0.8 / 3, 0.4].map { |value| value.round(9) })
    wild = varied(scatter: 1.0, seed: 9)
    expect([move(wild).points.map(&:value).minmax, wild.notices.map(&:code)]).to match [satisfy { |low, high| low >= 0 && high <= 1 }, include("limited")]
    expect(varied(level: "+20 %").notices.map(&:code)).not_to include "limited"
    half = apply(song, "set_limits", envelope_id: "e1", depth: 0.5).song
    driven = apply(half, "vary_move", envelope_id: "e1", repeats: 3, as: "driven", depth: 3.0)
    expect([driven.song.clip("line").envelopes.last.points.map(&:value), driven.notices[0].text[/\d+ %/]]).to eq [[0.5, 0.75, 1.0], "50 %"]
    expect(faults { varied(as: "driven", depth: 1.5) }).to eq [["no_room", "/depth"]]
    full = small_song(clip: [envelope([0, 0.0], [1920, 1.0], [3840, 0.0])])
    expect(faults { apply(full, "vary_move", envelope_id: "e1", repeats: 4, depth: 1.5) }).to eq [["no_room", "/depth"]]
  end

  it "is refused where nothing repeats, or nothing is drawn" do
    laned = small_song(lanes: [drawn])
    expect(faults { apply(laned, "vary_move", envelope_id: "e1", repeats: 2) }).to eq [["no_clip", "/envelope_id"]]
    expect(faults { apply(small_song(clip: [envelope]), "vary_move", envelope_id: "e1", repeats: 2) }).to eq [["empty", "/envelope_id"]]
    expect(faults { varied(level: "loud") }).to eq [["bad_value", "/level"]]
  end
end
