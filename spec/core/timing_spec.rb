# frozen_string_literal: true

RSpec.describe KindSatchel::Timing do
  describe KindSatchel::Timing::Meter do
    let(:common) { described_class.new(beats: 4, unit: 4) }

    it "counts bars, beats and ticks from 1.1.0" do
      expect([0, 3840, (4 * 3840) + (2 * 960) + 120].map { |tick| common.text(tick) }).to eq %w[1.1.0 2.1.0 5.3.120]
    end

    it "reads back what it writes, in any meter" do
      [[4, 4], [7, 8], [3, 2], [5, 16]].each do |beats, unit|
        meter = described_class.new(beats:, unit:)
        [0, 1, 959, 12_345, 999_999].each { |tick| expect(meter.parse(meter.text(tick))).to eq tick }
      end
    end

    it "reads short positions" do
      expect([common.parse("5"), common.parse("5.3"), common.parse("5.3.120")]).to eq [15_360, 17_280, 17_400]
    end

    it "refuses what lies outside the meter, and says so" do
      expect { common.parse("5.5") }.to raise_error(KindSatchel::InvalidInput, /outside the meter: places count from 1.1/)
      expect { common.parse("five") }.to raise_error(KindSatchel::InvalidInput, /not a position/)
      expect { described_class.new(beats: 4, unit: 3) }.to raise_error(KindSatchel::InvalidInput, %r{1/16})
    end
  end

  describe KindSatchel::Timing::Meters do
    def meter(beats, unit) = KindSatchel::Timing::Meter.new(beats:, unit:)

    # Two bars of 4/4, three of 3/4, then 7/8.
    let(:list) { described_class.steady(meter(4, 4)).changed(3, meter(3, 4)).changed(6, meter(7, 8)) }

    it "counts bars through the list, and reads back what it writes" do
      expect([0, 7679, 7680, 10_560, 16_320, 16_800].map { |tick| list.text(tick) }).to eq %w[1.1.0 2.4.959 3.1.0 4.1.0 6.1.0 6.2.0]
      (0..40_000).step(97) { |tick| expect(list.parse(list.text(tick))).to eq tick }
    end

    it "refuses a beat that the signature of that bar does not have" do
      expect(list.parse("2.4")).to eq 6720
      ["3.4", "0", "6.8", ""].each { |text| expect { list.parse(text) }.to raise_error(KindSatchel::InvalidInput) }
    end

    it "leaves out what says what holds already, and keeps the bars of later changes" do
      expect(list.changed(4, meter(3, 4))).to eq list
      expect(list.without(3).sections.map(&:tick)).to eq [0, 5 * 3840]
      expect(list.changed(1, meter(3, 4)).sections.map(&:to_a)).to eq [[1, 0, meter(3, 4)], [6, 5 * 2880, meter(7, 8)]]
    end

    it "moves with the time: made room for, cut out, begun with the next bar where one cannot begin" do
      expect(list.spliced(3840, 3840, [], later: 3840).sections.map(&:bar)).to eq [1, 4, 7]
      expect(list.spliced(0, 7680, []).sections.map { |one| [one.bar, one.meter.beats] }).to eq [[1, 3], [4, 7]]
      expect(list.spliced(960, 960, [], later: 960).sections.map { |one| [one.bar, one.tick] }).to eq [[1, 0], [4, 11_520], [6, 17_280]]
    end

    it "is right for any list: a bar begins where the one before it ends" do
      random = Random.new(5)
      20.times do
        some = (2..9).reduce(described_class.steady(meter(4, 4))) { |all, bar| all.changed(bar * 2, meter(1 + random.rand(9), [2, 4, 8, 16].sample(random:))) }
        (1..30).each do |bar|
          start = some.start_of(bar)
          expect([some.start_of(bar + 1) - start, some.bar_at(start), some.bar_from(start - 1)]).to eq [some.at(start).bar_ticks, bar, bar]
        end
      end
    end
  end

  describe KindSatchel::Timing::TempoMap do
    def map(*entries)
      described_class.new(points: entries.map { |tick, bpm, shape| KindSatchel::Timing::TempoPoint.new(tick:, bpm:, shape: shape || "hold") })
    end

    # 60000 / BPM milliseconds to the beat: the table printed in many delay-time charts (arithmetic).
    it "gives the milliseconds of note values at 120 BPM" do
      steady = described_class.steady(120)
      expect([960, 480, 720].map { |ticks| (steady.seconds_at(ticks) * 1000).round(9) }).to eq [500.0, 250.0, 375.0]
    end

    it "runs on through holds and ramps, and back again" do
      tempo = map([0, 96, "straight"], [7680, 72], [15_360, 120, "straight"], [23_040, 140])
      [0, 500, 7679, 7680, 12_000, 20_000, 40_000].each { |tick| expect(tempo.tick_at(tempo.seconds_at(tick))).to be_within(1e-6).of(tick) }
    end

    it "reads the tempo between two points of a ramp" do
      expect(map([0, 96, "straight"], [7680, 72]).bpm_at(3840)).to eq 84.0
    end

    it "stays exact for a ramp that hardly moves" do
      nearly = map([0, 120, "straight"], [960_000, 120.000001])
      x = 1e-6 / 120 # ln(1 + x) / x is 1 - x / 2 to the digits there are
      expect(nearly.seconds_at(960_000)).to be_within(1e-9).of(500 * (1 - (x / 2)))
    end

    it "gives a clock table that stays within half a millisecond" do
      tempo = map([0, 60, "straight"], [38_400, 180])
      corners = tempo.clock
      corners.each_cons(2) do |(t0, s0), (t1, s1)|
        expect(tempo.seconds_at((t0 + t1) / 2.0)).to be_within(0.0005).of((s0 + s1) / 2)
      end
    end

    it "needs a tempo at the start, in order" do
      expect { map([960, 120]) }.to raise_error(KindSatchel::InvalidInput, /tick 0/)
      expect { map([0, 120], [960, 90], [960, 80]) }.to raise_error(KindSatchel::InvalidInput, /in order/)
      expect { map([0, 5]) }.to raise_error(KindSatchel::InvalidInput, /10 to 400/)
    end
  end
end
