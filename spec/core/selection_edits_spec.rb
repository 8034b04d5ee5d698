# frozen_string_literal: true

RSpec.describe "Edits of points and stretches" do
  let(:drawn) { envelope([0, 0.2], [960, 0.8, 0.4], [1920, 0.4, "hold"], [2880, 0.6], [3840, 0.5]) }
  let(:song) { small_song(clip: [drawn]) }

  def edited(name, on: song, **inputs) = move(apply(on, name, envelope_id: "e1", **inputs).song)
  def move(some) = some.directory.envelope("e1").envelope
  def places(envelope) = envelope.points.map { |point| [point.tick, point.value.round(6)] }
  def at(envelope, ticks) = ticks.map { |tick| envelope.at(tick) }
  def problem(name, **inputs) = faults { edited(name, **inputs) }

  describe "together" do
    it "moves keep their differences, and stop together at neighbours and at the ends of the travel" do
      expect(places(edited("shift_points", runs: [[1, 2]], ticks: 240, value: 0.1))).to eq [[0, 0.2], [1200, 0.9], [2160, 0.5], [2880, 0.6], [3840, 0.5]]
      expect(places(edited("shift_points", runs: [[1, 2]], ticks: 5000, value: 1))).to eq [[0, 0.2], [1920, 1.0], [2880, 0.6], [2880, 0.6], [3840, 0.5]]
      expect(places(edited("shift_points", runs: [[0, 0], [3, 3]], ticks: -100, value: 0))).to eq places(drawn)
    end

    it "pushes all later points along, in moving, stretching and removing" do
      expect(places(edited("shift_points", runs: [[1, 1]], ticks: 500, value: 0, push: true)).map(&:first)).to eq [0, 1460, 2420, 3380, 4340]
      expect(places(edited("stretch_points", runs: [[0, 1]], start_tick: 0, end_tick: 1920, push: true)).map(&:first)).to eq [0, 1920, 2880, 3840, 4800]
      expect(places(edited("remove_points", runs: [[1, 2]], push: true))).to eq [[0, 0.2], [960, 0.6], [1920, 0.5]]
    end

    it "stretches in time from either edge" do
      expect(places(edited("stretch_points", runs: [[0, 4]], start_tick: 0, end_tick: 1920)).map(&:first)).to eq [0, 480, 960, 1440, 1920]
      expect(places(edited("stretch_points", runs: [[1, 2]], start_tick: 480, end_tick: 1920)).map(&:first)).to eq [0, 480, 1920, 2880, 3840]
      expect(problem("stretch_points", runs: [[1, 1]], start_tick: 0, end_tick: 100)).to eq [["too_few", "/runs"]]
    end

    it "scales about the foot, the middle or a value" do
      expect(edited("scale_points", runs: [[0, 2]], factor: 0.5).points.map(&:value).first(3)).to match([0.2, 0.5, 0.3].map { |v| be_within(1e-9).of(v) })
      middle = edited("scale_points", runs: [[0, 2]], factor: 0.5, pivot: "middle").points.map(&:value)
      expect(middle.first(3)).to match([0.35, 0.65, 0.45].map { |v| be_within(1e-9).of(v) })
      about = edited("scale_points", runs: [[0, 0]], factor: 0, pivot: "800 Hz").points[0].value
      expect(about).to be_within(1e-9).of(song.parameter(address(CUTOFF)).scale.parse("800 Hz"))
      expect(problem("scale_points", runs: [[0, 0]], factor: 1, pivot: "blue")).to eq [["bad_value", "/pivot"]]
    end

    it "boosts by an amount in the unit, and tilts: the first stays, the last has it all" do
      hertz = ->(envelope) { envelope.points.map { |point| song.parameter(address(CUTOFF)).scale.natural(point.value) } }
      before = hertz.call(drawn)
      expect(hertz.call(edited("boost_points", runs: [[1, 1]], amount: "1 kHz"))[1] - before[1]).to be_within(1e-6).of(1000)
      tilted = hertz.call(edited("tilt_points", runs: [[0, 2]], amount: "200")).zip(before).map { |a, b| a - b }
      expect(tilted).to match([0, 100, 200, 0, 0].map { |v| be_within(1e-6).of(v) })
      expect(problem("boost_points", runs: [[1, 1]], amount: "loud")).to eq [["bad_value", "/amount"]]
      gain = small_song(clip: [envelope([0, 0.0], [960, 0.5], target: "bass/channel/volume")])
      louder = edited("boost_points", on: gain, runs: [[0, 1]], amount: "+6 dB")
      expect([louder.points[0].value, 40 * Math.log10(louder.points[1].value / 0.5)]).to match [0.0, be_within(1e-9).of(6)]
    end

    it "flips and reverses, and twice is as before" do
      expect(places(edited("flip_points", runs: [[0, 4]])).map(&:last)).to eq [0.8, 0.2, 0.6, 0.4, 0.5]
      reversed = edited("reverse_points", runs: [[0, 4]])
      ticks = (1...3840).step(37).to_a
      at(reversed, ticks.map { |tick| 3840 - tick }).zip(at(drawn, ticks)) { |a, b| expect(a).to be_within(1e-9).of(b) }
      %w[flip_points reverse_points].each do |name|
        once = apply(song, name, envelope_id: "e1", runs: [[0, 4]]).song
        last = move(once).points.size - 1
        expect(move(apply(once, name, envelope_id: "e1", runs: [[0, last]]).song)).to eq drawn
      end
    end

    it "quantises with a strength" do
      loose = small_song(clip: [envelope([10, 0.2], [900, 0.8], [1990, 0.3])])
      expect(places(edited("quantise_points", on: loose, runs: [[0, 2]], grid_ticks: 480)).map(&:first)).to eq [0, 960, 1920]
      expect(places(edited("quantise_points", on: loose, runs: [[0, 2]], grid_ticks: 480, strength: 0.5)).map(&:first)).to eq [5, 930, 1955]
    end

    it "levels with the first, with the point before, with a value" do
      expect(places(edited("level_points", runs: [[1, 3]], to: "first")).map(&:last)).to eq [0.2, 0.8, 0.8, 0.8, 0.5]
      expect(places(edited("level_points", runs: [[2, 2]], to: "before")).map(&:last)).to eq [0.2, 0.8, 0.8, 0.6, 0.5]
      expect(edited("level_points", runs: [[2, 2]], to: "30 Hz").points[2].value).to eq 0.0
      expect(problem("level_points", runs: [[0, 1]], to: "before")).to eq [["no_point_before", "/to"]]
    end

    it "enters exact values and positions in any written form, and refuses what cannot be" do
      scale = song.parameter(address(CUTOFF)).scale
      { "0.5k" => 500, "500" => 500, "500Hz" => 500, "0.5 kHz" => 500, "50%" => scale.natural(0.5) }.each do |text, natural|
        expect(scale.natural(edited("enter_points", runs: [[1, 1]], value: text).points[1].value)).to be_within(1e-6).of(natural)
      end
      expect(places(edited("enter_points", runs: [[1, 2]], position: "1.2.120")).map(&:first)).to eq [0, 1080, 2040, 2880, 3840]
      region = song.track("bass").regions.first.id
      expect(places(edited("enter_points", runs: [[1, 1]], position: "3.2.120", region_id: region)).map(&:first)).to eq [0, 1080, 1920, 2880, 3840]
      expect(problem("enter_points", runs: [[1, 1]], position: "4.1", region_id: region)).to eq [["outside", "/position"]]
      expect(problem("enter_points", runs: [[1, 1]], position: "2.1", region_id: "none")).to eq [["unknown_region", "/region_id"]]
      expect(problem("enter_points", runs: [[1, 1]], value: "1 MHz")).to eq [["bad_value", "/value"]]
      expect(problem("enter_points", runs: [[1, 1]], value: "99 kHz")).to eq [["out_of_range", "/value"]]
      expect(problem("enter_points", runs: [[1, 1]], position: "2.9")).to eq [["bad_position", "/position"]]
      expect(problem("enter_points", runs: [[1, 1]], position: "2.1")).to eq [["in_the_way", "/position"]]
    end
  end

  describe "of a stretch" do
    let(:outside) { [*(0...1000).step(97), *(2601..4000).step(97)] }

    it "draws freehand, steps and ramps over just what the stroke covers" do
      wave = (1000..2600).step(8).map { |tick| [tick, 0.5 + (Math.sin(tick / 150.0) * 0.4)] }
      { "freehand" => wave, "ramp" => [[1000, 0.9], [2600, 0.1]] }.each do |how, points|
        after = edited("draw_stretch", how:, points:, tolerance: 0.02)
        at(after, outside).zip(at(drawn, outside)) { |a, b| expect(a).to be_within(1e-9).of(b) }
        points.each { |tick, value| expect(after.at(tick)).to be_within(0.0201).of(value) unless tick == 2600 }
        expect(after.points.size).to be < 40
      end
      steps = edited("draw_stretch", how: "steps", points: [[0, 0.1], [300, 0.9], [700, 0.1]], grid_ticks: 240)
      expect(at(steps, [0, 239, 240, 479, 480])).to eq [0.1, 0.1, 0.9, 0.9, 0.1]
      fast = edited("draw_stretch", how: "steps", points: [[1100, 0.9], [130, 0.1], [200, 0.2]], grid_ticks: 240)
      expect(at(fast, [0, 240, 480, 720, 960])).to match([0.2, 0.3, 0.5, 0.7, 0.9].map { |value| be_within(1e-12).of(value) })
      expect(problem("draw_stretch", how: "ramp", points: [[5, 0.1]])).to eq [["too_short", "/points"]]
      expect(problem("draw_stretch", how: "ramp", points: [[5, 0.1], [9, -0.5]])).to eq [["out_of_range", "/points/1/1"]]
    end

    it "rubs out between what holds at the ends, or takes the time out" do
      after = edited("rub_out", from_tick: 480, to_tick: 3360)
      expect(at(after, [480, 3360, 1920])).to match([drawn.at(480), drawn.at(3360), (drawn.at(480) + drawn.at(3360)) / 2].map { |v| be_within(1e-9).of(v) })
      at(after, outside = [*(0..480).step(40), *(3360..4000).step(40)]).zip(at(drawn, outside)) { |a, b| expect(a).to be_within(1e-9).of(b) }
      closed = edited("rub_out", from_tick: 480, to_tick: 1440, push: true)
      at(closed, [479, 480, 900, 2000]).zip(at(drawn, [479, 1440, 1860, 2960])) { |a, b| expect(a).to be_within(1e-9).of(b) }
      expect(problem("rub_out", from_tick: 480, to_tick: 480)).to eq [["too_short", "/to_tick"]]
    end

    it "fades from and to what holds there, and stays faded where nothing follows" do
      out = edited("fade", from_tick: 3360, to_tick: 4800, direction: "out")
      expect([out.at(3360), out.at(4799) < 0.01, out.at(9000)]).to match [be_within(1e-9).of(drawn.at(3360)), true, 0.0]
      into = edited("fade", from_tick: 0, to_tick: 480, direction: "in", curve: 0)
      expect(at(into, [0, 240, 480])).to match [0.0, be_within(1e-9).of(drawn.at(480) / 2), be_within(1e-9).of(drawn.at(480))]
      mirrored = edited("fade", from_tick: 960, to_tick: 1920, direction: "out").points[1].shape
      expect(mirrored.settings["curve"]).to eq(-edited("fade", from_tick: 960, to_tick: 1920, direction: "in").points[2].shape.settings["curve"])
    end

    it "thins: straight runs within the tolerance, small steps, other shapes not" do
      ticks = (0..200).to_a
      dense = small_song(clip: [envelope(*ticks.map { |i| [i * 20, 0.5 + (Math.sin(i / 30.0) * 0.3)] })])
      thin = edited("thin_points", on: dense, runs: [[0, 200]], tolerance: 0.01)
      expect(thin.points.size).to be < 30
      ticks.each { |i| expect(thin.at(i * 20)).to be_within(0.01 + 1e-9).of(move(dense).at(i * 20)) }
      stepped = small_song(clip: [envelope([0, 0.2, "hold"], [480, 0.205, "hold"], [960, 0.9, "hold"], [1440, 0.9, 0.5], [1920, 0.1, 0.2], [2400, 0.1])])
      expect(places(edited("thin_points", on: stepped, runs: [[0, 5]], tolerance: 0.01)).map(&:first)).to eq [0, 960, 1440, 1920, 2400]
    end

    it "clears, and an envelope without points does nothing" do
      empty = apply(song, "clear_envelope", envelope_id: "e1").song
      expect(heard(empty, CUTOFF, BAR + 5)).to eq song.knob(address(CUTOFF))
      expect(places(edited("draw_stretch", on: empty, how: "ramp", points: [[0, 0.1], [960, 0.6]]))).to eq [[0, 0.1], [960, 0.6]]
      expect(faults { edited("fade", on: empty, from_tick: 0, to_tick: 5, direction: "in") }).to eq [["empty", "/envelope_id"]]
    end
  end

  describe "with a copied stretch" do
    def copied(from, to) = JSON.parse(JSON.generate(KindSatchel::Records.snippet(KindSatchel::Snippet.of(drawn, from, to))))

    it "hears inside what was copied and outside what was there, for any envelope" do
      random = Random.new(ENV.fetch("SEED", 7).to_i)
      maker = RandomSongs.new(random.rand(10_000))
      40.times do
        source = maker.song.directory.envelopes.values.map(&:envelope).reject { |one| one.role == "shift" || one.lfo? }.sample(random:).bare
        from, length, to = random.rand(6000), 1 + random.rand(4000), random.rand(6000)
        snippet = JSON.parse(JSON.generate(KindSatchel::Records.snippet(KindSatchel::Snippet.of(source, from, from + length))))
        after = edited("paste_snippet", tick: to, snippet:)
        (1...length).step(53) { |tick| expect(after.at(to + tick)).to be_within(2e-4).of(source.at(from + tick)) }
        [*(0...to).step(211), *((to + length)..(to + length + 4000)).step(211)].each { |tick| expect(after.at(tick)).to be_within(1e-9).of(drawn.at(tick)) }
      end
    end

    it "pastes stretched, pushed in between, and duplicates after itself" do
      half = edited("paste_snippet", tick: 0, snippet: copied(0, 3840), length_ticks: 1920)
      expect(half.at(480)).to be_within(1e-9).of(drawn.at(960))
      pushed = edited("paste_snippet", tick: 960, snippet: copied(0, 480), push: true)
      expect([pushed.at(1200), pushed.at(2400)]).to match [be_within(1e-9).of(drawn.at(240)), be_within(1e-9).of(drawn.at(1920))]
      twice = edited("duplicate_stretch", from_tick: 0, to_tick: 1920)
      expect(at(twice, [1921, 2400, 3839])).to match(at(drawn, [1, 480, 1919]).map { |v| be_within(1e-9).of(v) })
    end

    it "keeps the share of the travel on another parameter; a switch flips where the shape crosses the middle" do
      targets = small_song(clip: [drawn, envelope([0, 0.0], target: "bass/channel/pan", id: "pan", role: "shift"),
                                  envelope([0, 0.0], target: "bass/channel/mute", id: "mute")])
      pan = apply(targets, "paste_snippet", envelope_id: "pan", tick: 0, snippet: copied(0, 3840)).song.directory.envelope("pan").envelope
      (0...3840).step(97) { |tick| expect(pan.at(tick)).to be_within(1e-9).of((drawn.at(tick) * 2) - 1) }
      mute = apply(targets, "paste_snippet", envelope_id: "mute", tick: 0, snippet: copied(0, 3840)).song.directory.envelope("mute").envelope
      expect(mute.points.map { |point| [point.tick, point.value, point.shape.text] }.first(2)).to eq [[0, 0.0, "hold"], [480, 1.0, "hold"]]
      (3..3839).step(7) { |tick| expect(mute.at(tick)).to eq(drawn.at(tick) >= 0.5 ? 1.0 : 0.0) unless (drawn.at(tick) - 0.5).abs < 0.003 }
    end

    it "refuses a stretch that is none" do
      expect(problem("paste_snippet", tick: 0, snippet: copied(0, 960).merge("length_ticks" => 10))).to eq [["out_of_range", "/snippet/points"]]
      expect(faults { KindSatchel::Snippet.of(drawn, 5, 5) }).to eq [["too_short", "/to_tick"]]
    end
  end

  it "finds a fade whose start is a hair off the value before it; levelling it mends it" do
    uneven = envelope([0, 0.7, "hold"], [1920, 0.69, -0.3], [3840, 0.0])
    found = KindSatchel::Checks::UnevenStarts.in(uneven)
    expect(found).to eq [1]
    level = edited("level_points", on: small_song(clip: [uneven]), runs: [[found[0], found[0]]], to: "before")
    expect([level.points[1].value, KindSatchel::Checks::UnevenStarts.in(level)]).to eq [0.7, []]
    expect(KindSatchel::Checks::UnevenStarts.in(drawn)).to eq []
    expect(KindSatchel::Checks::UnevenStarts.in(DemoSong.build.track("master").lanes[0])).to eq [1]
  end
end
