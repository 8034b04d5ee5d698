# frozen_string_literal: true

RSpec.describe KindSatchel::Envelope do
  it "holds the first value before the first point and the last after the last" do
    move = envelope([480, 0.2], [960, 0.8])
    expect([0, 480, 720, 960, 99_999].map { |tick| move.at(tick) }).to eq [0.2, 0.2, 0.5, 0.8, 0.8]
  end

  it "takes the later point at a jump" do
    move = envelope([0, 0.1], [480, 0.3], [480, 0.9], [960, 0.5])
    expect([move.at(479), move.at(480)]).to match [be_within(0.001).of(0.3), 0.9]
  end

  it "narrows its values to its range" do
    expect(envelope([0, 0.5], limits: [0.2, 0.8]).at(0)).to be_within(1e-12).of(0.5)
    expect(envelope([0, 1.0], limits: [0.2, 0.8]).at(0)).to be_within(1e-12).of(0.8)
  end

  it "does nothing when it is empty or off" do
    expect([envelope.acts?, envelope([0, 0.1], on: false).acts?, envelope.at(0)]).to eq [false, false, nil]
  end

  it "says which points are unsorted or out of range, all at once" do
    expect(faults { envelope([960, 0.5], [480, -0.5], [990, 0.7]) }).to eq [["unsorted", "/points/1/tick"], ["out_of_range", "/points/1/value"]]
  end

  it "lets a shift go below nought, and nothing else" do
    expect(envelope([0, -0.5], role: "shift").at(0)).to eq(-0.5)
    expect(faults { envelope([0, -0.5], role: "scale") }).to eq [["out_of_range", "/points/0/value"]]
  end

  it "refuses numbers that are none" do
    expect { points([0, Float::NAN]) }.to raise_error(KindSatchel::InvalidInput, /NaN/)
    expect { points([-1, 0.5]) }.to raise_error(KindSatchel::InvalidInput, /whole number/)
    expect { points([0.5, 0.5]) }.to raise_error(KindSatchel::InvalidInput, /whole number/)
  end

  it "is equal to one that says the same, and cannot be changed" do
    expect(envelope([0, 0.5])).to eq envelope([0, 0.5])
    expect { envelope([0, 0.5]).points << 1 }.to raise_error(FrozenError)
    expect { envelope([0, 0.5]).on = false }.to raise_error(FrozenError)
  end
end

RSpec.describe KindSatchel::Roles do
  scales = [KindSatchel::Devices::SEND.scale, KindSatchel::Devices::TYPES.fetch("mono-synth").parameter("cutoff").scale,
            KindSatchel::Devices::CHANNEL.parameter("pan").scale]

  described_class::ALL.each do |id, role|
    scales.each do |scale|
      it "#{id} on a #{scale.id} scale finds the amount that makes a value of another" do
        [[0.6, 0.55], [0.9, 0.7]].each do |before, wanted|
          expect(role.apply(scale, before, role.amount(scale, before, wanted))).to be_within(1e-9).of(wanted)
        end
      end

      it "#{id} on a #{scale.id} scale changes nothing by its neutral amount" do
        expect(role.apply(scale, 0.4, role.neutral)).to eq 0.4 if role.neutral
        expect(role.apply(scale, 0.4, 0.7)).to eq 0.7 unless role.neutral
      end

      it "#{id} on a #{scale.id} scale writes amounts that read back" do
        text = role.amount_text(scale, 0.25)
        expect(role.amount_text(scale, role.parse(scale, text))).to eq text
        expect { role.parse(scale, "much") }.to raise_error(KindSatchel::InvalidInput, /write it like/)
      end
    end
  end
end
