# frozen_string_literal: true

RSpec.describe "Stretches of tempo" do
  def map(random)
    ticks = [0, *Array.new(4) { random.rand(1..20) * 960 }].uniq.sort
    points = ticks.map { |tick| KindSatchel::Timing::TempoPoint.new(tick:, bpm: random.rand(60..180), shape: %w[hold straight].sample(random:)) }
    KindSatchel::Timing::TempoMap.new(points:)
  end

  Seeds.list(20).each do |seed|
    it "come out, go in and make room with the clock of all else unchanged, with seed #{seed}" do
      random = Random.new(seed)
      tempo = map(random)
      from = random.rand(1..15) * 960
      to = from + (random.rand(1..6) * 960)
      seconds = ->(some, a, b) { some.seconds_at(b) - some.seconds_at(a) }
      out = tempo.spliced(from, to, [])
      expect(out.seconds_at(from)).to be_within(0.01).of tempo.seconds_at(from)
      expect(seconds[out, from, 30 * 960]).to be_within(0.01).of seconds[tempo, to, to + (30 * 960) - from]
      back = out.spliced(from, from, tempo.cut(from, to), later: to - from)
      expect(back.seconds_at(30 * 960)).to be_within(0.02).of tempo.seconds_at(30 * 960)
      room = tempo.opened(from, 1920)
      expect(seconds[room, from, from + 1920]).to be_within(0.01).of(1920 / 960.0 * 60 / room.bpm_at(from))
      expect(seconds[room, from + 1920, 40 * 960]).to be_within(0.01).of seconds[tempo, from, (40 * 960) - 1920]
    end
  end

  it "say the same with fewer points, and keep whole numbers whole" do
    steady = KindSatchel::Timing::TempoMap.steady(92)
    expect(steady.spliced(960, 1920, steady.cut(0, 4800))).to eq steady
    expect(JSON.generate(steady.opened(960, 960).points.map(&:bpm))).to eq "[92]"
  end
end
