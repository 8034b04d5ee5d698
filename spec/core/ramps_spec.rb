# frozen_string_literal: true

# One bound for all of it: shapes, scales, a tempo on its way. Random songs are held to it in spec/core/invariants_spec.rb.
RSpec.describe KindSatchel::Heard::Ramps do
  let(:volume) { "bass/channel/volume" }

  def resolver(song, target) = KindSatchel::Heard::Resolver.new(song, address(target))
  def corners(song, target, **more) = described_class.new(resolver(song, target), **more).corners(0, 8 * BAR)
  def share(scale, engine) = scale.gain? ? Math.sqrt([engine, 0].max / scale.peak) : scale.normalised(engine / scale.unit.engine_factor)

  # By how much the ramps lie above (or below) what is heard, as shares of the travel, at many places of each piece.
  def strays(song, target, list)
    scale = resolver(song, target).scale
    resolver(song, target).pieces(0, 8 * BAR).flat_map do |piece|
      (1..200).map do |i|
        tick = piece.from + ((piece.to - piece.from) * i / 201.0)
        share(scale, between(list, song.tempo.seconds_at(tick))) - piece.at(tick)
      end
    end
  end

  def between(list, second)
    i = list.rindex { |at, _| at <= second }
    (s0, v0), (s1, v1) = list[i], list[i + 1] || list[i]
    s1 > s0 ? v0 + ((v1 - v0) * (second - s0) / (s1 - s0)) : v0
  end

  def tempo(*points)
    KindSatchel::Timing::TempoMap.new(points: points.map { |tick, bpm, shape| KindSatchel::Timing::TempoPoint.new(tick:, bpm:, shape: shape || "hold") })
  end

  { "a straight line on a log scale" => [CUTOFF, [0, 0.1], [4 * BAR, 0.95]], "a bend on a log scale" => [CUTOFF, [0, 0.1, 0.6], [4 * BAR, 0.95]],
    "a bend that falls" => [CUTOFF, [0, 0.9, -0.7], [4 * BAR, 0.05]], "a bend on a linear scale" => ["bass/synth/sub", [0, 0.05, 0.8], [4 * BAR, 0.9]] }
    .each do |what, (target, *entries)|
    it "touch the bound from both sides for #{what}, and are exact at its ends" do
      song = small_song(lanes: [envelope(*entries, target:, id: "l1")])
      list = corners(song, target)
      found = strays(song, target, list)
      expect(found.minmax).to match [be_between(-0.001, -0.0004), be_between(0.0004, 0.001)]
      scale = resolver(song, target).scale
      ends = [0, 4 * BAR].map { |tick| between(list, song.tempo.seconds_at(tick)) }
      expect(ends).to match(entries.map { |_, value| be_within(1e-9 * scale.engine(1.0)).of(scale.engine(value)) })
    end
  end

  it "keep the bound for gains that rise from silence, however they rise" do
    [envelope([0, 0.0, 0.3], [4 * BAR, 1.0], target: volume, id: "l1"), envelope([0, 0.0], [4 * BAR, 1.0], target: volume, id: "l1", role: "scale"),
     envelope([0, 0.0, -0.5], [4 * BAR, 1.0], target: volume, id: "l1", role: "scale")].each do |lane|
      song = small_song(lanes: [lane])
      list = corners(song, volume)
      expect(strays(song, volume, list).map(&:abs).max).to be <= 0.001
      expect(list[0][1]).to eq 0.0
    end
  end

  it "take one ramp for a gain that is scaled evenly: that is even in amplitude" do
    song = small_song(lanes: [envelope([0, 0.0], [4 * BAR, 1.0], target: volume, id: "l1", role: "scale")])
    expect(described_class.count(corners(song, volume))).to eq 1
  end

  it "follow the tempo where a held one changes, and while it moves" do
    line = small_song(lanes: [envelope([0, 0.1], [8 * BAR, 0.9], target: "bass/synth/sub", id: "l1")])
    jump = line.with(tempo: tempo([0, 200], [4 * BAR, 50]))
    expect(strays(jump, "bass/synth/sub", corners(jump, "bass/synth/sub")).map(&:abs).max).to be < 1e-9
    expect(described_class.count(corners(jump, "bass/synth/sub"))).to eq 2
    [%w[hold straight], %w[straight hold]].each do |shapes|
      moving = line.with(tempo: tempo([0, 300, shapes[0]], [3 * BAR, 40, shapes[1]], [6 * BAR, 250]))
      [CUTOFF, "bass/synth/sub"].each do |target|
        bent = moving.with_track(moving.track("bass").with(lanes: [envelope([0, 0.1, 0.5], [8 * BAR, 0.9], target:, id: "l1")]))
        expect(strays(bent, target, corners(bent, target)).map(&:abs).max).to be <= 0.001
      end
    end
  end

  it "are kept with the segments: made again they are the same" do
    song = DemoSong.build
    song.automated.each do |address|
      twice = Array.new(2) { described_class.new(KindSatchel::Heard::Resolver.new(song, address)).flat(0, song.length_ticks) }
      expect(twice[0]).to eq twice[1]
    end
  end
end
