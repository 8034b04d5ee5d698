# frozen_string_literal: true

require "spec_helper"

# Depth, limits, rate and wave of a move are parameters of their own: moved by lanes, by the clip the move is in, and by carriers.
RSpec.describe "Moved settings" do
  def lfo(**more) = KindSatchel::Sources::Lfo.plain.with(**more)
  def wobble(source: lfo, **more) = envelope(source:, **more)
  def setting(name, *points, of: "e1", id: "s-#{name}", **more) = envelope(*points, target: "move/#{of}/#{name}", id:, clock: "once", **more)
  def resolver(song, text = CUTOFF) = KindSatchel::Heard::Resolver.new(song, address(text))
  def pieces_at(song, ticks, text = CUTOFF) = KindSatchel::Heard::Pieces.read(resolver(song, text).pieces(0, ticks.last + 1), ticks)
  def rate(cycles_a_quarter) = (Math.log2(cycles_a_quarter) + 6) / 11

  let(:ticks) { (0..(7 * BAR)).step(37).to_a }

  it "reads the same by tick and by pieces, whatever is moved" do
    song = small_song(clip: [wobble(source: lfo(cycle_ticks: 480), limits: [0.2, 0.9]),
                             setting("rate", [0, rate(2), "straight"], [BAR, rate(6), "hold"]),
                             setting("depth", [0, 0.2, "curved"], [2000, 1.0, "hold"]),
                             setting("wave", [0, 0.0, "hold"], [1500, 0.4, "hold"], [3000, 1.0, "hold"])],
                      lanes: [setting("low", [0, 0.0, "straight"], [6 * BAR, 0.4, "straight"], id: "s-lane")])
    by_tick = ticks.map { |tick| resolver(song).at(tick) }
    expect(pieces_at(song, ticks).zip(by_tick).map { |a, b| (a - b).abs }.max).to be < 1e-9
  end

  it "draws by a moved depth towards rest: 0 for a shift, 1 for a scale, the middle of the limits for a set" do
    %w[shift scale set].each do |role|
      move = envelope([0, 0.8, "hold"], role:, limits: role == "shift" ? [-0.5, 0.5] : [0.2, 0.6])
      song = small_song(clip: [move, setting("depth", [0, 0.0, "straight"], [BAR, 1.0, "hold"])])
      song = song.owned(address(CUTOFF)).turned(0.4)
      amount = role == "shift" ? 0.4 : 0.52
      rest = { "shift" => 0.0, "scale" => 1.0, "set" => 0.4 }.fetch(role)
      drawn = rest + (0.25 * (amount - rest))
      expected = { "shift" => 0.4 + drawn, "scale" => 0.4 * drawn, "set" => drawn }.fetch(role)
      expect(heard(song, CUTOFF, BAR + (BAR / 4))).to be_within(1e-12).of(expected)
    end
  end

  it "adds the phase up from the rate: a rate that doubles every bar has gone through 1/ln 2 of its cycles in the first" do
    song = small_song(clip: [wobble(source: lfo(wave: "ramp", cycle_ticks: 960)), setting("rate", [0, rate(1), "straight"], [BAR, rate(2), "hold"])])
    cycles = (BAR / 2 / 960.0) * (Math.sqrt(2) - 1) / Math.log(Math.sqrt(2))
    expect(heard(song, CUTOFF, BAR + (BAR / 2))).to be_within(1e-9).of(cycles % 1)
  end

  it "runs the phase on through a change of wave, and begins again with every loop" do
    song = small_song(clip: [wobble(source: lfo(cycle_ticks: 1000)), setting("wave", [0, 0.0, "hold"], [1250, 0.8, "hold"], clock: "each_loop")])
    expect(heard(song, CUTOFF, BAR + 1500)).to be_within(1e-9).of(0.5)
    expect(heard(song, CUTOFF, (2 * BAR) + 250)).to be_within(1e-9).of(0.5)
    expect(heard(song, CUTOFF, (2 * BAR) + 2750)).to be_within(1e-9).of(0.75)
  end

  it "goes with the region: a clip that is split, trimmed or moved sounds as it did" do
    clip = [wobble(source: lfo(cycle_ticks: 700), clock: "once"), setting("rate", [0, rate(1), "straight"], [2 * BAR, rate(4), "hold"])]
    song = small_song(clip:)
    before = pieces_at(song, ticks)
    region = song.track("bass").regions.first
    split = apply(song, "split_region", region_id: region.id, tick: BAR + 1234).song
    expect(pieces_at(split, ticks).zip(before).map { |a, b| (a - b).abs }.max).to be < 1e-9
    moved = apply(song, "move_regions", region_ids: [region.id], ticks: 960).song
    places = (BAR...(3 * BAR)).step(41).to_a
    later = pieces_at(moved, places.map { |tick| tick + 960 })
    expect(later.zip(pieces_at(song, places)).map { |a, b| (a - b).abs }.max).to be < 1e-9
  end

  it "lets a lane on any track, and a carrier, move a setting in every region of the clip; a later set wins" do
    song = small_song(clip: [envelope([0, 0.8, "hold"]), setting("high", [0, 0.5, "hold"])])
    expect(heard(song, CUTOFF, BAR)).to be_within(1e-12).of(0.4)
    hall = song.track("hall").with(lanes: [setting("high", [0, 0.25, "hold"], id: "lane")])
    expect(heard(song.with_track(hall), CUTOFF, BAR)).to be_within(1e-12).of(0.4)
    bare = song.with_clip(song.clip("line").with(envelopes: [envelope([0, 0.8, "hold"])])).with_track(hall)
    expect([BAR, 5 * BAR].map { |tick| heard(bare, CUTOFF, tick) }).to all(be_within(1e-12).of(0.2))
  end

  it "moves a setting of a setting" do
    song = small_song(clip: [envelope([0, 0.8, "hold"]), setting("depth", [0, 0.5, "hold"]), setting("high", [0, 0.5, "hold"], of: "s-depth", id: "s2")])
    expect(heard(song, CUTOFF, BAR)).to be_within(1e-12).of(0.5 + (0.25 * 0.3))
  end

  it "is what a hand holds while one holds it, and comes back" do
    song = small_song(clip: [envelope([0, 0.8, "hold"]), setting("depth", [0, 0.5, "hold"])])
    held = apply(song, "set_knob", address: "move/e1/depth", value: 0.0).song
    expect(heard(held, CUTOFF, BAR)).to be_within(1e-12).of(0.5)
    expect(KindSatchel::Document.load(KindSatchel::Document.dump(held))).to eq held
    back = apply(held, "hand_back", addresses: ["move/e1/depth"]).song
    expect(heard(back, CUTOFF, BAR)).to be_within(1e-12).of(0.65)
  end

  it "refuses rings, naming them, at the edit and on import; what is off counts too" do
    song = small_song(clip: [envelope([0, 0.8, "hold"]), setting("depth", [0, 0.5, "hold"])])
    expect { apply(song, "embed_envelope", clip_id: "line", address: "move/s-depth/low") }.not_to raise_error
    own = envelope([0, 0.8, "hold"], target: "move/s-depth/depth", id: "s-depth", on: false)
    ring = song.with_clip(song.clip("line").with(envelopes: [own]))
    expect { KindSatchel::Document.load(KindSatchel::Document.dump(ring)) }
      .to raise_error(KindSatchel::InvalidInput, /ring: Depth of Depth in Line needs itself/)
    two = [setting("depth", [0, 0.5, "hold"], of: "b", id: "a"), setting("low", [0, 0.5, "hold"], of: "a", id: "b")]
    one = song.with_clip(song.clip("line").with(envelopes: two.first(1)))
    expect { KindSatchel::Integrity.check(one, song.with_clip(song.clip("line").with(envelopes: two))) }
      .to raise_error(KindSatchel::InvalidInput, /ring: .* which needs/)
  end

  it "tells where what is heard may differ: depth and limits where they do, a rate to the end of the run" do
    move = wobble(source: lfo(cycle_ticks: 700))
    %w[depth rate].each do |name|
      points = [[0, 0.3], [BAR + 500, 0.3], [BAR + 1000, 0.3], [BAR + 1500, 0.5], [BAR + 2000, 0.3], [BAR + 3000, 0.3]]
      song = small_song(clip: [move], lanes: [setting(name, *points)])
      lane = song.track("bass").lanes.first
      after = apply(song, "move_points", envelope_id: lane.id, points: [{ "index" => 3, "tick" => BAR + 1500, "value" => 0.4 }]).song
      changes = KindSatchel::Heard::Changes.between(song, after).heard.fetch(address(CUTOFF))
      differing = ticks.select { |tick| (heard(song, CUTOFF, tick) - heard(after, CUTOFF, tick)).abs > 1e-12 }
      expect(differing).not_to be_empty
      expect(differing).to all(satisfy { |tick| changes.any? { |from, to| tick.between?(from, to) } })
      expect(changes.first[0]).to be_between(BAR + 490, BAR + 1000)
      expect(changes.first[1]).to be <= (name == "rate" ? (2 * BAR) + 1 : BAR + 3002)
    end
  end

  it "explains a step by the settings that made it, each with what moves it" do
    song = small_song(clip: [wobble(source: lfo(cycle_ticks: 480), role: "shift", limits: [0.0, 0.5]), setting("depth", [0, 0.4, "hold"])],
                      lanes: [setting("rate", [0, rate(2), "hold"], id: "lane")])
    line = KindSatchel::Heard::Explanation.new(song, address(CUTOFF), BAR + 240).lines[2]
    expect(line).to start_with "clip Line sine: shifts +20 % - rate 1/8 (lane), depth 40 % (clip), low 0 %, high +50 % -> "
    own = KindSatchel::Heard::Explanation.new(song, address("move/e1/depth"), BAR + 240)
    expect(own.lines).to eq ["Cutoff in Line, Depth at 2.1.240", "knob rests at 100 % -> 100 %", "clip Line sets 40 % -> 40 %", "heard -> 40 %"]
  end

  it "says where a wave is too fast for its shape to be heard: by the clock, by note lengths and the tempo, as its rate is moved" do
    line = ->(song, tick = 0) { KindSatchel::Heard::Explanation.new(song, address(CUTOFF), tick).lines[2] }
    lane = ->(source) { small_song(lanes: [envelope(id: "l1", clock: "once").with(points: [], source:)]) }
    fast = "too fast for its shape to be heard"
    expect([28, 34].map { |hertz| line.call(lane.call(lfo(hertz:))).include?(fast) }).to eq [false, true]
    # 64th notes are 32 a second at 120 beats a minute, 24 at 90.
    sixty_fourths = lane.call(lfo(cycle_ticks: 60))
    expect([120, 90].map { |bpm| line.call(sixty_fourths.with(bpm:)).include?(fast) }).to eq [true, false]
    moved = small_song(lanes: [envelope(id: "l1", clock: "once").with(points: [], source: lfo(cycle_ticks: 960)),
                               setting("rate", [0, rate(2), "hold"], [BAR, rate(30), "hold"], of: "l1")])
    expect([0, BAR].map { |tick| line.call(moved, tick).include?(fast) }).to eq [false, true]
  end

  describe "copies" do
    let(:clip) do
      [wobble(source: lfo(cycle_ticks: 700)), setting("depth", [0, 0.2, "straight"], [BAR, 1.0, "hold"]),
       setting("high", [0, 0.5, "hold"], of: "s-depth", id: "s2")]
    end
    let(:lane) { setting("rate", [0, rate(1), "straight"], [6 * BAR, rate(3), "hold"], id: "lane") }
    let(:song) { small_song(clip:, lanes: [lane]) }

    it "are moved like what they are copies of: made separate, a track once more, brought into another song" do
      before = pieces_at(song, ticks)
      apart = apply(song, "separate_regions", region_ids: [song.track("bass").regions.last.id]).song
      expect(apart.clips.size).to eq 2
      expect(pieces_at(apart, ticks)).to eq before
      copied = apply(song, "duplicate_track", track_id: "bass", moves: true).song
      copy = copied.tracks[1]
      expect(pieces_at(copied, ticks, "#{copy.id}/synth/cutoff")).to eq before
      expect(pieces_at(copied, ticks)).to eq before
      taken = apply(small_song, "take_tracks", document: KindSatchel::Document.dump(song), track_ids: ["bass"]).song
      expect(pieces_at(taken, ticks, "#{taken.tracks[1].id}/synth/cutoff")).to eq before
    end

    it "leave the original alone: what moves the copy is its own" do
      apart = apply(song, "separate_regions", region_ids: [song.track("bass").regions.last.id]).song
      copy = apart.clip(apart.track("bass").regions.last.clip_id)
      changed = apply(apart, "clear_envelope", envelope_id: copy.envelopes[1].id).song
      expect(pieces_at(changed, ticks.first(200))).to eq pieces_at(song, ticks.first(200))
      expect(copy.envelopes.map { |one| one.target.to_s }).to eq [CUTOFF, "move/#{copy.envelopes[0].id}/depth", "move/#{copy.envelopes[1].id}/high"]
    end
  end

  describe "in edits that write moves again" do
    let(:clip) do
      [wobble(source: lfo(cycle_ticks: 700)), setting("depth", [0, 0.2, "straight"], [BAR, 1.0, "hold"], clock: "each_loop"),
       setting("rate", [0, rate(1), "straight"], [BAR, rate(3), "hold"], clock: "each_loop")]
    end
    let(:song) { small_song(clip:) }

    def apart(one, other) = pieces_at(one, ticks).zip(pieces_at(other, ticks)).map { |a, b| (a - b).abs }.max

    it "stays what it was: laid out, made one clip, made points" do
      regions = song.track("bass").regions.map(&:id)
      expect(apart(apply(song, "lay_out", region_ids: regions, addresses: [CUTOFF]).song, song)).to be < 0.002
      expect(apart(apply(song, "consolidate_regions", region_ids: regions.first(1)).song, song)).to be < 0.002
      drawn = apply(song, "draw_lfo", envelope_id: "e1")
      expect(apart(drawn.song, song)).to be < 0.002
      expect(drawn.notices.map(&:text)).to include "what moves its rate waits as a loose end"
      depth = drawn.song.clip("line").envelopes[1]
      expect(apart(apply(drawn.song, "switch_envelope", envelope_id: depth.id, on: false).song, song)).to be > 0.1
    end

    it "takes in what moves it when a hand is recorded over part of it" do
      samples = [[2.5, 0.1], [2.6, 0.9]].flatten
      moves = [{ "address" => CUTOFF, "grips" => [{ "samples" => samples, "until_seconds" => 2.7 }] }]
      done = apply(song, "record_moves", moves:, from_seconds: 2.0, to_seconds: 3.0, into: "clip")
      untouched = ticks.select { |tick| tick < BAR || tick.between?(2.75 * 1920, (2 * BAR) - 1) }
      before, after = [song, done.song].map { |one| untouched.map { |tick| heard(one, CUTOFF, tick) } }
      expect(before.zip(after).map { |a, b| (a - b).abs }.max).to be < 0.002
      expect(done.notices.map(&:text).join).to include "what moved depth of Cutoff and rate of Cutoff is taken in and switched off"
      expect(heard(done.song, CUTOFF, (2.6 * 1920).round + 1)).to be_within(0.02).of(0.9)
    end

    it "refuses what could not stay, naming what moves" do
      expect { apply(song, "set_role", envelope_id: "e1", role: "scale") }.not_to raise_error
      drawn = small_song(clip: [envelope([0, 0.4], [BAR, 0.6]), clip[1]])
      expect { apply(drawn, "set_role", envelope_id: "e1", role: "scale") }.to raise_error(KindSatchel::InvalidInput, /depth of Cutoff in Line is moved/)
    end
  end

  it "asked by tick alone answers for the last sounding region down the tracks, while each region has its own" do
    scaled = setting("depth", [0, 0.2, "straight"], [BAR, 1.0, "hold"], role: "scale", clock: "each_loop")
    carrier = KindSatchel::Clip.new(id: "both", name: "Both", kind: "carrier", length_ticks: BAR, notes: [], audio: nil,
                                    envelopes: [envelope([0, 0.8, "hold"]), scaled])
    song = small_song
    tracks = %w[one two].map.with_index do |id, i|
      region = KindSatchel::Region.fresh(id: "r-#{id}", clip_id: "both", start_tick: i * 1920, length_ticks: BAR)
      KindSatchel::Track.new(id:, name: id, kind: "carrier", hue: "walnut", output: "master", devices: [], lanes: [], regions: [region])
    end
    song = song.with(clips: song.clips.merge("both" => carrier), tracks: [song.track("bass"), *tracks, *song.tracks.drop(1)])
    depths = [960, 2880].map { |tick| heard(song, "move/e1/depth", tick) }
    expect(depths).to match [be_within(1e-9).of(0.4), be_within(1e-9).of(0.4)]
    pieces = resolver(song, "move/e1/depth").pieces(0, BAR)
    expect(KindSatchel::Heard::Pieces.read(pieces, [960, 2880])).to match [be_within(1e-9).of(0.4), be_within(1e-9).of(0.4)]
    evaluation = KindSatchel::Heard::Evaluation.of(song, tracks[0].regions[0])
    expect(evaluation.signal(address("move/e1/depth")).at(2880)).to be_within(1e-9).of(0.8)
  end

  it "is the same for several threads that read a song at once" do
    settings = [setting("rate", *(0..40).map { |i| [i * 700, rate(1 + (i % 5)), 0.4] }, id: "lane")]
    song = small_song(lanes: [wobble(id: "e1", source: lfo(cycle_ticks: 480)), *settings])
    alone = pieces_at(song, ticks)
    shared = song.with(name: "Shared")
    all = Array.new(4) { |i| Thread.new { pieces_at(shared, ticks.drop(i * 50)) } }.map(&:value)
    all.each_with_index { |values, i| expect(values).to eq alone.drop(i * 50) }
  end

  it "says what has no such setting, and keeps it as a loose end" do
    song = small_song(clip: [envelope([0, 0.8, "hold"])])
    expect { apply(song, "embed_envelope", clip_id: "line", address: "move/e1/rate") }.to raise_error(KindSatchel::NotFound, /no rate/)
    expect { apply(song, "embed_envelope", clip_id: "line", address: "move/e9/depth") }.to raise_error(KindSatchel::NotFound, /no move "e9"/)
    loose = small_song(clip: [envelope([0, 0.8, "hold"]), setting("rate", [0, 0.1, "hold"])])
    expect(heard(loose, CUTOFF, BAR)).to eq 0.8
  end

  # A wave of the track whose rate another wave moves over nearly all of its travel.
  def two_waves(hertz: nil)
    mover = setting("rate", of: "l1", id: "r1").with(points: [], source: lfo(cycle_ticks: 960, hertz:))
    small_song(lanes: [envelope(id: "l1", clock: "once").with(points: [], source: lfo(cycle_ticks: 320)), mover])
  end

  # The laws of the integral, told how often they are asked.
  def counted(song)
    law = KindSatchel::Heard::Integral::CyclesLaw.new(KindSatchel::Settings::RATE.scale)
    asked = 0
    law.define_singleton_method(:pace_at) { |arc, tick| super(arc, tick).tap { asked += 1 } }
    [KindSatchel::Heard::Integral.new(resolver(song, "move/l1/rate"), 0, law), -> { asked }]
  end

  it "works a moved phase out once for each stretch, and no further than is asked" do
    [nil, 36].each do |hertz|
      integral, asked = counted(two_waves(hertz:))
      integral.at(4 * BAR)
      four = asked.call
      expect(four).to be < (hertz ? 80_000 : 6000)
      ticks = Array.new(500) { |i| i * 7.3 }
      back = ticks.map { |tick| integral.at(tick).then { |sum| integral.stretch_of(sum).tick_of(sum) } }
      # Read again and again, and back, it asks for the rate no more.
      expect(asked.call).to eq four
      expect(back.zip(ticks).map { |one, other| (one - other).abs }.max).to be < 1e-5
    end
  end

  it "takes a moved phase over to the next song where nothing of it changed, and works it out anew where something did" do
    song = two_waves
    values = resolver(song).at_each(ticks)
    kept = ->(one) { KindSatchel::Heard::Evaluation.of(one).integrals }
    alike = apply(song, "set_knob", address: "bass/channel/pan", value: 0.9).song
    KindSatchel::Heard::Evaluation.carry(song, alike)
    expect(kept.call(alike)["l1"]).to equal kept.call(song)["l1"]
    expect(resolver(alike).at_each(ticks)).to eq values
    other = apply(song, "set_lfo", envelope_id: "r1", cycle_ticks: 777).song
    KindSatchel::Heard::Evaluation.carry(song, other)
    expect(kept.call(other)).to eq({})
    expect(resolver(other).at_each(ticks)).not_to eq values
  end

  # Simpson's rule on the rate as it is read tick by tick, far finer than it turns.
  it "comes to the phase that the sum of small steps comes to" do
    song = two_waves
    integral, = counted(song)
    rates = resolver(song, "move/l1/rate")
    pace = ->(tick) { (2.0**((rates.at(tick) * 11) - 6)) / 960 }
    [[0, 500], [480, 960], [1000, 3840]].each do |from, to|
      steps = 4 * (to - from)
      width = (to - from).fdiv(steps)
      sum = (0..steps).sum { |i| pace.call(from + (i * width)) * (i.zero? || i == steps ? 1 : 2 + (2 * (i % 2))) } * width / 3
      expect(integral.at(to) - integral.at(from)).to be_within(1e-7).of sum
    end
  end

  it "keeps drawn waves between moved limits, over a lane that bends, within the tolerance everywhere, and draws crowds of them by bounds" do
    drawn = shape("cycle", wave: "sine", cycles: 64, skew: 0.5, phase: 0.0, foot: 0.0, top: 0.0)
    move = envelope([0, -0.2], [BAR, 0.3], role: "shift", limits: [-0.4, 0.4])
    move = move.with(points: [move.points[0].with(shape: drawn), move.points[1]])
    song = small_song(clip: [move, setting("high", id: "h1").with(points: [], source: lfo(cycle_ticks: 1920))],
                      lanes: [envelope([0, 0.2, 0.7], [6 * BAR, 0.8], id: "l1", clock: "once")])
    pieces = resolver(song).pieces(BAR, 2 * BAR)
    chain = KindSatchel::Heard::Outline.of_pieces(pieces, tolerance: 0.001).each_slice(2).to_a
    apart = chain.each_cons(2).flat_map do |(start, from), (finish, to)|
      (1..5).map { |i| (resolver(song).at(start + ((finish - start) * i / 6.0)) - (from + ((to - from) * i / 6.0))).abs }
    end
    expect(apart.max).to be <= 0.001
    expect(chain.size).to be < 64 * 2 * 12
    band = KindSatchel::Heard::Outline.heard(resolver(song), 0, 3 * BAR, width_px: 40)
    expect(band.size).to be <= 4 * 40
    bounds = band.each_slice(4).to_h { |tick, low, _, high| [tick, [low, high]] }
    places = bounds.keys
    (BAR...(3 * BAR)).step(7) do |tick|
      low, high = bounds.fetch(places.reverse_each.find { |place| place <= tick })
      expect(resolver(song).at(tick)).to be_between(low - 1e-9, high + 1e-9)
    end
  end
end
