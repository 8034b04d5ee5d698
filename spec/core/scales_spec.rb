# frozen_string_literal: true

RSpec.describe KindSatchel::Scales do
  units = KindSatchel::Units
  examples = {
    "linear" => KindSatchel::Scales::Linear.new(low: 0, high: 95, unit: units::PERCENT),
    "bipolar" => KindSatchel::Scales::Bipolar.new(low: -100, high: 100, unit: units::SIDES),
    "log" => KindSatchel::Scales::Log.new(low: 30, high: 18_000, unit: units::HERTZ),
    "fader" => KindSatchel::Scales::Fader.new(peak: 2),
    "steps" => KindSatchel::Scales::Steps.new(low: -24, high: 24, unit: units::SEMITONES),
    "note_length" => KindSatchel::Scales::NoteLength.all,
    "switch" => KindSatchel::Scales::Switch.new,
    "amount" => KindSatchel::Scales::Amount.new(rules: KindSatchel::Roles::Shift, scale: KindSatchel::Scales::Fader.new(peak: 2)),
    "tempo" => KindSatchel::Scales::Tempo.new(low: 10, high: 400, unit: units::BPM)
  }

  it "has an example of every registered scale here" do
    expect(examples.keys).to match_array described_class::ALL.ids
  end

  examples.each do |id, scale|
    describe id do
      it "maps to natural units and back" do
        (0..50).map { |i| scale.heard(i / 50.0) }.each { |value| expect(scale.normalised(scale.natural(value))).to be_within(1e-12).of(value) }
      end

      it "writes text that reads back to within what is shown" do
        (0..50).map { |i| scale.heard(i / 50.0) }.each do |value|
          text = scale.text(value)
          expect(scale.text(scale.parse(text))).to eq text
        end
      end

      it "keeps straight ramps between its breaks within the tolerance" do
        [[0.0, 1.0], [1.0, 0.0], [0.2, 0.7], [0.01, 0.03]].each do |from, to|
          next if scale.steps

          corners = [from, *scale.breaks(from, to, 0.001), to]
          corners.each_cons(2) do |a, b|
            (1..9).each do |i|
              ramp = scale.engine(a) + ((scale.engine(b) - scale.engine(a)) * i / 10)
              expect(scale.normalised(ramp / scale.unit.engine_factor)).to be_within(0.001).of(a + ((b - a) * i / 10)) unless id == "fader"
              expect(Math.sqrt(ramp / scale.peak)).to be_within(0.001).of(a + ((b - a) * i / 10)) if id == "fader"
            end
          end
        end
      end

      it "refuses text it cannot read, and what lies outside" do
        expect { scale.parse("a fish") }.to raise_error(KindSatchel::InvalidInput, /write it like/)
        expect { scale.parse("99999999") }.to raise_error(KindSatchel::InvalidInput)
      end
    end
  end

  it "reads units in the forms people write" do
    expect(examples["log"].parse("1.2 kHz")).to be_within(1e-12).of(examples["log"].parse("1.2k"))
    expect(examples["log"].natural(examples["log"].parse("500"))).to be_within(1e-9).of(500)
    expect(examples["fader"].parse("-6dB")).to eq examples["fader"].parse("-6")
    expect(examples["fader"].parse("-inf")).to eq 0.0
    expect(examples["bipolar"].parse("L30")).to eq 0.35
    expect(examples["bipolar"].parse("c")).to eq 0.5
    expect(examples["switch"].parse("ON")).to eq 1.0
    expect(examples["note_length"].engine(examples["note_length"].parse("1/8 dotted"))).to eq 0.75
    expect(%w[A4 Bb3 c-1 61].map { |name| units::NOTES.parse(name) }).to eq [69, 58, 0, 61]
    expect([69, 58, 0].map { |note| units::NOTES.text(note) }).to eq %w[A4 A#3 C-1]
    expect(units::BPM.parse("92 BPM")).to eq 92.0
    expect(units::SECONDS.parse("489 ms")).to be_within(1e-12).of(0.489)
  end

  it "writes units as people do" do
    expect([examples["fader"].text(0.5**0.5), examples["fader"].text(0.0), examples["bipolar"].text(0.35), examples["log"].text(0.5)])
      .to eq ["0.0 dB", "-inf dB", "L30", "735 Hz"]
  end

  it "tells a bound in three digits that is none less" do
    random = Random.new(9)
    Array.new(500) { 10**((random.rand * 9) - 5) }.each do |number|
      expect(KindSatchel::Units.at_most(number).to_f).to be_between(number * (1 - 1e-11), number * 1.011)
    end
    expect([1.9617, 2, 0.07 * 100, 99.96, 1999.4, 0].map { |number| KindSatchel::Units.at_most(number) }).to eq %w[1.97 2 7 100 2000 0]
  end

  it "switches on at one half" do
    expect([0.49999, 0.5].map { |value| examples["switch"].heard(value) }).to eq [0.0, 1.0]
  end

  it "scales a gain by amplitude, a pan about its middle, the rest from nought" do
    expect(examples["fader"].natural(examples["fader"].scaled(0.8, 0.5)) - examples["fader"].natural(0.8)).to be_within(1e-9).of(20 * Math.log10(0.5))
    expect(examples["bipolar"].scaled(0.9, 0.5)).to be_within(1e-12).of(0.7)
    expect(examples["log"].scaled(0.6, 0.5)).to be_within(1e-12).of(0.3)
  end

  it "shifts a gain in decibels, the rest by a share of the travel" do
    expect(examples["fader"].natural(examples["fader"].shifted(0.5, 0.25)) - examples["fader"].natural(0.5)).to be_within(1e-9).of(6)
    expect(examples["log"].shifted(0.3, 0.2)).to eq 0.5
  end

  it "names the known ones when asked for an unknown one" do
    expect { described_class::ALL.fetch("spiral") }.to raise_error(KindSatchel::NotFound, /linear, bipolar, log, fader, steps, note_length, switch/)
  end
end
