# frozen_string_literal: true

# Envelopes that are LFOs. Source: the project's own rule for waves and phases, unless said otherwise.
RSpec.describe KindSatchel::Sources::Lfo do
  def resolver(song, text) = KindSatchel::Heard::Resolver.new(song, address(text))
  def lfo(**more) = described_class.plain.with(**more)
  def move(role: "set", source: lfo, **more) = envelope(role:, source:, **more)
  def values(move, *ticks) = ticks.map { |tick| move.at(tick) }
  def near(values, within = 1e-9) = values.map { |value| be_within(within).of(value) }

  it "runs from low to high by its wave, a cycle to so many ticks" do
    { "sine" => [0, 0.5, 1, 0.5, 0], "triangle" => [0, 0.5, 1, 0.5, 0], "square" => [0, 0, 1, 1, 0], "saw" => [1, 0.75, 0.5, 0.25, 1],
      "ramp" => [0, 0.25, 0.5, 0.75, 0] }.each do |wave, found|
      expect(values(move(source: lfo(wave:)), 0, 240, 480, 720, 960)).to match near(found)
    end
    expect(values(move(limits: [0.2, 0.6]), 0, 240, 480)).to match near([0.2, 0.4, 0.6])
    expect(values(move(limits: [0.6, 0.2], depth: 0.5), 0, 480)).to match near([0.5, 0.3])
    expect(values(move(role: "shift", depth: 0.25), 0, 240, 480)).to match near([-0.25, 0, 0.25])
  end

  it "gives what as many cycles of points give, for any wave, skew and phase" do
    random = Random.new(8)
    (described_class::WAVES - ["random"]).each do |wave|
      skew, phase, cycles = random.rand.round(6), KindSatchel::Grid.turn(random.rand), 1 + random.rand(9)
      shape = KindSatchel::Shapes.of("shape" => "cycle", "wave" => wave, "cycles" => cycles, "skew" => skew, "phase" => phase, "top" => 1.0)
      drawn = KindSatchel::Envelope.fresh(id: "e", target: address(CUTOFF),
                                          points: [KindSatchel::Point.new(tick: 0, value: 0.0, shape:), KindSatchel::Point.new(tick: 3840, value: 0.0, shape:)])
      wave = move(source: lfo(wave:, skew:, phase:, cycle_ticks: 3840.0 / cycles))
      (1...3840).step(37) { |tick| expect(wave.at(tick)).to be_within(1e-6).of(drawn.at(tick)) }
    end
  end

  it "bends the wave as a curve bends a line" do
    bend = ->(w, k) { (Math.exp(k * w) - 1) / (Math.exp(k) - 1) }
    sine = move(source: lfo(bend: 0.5))
    [0, 100, 333, 480, 700, 959].each { |tick| expect(sine.at(tick)).to be_within(1e-9).of(bend.call((1 - Math.cos(2 * Math::PI * tick / 960)) / 2, 4)) }
    saw = move(source: lfo(wave: "saw", bend: -0.25))
    [0, 100, 333, 959].each { |tick| expect(saw.at(tick)).to be_within(1e-9).of(bend.call(1 - (tick / 960.0), -2)) }
  end

  # The first outputs of splitmix64 begun at 1234567, as published with its reference implementation (from memory).
  it "draws random levels from its seed, the same everywhere" do
    outputs = [6_457_827_717_110_365_317, 3_203_168_211_198_807_973, 9_817_491_932_198_370_423]
    random = move(source: lfo(wave: "random", seed: 1_234_567))
    expect(values(random, 0, 960, 1920)).to match near(outputs.map { |one| (one >> 11) / (2.0**53) }, 1e-15)
    expect(values(random, 0, 500, 959).uniq.size).to eq 1
    expect(move(source: lfo(wave: "random", phase: 0.5)).at(480)).to eq move(source: lfo(wave: "random")).at(960)
  end

  describe "in a clip" do
    def heard_at(song, *ticks) = ticks.map { |tick| resolver(song, CUTOFF).at(tick) }
    def song_with(**more) = small_song(clip: [move(source: lfo(wave: "ramp", cycle_ticks: 2560), **more)])

    it "begins again with every loop, runs on once over all, or fills the region, as its clock says" do
      expect(heard_at(song_with, BAR, BAR + 2560, 2 * BAR)).to match near([0, 0, 0])
      expect(heard_at(song_with(clock: "once"), BAR, 2 * BAR)).to match near([0, 0.5])
      expect(heard_at(song_with(clock: "own_length", own_length_ticks: 1920), BAR + 1919, BAR + 1920)).to match near([1919 / 2560.0, 0])
      # Over twice its length a cycle lasts twice as long.
      expect(heard_at(song_with(clock: "stretched"), BAR, BAR + 2560, BAR + 5119)).to match near([0, 0.5, 5119 / 5120.0])
    end

    it "is the same after a split, and in a copy" do
      song = song_with(clock: "once")
      region = song.track("bass").regions.first
      ticks = (BAR...(3 * BAR)).step(61).to_a
      split = apply(song, "split_region", region_id: region.id, tick: BAR + 1234).song
      expect(heard_at(split, *ticks)).to eq heard_at(song, *ticks)
      copied = apply(song, "copy_regions", region_ids: [region.id], ticks: 7 * BAR).song
      expect(heard_at(copied, *ticks.map { |tick| tick + (7 * BAR) })).to eq heard_at(song, *ticks)
    end

    it "is drawn as far as it is heard when it is turned into points, and says how far off that is" do
      %w[sine square saw random].each do |wave|
        song = small_song(clip: [move(source: lfo(wave:, cycle_ticks: 320, bend: wave == "random" ? 0.3 : 0.0), limits: [0.1, 0.7])])
        result = apply(song, "draw_lfo", envelope_id: "e1")
        drawn = result.song.directory.envelope("e1").envelope
        expect([drawn.lfo?, drawn.full_limits?, result.notices.map(&:code)]).to eq [false, true, ["same"]]
      end
    end
  end

  describe "by edits" do
    let(:song) { small_song(clip: [envelope([0, 0.1], [960, 0.9])]) }

    it "takes the place of points, by a rate as people write it, and counts bars by the clip's own signature" do
      result = apply(song, "set_lfo", envelope_id: "e1", rate: "1/8 triplet", wave: "square")
      made = result.song.directory.envelope("e1").envelope
      expect([made.source.cycle_ticks, made.points, result.words]).to eq [320, [], "make Cutoff an LFO: square, 1/8 triplet"]
      expect(result.notices.map { |notice| [notice.code, notice.text] }).to eq [["replaced", "its 2 points are replaced"]]
      one = small_song(clip: [envelope([0, 0.1])])
      expect(apply(one, "set_lfo", envelope_id: "e1").notices[0].text).to eq "its point is replaced"
      again = apply(result.song, "set_lfo", envelope_id: "e1", rate: "2 bars").song
      expect(again.directory.envelope("e1").envelope.source.to_h.slice(:wave, :cycle_ticks)).to eq(wave: "square", cycle_ticks: 7680)
      three = song.with_clip(song.clip("line").with(meter: KindSatchel::Timing::Meter.new(beats: 3, unit: 4)))
      expect(apply(three, "set_lfo", envelope_id: "e1", rate: "1 bar").song.directory.envelope("e1").envelope.source.cycle_ticks).to eq 2880
    end

    it "begins at a quarter of its depth where it shifts; limits are typed in the parameter's unit" do
      shifting = apply(small_song(clip: [envelope([0, 0.1], role: "shift")]), "set_lfo", envelope_id: "e1").song
      expect(shifting.directory.envelope("e1").envelope.depth).to eq 0.25
      result = apply(song, "set_limits", envelope_id: "e1", low: "200 Hz", high: "2 kHz", depth: "50 %")
      low, high = result.song.directory.envelope("e1").envelope.limits
      scale = song.parameter(address(CUTOFF)).scale
      expect([scale.natural(low), scale.natural(high), result.song.directory.envelope("e1").envelope.depth]).to match near([200, 2000, 0.5], 1e-6)
      expect(result.words).to eq "run Cutoff from 200 Hz to 2 kHz, depth 50 %"
    end

    it "refuses what cannot be, with the place" do
      made = apply(song, "set_lfo", envelope_id: "e1").song
      expect(faults { apply(made, "add_point", envelope_id: "e1", tick: 5, value: 0.5) }).to eq [["lfo", "/points"]]
      expect(faults { apply(made, "set_lfo", envelope_id: "e1", rate: "1/512") }).to eq [["out_of_range", "/rate"]]
      expect { 6.times.reduce(made) { |song, _| apply(song, "set_lfo", envelope_id: "e1", speed: 2).song } }
        .to raise_error(KindSatchel::InvalidInput, "/speed: 1/256 lies outside 1/128 to 16 bars for a cycle.")
      expect(faults { apply(made, "set_lfo", envelope_id: "e1", rate: "fast") }).to eq [["bad_length", "/rate"]]
      expect(faults { apply(made, "set_limits", envelope_id: "e1", low: "99 kHz") }).to eq [["out_of_range", "/low"]]
      expect(faults { apply(made, "set_limits", envelope_id: "e1", depth: "lots") }).to eq [["bad_value", "/depth"]]
      expect(faults { apply(song, "draw_lfo", envelope_id: "e1") }).to eq [["no_lfo", "/envelope_id"]]
      long = made.with_clip(made.clip("line").with(envelopes: [move(source: lfo(cycle_ticks: 30))]))
      lane = long.with_track(long.track("bass").with(lanes: [move(id: "l1", source: lfo(cycle_ticks: 30))]))
      expect(faults { resolver(lane, CUTOFF).pieces(0, 30 * 100_002) }).to eq [["too_many_cycles", "/to_tick"]]
      # A screen is shown the least and the most of each pixel all the same.
      corners = KindSatchel::Heard::Outline.heard(resolver(lane, CUTOFF), 0, 30 * 100_002, width_px: 100)
      expect([corners.size, *corners.each_slice(2).map(&:last).minmax]).to match [400, 0.0, 1.0]
    end

    it "takes restarts in order, one to a tick" do
      restarts = ->(*list) { faults { lfo(restarts: list) } }
      expect([restarts.call([480, 0.0], [960, 0.5]), restarts.call([480, 0.0], [480, 0.5]), restarts.call([960, 0.0], [480, 0.5])])
        .to eq [[], [["unsorted", "/restarts/1/0"]], [["unsorted", "/restarts/1/0"]]]
    end

    it "keeps its drawing where its role changes, and goes into documents and back" do
      made = apply(apply(song, "set_lfo", envelope_id: "e1", bend: 0.3, phase: 0.25).song, "set_limits", envelope_id: "e1", low: 0.25, high: 0.5).song
      role = apply(made, "set_role", envelope_id: "e1", role: "shift", keep: "heard").song.directory.envelope("e1").envelope
      expect([role.role, role.limits]).to eq ["shift", [-0.5, 0.0]]
      document = JSON.parse(JSON.generate(KindSatchel::Document.dump(made)))
      expect(KindSatchel::Document.load(document).directory.envelope("e1").envelope).to eq made.directory.envelope("e1").envelope
    end
  end

  it "is told in the sum" do
    song = small_song(clip: [move(role: "shift", source: lfo(wave: "saw", cycle_ticks: 480))])
    steps = KindSatchel::Heard::Explanation.new(song, address(CUTOFF), BAR).to_record["steps"]
    expect(steps.map { |step| step["does"] }).to include "saw, 1/8: shifts +100 %"
  end
end

RSpec.describe KindSatchel::Timing::NoteLengths do
  it "reads and writes lengths as people do" do
    { "1/4" => 960, "1/8 triplet" => 320, "1/16 dotted" => 360, "2 bars" => 7680, "3 beats" => 2880, "1/64" => 60 }.each do |text, ticks|
      expect([described_class.parse(text), described_class.parse(described_class.text(ticks))]).to eq [ticks, ticks]
    end
    expect(described_class.parse("1/7")).to be_within(1e-9).of(3840 / 7.0)
    expect(described_class.parse("1 bar", bar_ticks: 2880)).to eq 2880
    ["", "1/0", "0/4", "quick", "1/8 quad", "-1/4"].each { |text| expect { described_class.parse(text) }.to raise_error(KindSatchel::InvalidInput, /write it like/) }
  end

  it "leaves no gap between cycles that lie between ticks" do
    song = small_song(clip: [], lanes: [envelope(source: KindSatchel::Sources::Lfo.plain.with(wave: "square", cycle_ticks: 333.4567, phase: 0.321))])
    pieces = KindSatchel::Heard::Resolver.new(song, address(CUTOFF)).pieces(0, 40 * BAR)
    expect(pieces.reject(&:set)).to be_empty
  end

  describe "a free one" do
    def free(song_tempo: nil, **more)
      song = small_song(clip: [envelope(source: KindSatchel::Sources::Lfo.plain.with(wave: "ramp", hertz: 2.0), **more)])
      song_tempo ? song.with(tempo: song_tempo) : song
    end

    let(:slowing) do
      points = [[0, 120, "hold"], [BAR, 120, "straight"], [3 * BAR, 60, "hold"]].map { |tick, bpm, shape| KindSatchel::Timing::TempoPoint.new(tick:, bpm:, shape:) }
      KindSatchel::Timing::TempoMap.new(points:)
    end

    it "goes by the clock, whatever the tempo does, and ignores stretching" do
      [free, free(song_tempo: slowing), free(song_tempo: slowing, clock: "stretched", own_length_ticks: 960)].each do |song|
        [0, 700, 1111, 3000].each do |tick|
          song_tick = BAR + tick
          seconds = song.tempo.seconds_at(song_tick) - song.tempo.seconds_at(BAR)
          expect(heard(song, CUTOFF, song_tick)).to be_within(1e-9).of((seconds * 2) % 1)
        end
        resolver = KindSatchel::Heard::Resolver.new(song, address(CUTOFF))
        ticks = (0..(3 * BAR)).step(91).to_a
        read = KindSatchel::Heard::Pieces.read(resolver.pieces(0, (3 * BAR) + 1), ticks)
        expect(read.zip(ticks.map { |tick| resolver.at(tick) }).map { |a, b| (a - b).abs }.max).to be < 1e-9
      end
    end

    it "has a rate that is moved, in Hz, exact while it rests" do
      rate = KindSatchel::Settings::FREE_RATE.scale
      points = [[0, rate.normalised(1.0), "hold"], [1920, rate.normalised(3.0), "hold"]]
      mover = envelope(*points, target: "move/e1/rate", id: "rate", clock: "each_loop")
      song = free(song_tempo: slowing)
      song = song.with_clip(song.clip("line").with(envelopes: [*song.clip("line").envelopes, mover]))
      first, second = [[BAR, BAR + 1920], [BAR + 1920, BAR + 2500]].map { |from, to| song.tempo.seconds_at(to) - song.tempo.seconds_at(from) }
      expect(heard(song, CUTOFF, BAR + 2500)).to be_within(1e-9).of((first + (3 * second)) % 1)
    end

    it "is typed in Hz, turned into note lengths and back at the tempo of the first tick, and told where the tempo changes" do
      song = small_song(clip: [envelope([0, 0.2])])
      typed = apply(song, "set_lfo", envelope_id: "e1", rate: "3.5 Hz")
      expect(typed.words).to end_with "sine, 3.5 Hz"
      expect(KindSatchel::Document.load(JSON.parse(json_of(typed.song)))).to eq typed.song
      notes = apply(typed.song, "set_lfo", envelope_id: "e1", free: false).song.clip("line").envelopes[0].source
      expect([notes.free?, notes.cycle_ticks]).to match [false, be_within(1e-9).of(1920 / 3.5)]
      faster = apply(typed.song, "set_tempo", tick: BAR + 960, bpm: 90, shape: "hold").song
      changes = KindSatchel::Heard::Changes.between(typed.song, faster).heard.fetch(address(CUTOFF))
      expect(changes.first).to eq [BAR - 1, (3 * BAR) + 1]
      expect(faults { apply(typed.song, "set_lfo", envelope_id: "e1", rate: "50 Hz") }).to eq [["out_of_range", "/rate"]]
      moved = apply(typed.song, "embed_envelope", clip_id: "line", address: "move/e1/rate").song
      expect(faults { apply(moved, "set_lfo", envelope_id: "e1", rate: "1/8") }).to eq [["settings_moved", "/rate"]]
    end

    it "says that the rate which is set is the one it rests at, where a move sets it or a hand holds it" do
      lfo = apply(small_song(clip: [envelope([0, 0.2])]), "set_lfo", envelope_id: "e1", rate: "1/8").song
      expect(apply(lfo, "set_lfo", envelope_id: "e1", rate: "1/4")).to have_attributes(words: "set the LFO of Cutoff: sine, 1/4", notices: [])
      moved = apply(lfo, "embed_envelope", clip_id: "line", address: "move/e1/rate").song
      [moved, apply(moved, "set_knob", address: "move/e1/rate", value: 0.2).song].each do |song|
        told = apply(song, "set_lfo", envelope_id: "e1", rate: "1/16 triplet")
        expect([told.words, told.notices.map(&:code)]).to eq ["set the LFO of Cutoff: sine, resting at 1/16 triplet", ["overruled"]]
        expect(told.notices[0].text).to match(/its rate is (?:set by a move|held by hand); this is the one it rests at/)
        expect(apply(song, "set_lfo", envelope_id: "e1", wave: "square").notices).to eq []
      end
    end
  end
end
