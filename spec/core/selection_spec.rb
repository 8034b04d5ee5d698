# frozen_string_literal: true

RSpec.describe KindSatchel::Selection do
  let(:list) { points([0, 0.1], [240, 0.2], [480, 0.3], [720, 0.4], [960, 0.5]) }

  def chosen(*runs) = described_class.new(list, runs)

  it "names places once and in order, whatever the runs" do
    expect(chosen([3, 4], [0, 1], [1, 3]).indexes).to eq [0, 1, 2, 3, 4]
    expect(chosen([4, 4], [0, 0], [1, 1]).runs).to eq [[0, 1], [4, 4]]
    expect([chosen([1, 2]).first.tick, chosen([1, 2]).last.tick, chosen([1, 2]).values, chosen([1, 2]).size]).to eq [240, 480, [0.2, 0.3], 2]
    expect([0, 1, 2, 3].map { |i| chosen([1, 2]).include?(i) }).to eq [false, true, true, false]
  end

  it "refuses runs that name no points, and says which" do
    expect(faults { chosen([0, 1], [4, 5], [3, 2]) }).to eq [["unknown_point", "/runs/1"], ["unknown_point", "/runs/2"]]
  end

  it "gives new values within a range, and leaves the others the same things" do
    after = chosen([1, 2]).revalued(0..1) { |point| point.value * 4 }
    expect(after.map(&:value)).to eq [0.1, 0.8, 1.0, 0.4, 0.5]
    expect([after[0].equal?(list[0]), after[3].equal?(list[3])]).to eq [true, true]
  end

  it "scales the swing of a cycle with its two points, and only then" do
    swing = points([0, 0.2], [480, 0.6]).then { |a, b| [a.with(shape: shape("cycle", wave: "sine", cycles: 2, top: 0.1)), b] }
    both = described_class.new(swing, [[0, 1]]).revalued(0..1, factor: 0.5) { |point| point.value / 2 }
    one = described_class.new(swing, [[0, 0]]).revalued(0..1, factor: 0.5) { |point| point.value / 2 }
    expect([both[0].shape.top, one[0].shape.top]).to eq [0.05, 0.1]
  end

  it "gives new ticks that stop at what stays, and at one another" do
    expect(chosen([1, 2]).retimed { |point| point.tick + 1000 }.map(&:tick)).to eq [0, 720, 720, 720, 960]
    expect(chosen([1, 2]).retimed { |point| point.tick - 1000 }.map(&:tick)).to eq [0, 0, 0, 720, 960]
    expect(chosen([3, 4]).retimed { |point| point.tick * 2 }.map(&:tick)).to eq [0, 240, 480, 1440, 1920]
  end
end

RSpec.describe KindSatchel::Thinning do
  def kept(values, tolerance, ticks: (0...values.size).to_a) = described_class.keep(ticks, values, tolerance)

  it "keeps the ends, and of a line nothing else" do
    expect(kept([0.0, 0.1, 0.2, 0.3, 0.4], 1e-9)).to eq [0, 4]
    expect(kept([0.3], 0.1)).to eq [0]
    expect(kept([0.3, 0.9], 0.1)).to eq [0, 1]
  end

  it "keeps a corner as far as it sticks out" do
    bump = [0.0, 0.0, 0.1, 0.0, 0.0]
    expect([kept(bump, 0.05).include?(2), kept(bump, 0.2)]).to eq [true, [0, 4]]
  end

  it "keeps both sides of a jump" do
    expect(kept([0.0, 0.0, 1.0, 1.0], 0.01, ticks: [0, 10, 10, 20])).to eq [0, 1, 2, 3]
  end

  it "keeps every corner at no tolerance, and within it whatever the stroke" do
    random = Random.new(3)
    [0.0, 0.002, 0.02, 0.2].each do |tolerance|
      values = Array.new(400) { random.rand }
      places = kept(values, tolerance)
      line = envelope(*places.map { |i| [i, values[i]] })
      expect(values.each_with_index.map { |value, i| (line.at(i) - value).abs }.max).to be <= tolerance + 1e-12
      expect(places.each_cons(2).all? { |a, b| a < b }).to be true
    end
  end
end

RSpec.describe KindSatchel::Marks do
  def texts(type, id) = KindSatchel::Devices::TYPES.fetch(type).parameter(id).scale.then { |scale| described_class.of(scale).map { |value| scale.text(value) } }

  it "are round in the unit: decibels, octaves, centre and sides, steps" do
    expect(texts("channel", "volume")).to eq ["-inf dB", "-48.0 dB", "-24.0 dB", "-12.0 dB", "-6.0 dB", "0.0 dB", "+6.0 dB"]
    expect(texts("filter", "cutoff")).to eq ["31.2 Hz", "62.5 Hz", "125 Hz", "250 Hz", "500 Hz", "1 kHz", "2 kHz", "4 kHz", "8 kHz", "16 kHz"]
    expect(texts("channel", "pan")).to eq %w[L100 L50 C R50 R100]
    expect(texts("filter", "kind")).to eq ["low pass", "band pass", "notch", "high pass"]
    expect(texts("delay", "time")).to eq ["10 ms", "100 ms", "1 s"]
  end
end
