# frozen_string_literal: true

RSpec.describe KindSatchel::Splice do
  def places(points) = points.map { |point| [point.tick, point.value.round(9)] }

  let(:line) { points([0, 0.2], [960, 0.8]) }

  it "cuts a segment in two, with an edge point on both sides" do
    left, right = described_class.split(line, 480)
    expect([places(left), places(right)]).to eq [[[0, 0.2], [480, 0.5]], [[480, 0.5], [960, 0.8]]]
  end

  it "cuts at a point without making another, and at a jump takes each side's own" do
    left, right = described_class.split(points([0, 0.2], [480, 0.6], [480, 0.1], [960, 0.8]), 480)
    expect([places(left), places(right)]).to eq [[[0, 0.2], [480, 0.6]], [[480, 0.1], [960, 0.8]]]
  end

  it "comes after a held stretch to the held value" do
    left, right = described_class.split(points([0, 0.2, "hold"], [480, 0.6]), 480)
    expect([places(left), places(right)]).to eq [[[0, 0.2], [480, 0.2]], [[480, 0.6]]]
  end

  it "goes on level before the first point and after the last; of nothing it makes nothing" do
    expect(described_class.split(points([480, 0.3]), 100).map { |side| places(side) }).to eq [[[100, 0.3]], [[100, 0.3], [480, 0.3]]]
    expect(described_class.split(points([480, 0.3, 0.5]), 900).map { |side| places(side) }).to eq [[[480, 0.3], [900, 0.3]], [[900, 0.3]]]
    expect(described_class.split([], 100)).to eq [[], []]
  end

  it "takes a stretch out by itself, from tick 0" do
    expect(places(described_class.between(line, 240, 720))).to eq [[0, 0.35], [480, 0.65]]
  end

  it "puts points in place of a stretch, and moves what follows if told" do
    middle = points([240, 0.9], [720, 0.9])
    expect(places(described_class.replace(line, 240, 720, middle))).to eq [[0, 0.2], [240, 0.35], [240, 0.9], [720, 0.9], [720, 0.65], [960, 0.8]]
    expect(places(described_class.replace(line, 240, 720, [], later: -480)).last).to eq [480, 0.8]
  end

  it "joins where both sides meet on one value" do
    expect(places(described_class.join(points([0, 0.1], [480, 0.5]), points([480, 0.5], [960, 0.2])))).to eq [[0, 0.1], [480, 0.5], [960, 0.2]]
    expect(described_class.join([], line)).to eq line
  end

  25.times do |seed|
    it "never changes a curve by cutting it, with seed #{seed}" do
      maker = RandomSongs.new(seed)
      random = maker.random
      maker.song.directory.envelopes.each_value do |home|
        list = home.envelope.points
        cut = random.rand(8000)
        left, right = described_class.split(list, cut)
        one = home.envelope.bare
        before = (0...cut).step(89).to_a
        after = (cut..9000).step(89).to_a
        before.zip(before.map { |tick| one.with(points: left).at(tick) }) { |tick, value| expect(value).to be_within(1e-6).of(one.at(tick)) }
        after.zip(after.map { |tick| one.with(points: right).at(tick) }) { |tick, value| expect(value).to be_within(1e-6).of(one.at(tick)) }
      end
    end
  end
end
