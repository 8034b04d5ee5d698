# frozen_string_literal: true

# Nothing drifts: what is turned over and back is the same to the byte, bounds are bounds, a slight bend is a bend.
RSpec.describe "Exactness" do
  random = Random.new(ENV.fetch("SEED", 3).to_i)

  def whole(envelope) = { envelope_id: "e1", runs: [[0, envelope.points.size - 1]] }

  def drawn(random, role)
    low = role == "shift" ? -1.0 : 0.0
    shapes = [shape("straight"), shape("hold"), shape("curved", curve: random.rand), shape("ess", curve: random.rand - 0.5),
              shape("cycle", wave: %w[sine saw square].sample(random:), cycles: random.rand * 9, skew: random.rand)]
    points = Array.new(12) { |i| KindSatchel::Point.new(tick: i * 320, value: low + (random.rand * (1 - low)), shape: shapes.sample(random:)) }
    envelope([0, 0.5], role:).with(points:)
  end

  %w[set scale shift].each do |role|
    it "flips twice, reverses twice, and shifts there and back to the byte, for what #{role}s" do
      20.times do
        move = drawn(random, role)
        song = small_song(clip: [move])
        %w[flip_points reverse_points].each do |name|
          twice = 2.times.reduce(song) { |now, _| apply(now, name, envelope_id: "e1", runs: [[0, now.directory.envelope("e1").envelope.points.size - 1]]).song }
          unless name == "reverse_points" && move.points.any? { |point| point.shape.is_a?(KindSatchel::Shapes::Hold) }
            expect(json_of(twice)).to eq(json_of(song)), name
          end
        end
        by = [0.05, *move.points.map { |point| 1 - point.value }].min
        there = apply(song, "shift_points", **whole(move), ticks: 240, value: by).song
        expect(json_of(apply(there, "shift_points", **whole(move), ticks: -240, value: -by).song)).to eq json_of(song)
      end
    end
  end

  it "keeps values to 12 decimals, and no zero has a sign" do
    point = KindSatchel::Point.new(tick: 0, value: -1e-15, shape: shape("hold"))
    expect(JSON.generate(KindSatchel::Records.point(point))).to eq '{"tick":0,"value":0.0,"shape":"hold"}'
    expect(point.with(value: 1 / 3.0).value).to eq 0.333333333333
    flipped = apply(small_song(clip: [envelope([0, -0.5], [960, 0.5], role: "shift")]), "shift_points", envelope_id: "e1", runs: [[0, 0]], ticks: 0,
value: 0.5).song
    expect(json_of(flipped)).not_to include "-0.0"
  end

  # The series of (e^(ku) - 1)/(e^k - 1) about k = 0: u + k u (u - 1)/2 + ...
  it "takes a very slight bend for what it is" do
    [1e-3, 1e-7, 1e-10, 1e-13].each do |curve|
      bend = shape("curved", curve:)
      k = 8 * curve
      [0.1, 0.5, 0.77].each { |u| expect(bend.weight(u) - u).to be_within(2e-16 + (k * k)).of(k * u * (u - 1) / 2) }
    end
  end

  it "knows bounds of slope and bend of every smooth shape" do
    forms = [shape("straight"), *[-1.0, -0.3, 1e-6, 0.8].map { |curve| shape("curved", curve:) },
             *[[0.0, 1.0], [0.1, 0.45], [0.3, 0.9]].map { |from, to| KindSatchel::Shapes::HalfWave.new(from:, to:) }]
    forms.each do |form|
      [[0.0, 1.0], [0.2, 0.3], [0.45, 0.8]].each do |from, to|
        step = (to - from) / 400
        weights = (0..400).map { |i| form.weight(from + (step * i)) }
        slopes = weights.each_cons(2).map { |a, b| ((b - a) / step).abs }
        bends = weights.each_cons(3).map { |a, b, c| ((a - (2 * b) + c) / (step * step)).abs }
        expect(slopes.max).to be_between(form.slope_most(from, to) * 0.98, (form.slope_most(from, to) * (1 + 1e-9)) + 1e-9)
        expect(bends.max).to be <= (form.bend_most(from, to) * (1 + 1e-6)) + 1e-4
      end
    end
  end

  # A chord strays by at most h^2/8 times the largest second derivative (the error of linear interpolation).
  it "breaks any combination into chords that hold" do
    30.times do
      segments = Array.new(3) { KindSatchel::Segment.new(0, 960, random.rand, random.rand, shape("curved", curve: (random.rand * 2) - 1)) }
      scale = small_song.parameter(address(random.rand < 0.5 ? "bass/channel/volume" : "bass/channel/pan")).scale
      value = ->(tick) { scale.shifted(scale.scaled(segments[0].at(tick), segments[1].at(tick)), segments[2].at(tick) / 4) }
      quarter = KindSatchel::Jet.level(0.25)
      jet = ->(from, to) { segments.map { |one| one.jet(from, to) }.then { |a, b, c| scale.shifted_jet(scale.scaled_jet(a, b), c * quarter) } }
      ticks = [0.0, *KindSatchel::Chords.breaks(0, 960, 0.002) { |from, to| jet.call(from, to).stray(to - from) }, 960.0]
      ticks.each_cons(2) do |from, to|
        (1..9).each do |i|
          u = i / 10.0
          chord = value.call(from) + ((value.call(to) - value.call(from)) * u)
          expect((value.call(from + ((to - from) * u)) - chord).abs).to be <= 0.002
        end
      end
    end
  end

  # Derivatives of x^2, the square root of x and e^(3x), from a table of derivatives; where a chain of bounds is exact.
  it "bounds products, roots and powers by their derivatives" do
    line = ->(low, high) { KindSatchel::Jet.new(low, high, 1.0, 0.0) }
    jets = [line.call(0.0, 1.0) * line.call(0.0, 1.0), line.call(0.25, 1.0).root, line.call(0.0, 1.0).power(-3), line.call(0.0, 1.0).power(3)]
    expect(jets.map { |jet| [jet.slope, jet.bend] }).to eq [[2.0, 2.0], [1.0, 2.0], [3.0, 9.0], [3 * Math.exp(3), 9 * Math.exp(3)]]
    bent = KindSatchel::Jet.new(0.0, 0.5, 1.0, 4.0) * KindSatchel::Jet.new(-2.0, 1.0, 3.0, 5.0)
    expect([bent.low, bent.high, bent.slope, bent.bend]).to eq [-1.0, 0.5, 2.0 + 1.5, 8.0 + 6.0 + 2.5]
  end

  it "clamps a cycle above the limits alike for every scale" do
    swing = envelope([0, 0.9], [960, 0.9], role: "scale").then do |one|
      one.with(points: [one.points[0].with(shape: shape("cycle", wave: "triangle", cycles: 1, top: 0.4)), one.points[1]])
    end
    expect([240, 480].map { |tick| swing.at(tick) }).to match [be_within(1e-9).of(1.0), be_within(1e-9).of(1.0)]
    %w[bass/synth/cutoff bass/channel/volume bass/channel/pan].each do |target|
      song = small_song(clip: [swing.with(target: address(target))])
      expect(heard(song, target, BAR + 480)).to be_within(1e-9).of(song.knob(address(target)))
    end
  end

  it "needs no corner in half a wave that rises by next to nothing" do
    wave = KindSatchel::Shapes::HalfWave.new(from: 0.0, to: 1.0)
    expect([0.0, 5e-324, -1e-310, 0.001].map { |rise| wave.breaks(rise, 0.001) }).to all be_empty
  end

  it "remembers no more than a few things of a value, however often it is previewed" do
    bend = shape("curved", curve: 0.5)
    wave = KindSatchel::Shapes::HalfWave.new(from: 0.0, to: 1.0)
    800.times { |i| [bend, wave].each { |form| form.breaks(0.5 + (i / 1000.0), 0.0001 * (1.01**i)) } }
    sizes = [bend, wave].map { |form| form.instance_variable_get(:@memo).size }
    expect(sizes.zip([12, 256])).to all(satisfy { |size, most| size <= most })
  end
end
