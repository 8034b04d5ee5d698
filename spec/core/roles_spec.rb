# frozen_string_literal: true

# One contract for every role over parameters of every kind.
RSpec.describe KindSatchel::Roles do
  kinds = { "log" => %w[filter cutoff], "linear" => %w[delay feedback], "bipolar" => %w[channel pan], "fader" => %w[channel volume],
            "steps" => %w[pluck pitch] }

  define_method(:scale_of) { |(type, id)| KindSatchel::Devices::TYPES.fetch(type).parameter(id).scale }

  kinds.each do |kind, parameter|
    described_class::ALL.each do |id, rules|
      describe "#{id} over #{kind}" do
        let(:scale) { scale_of(parameter) }
        let(:amounts) { (1..9).map { |i| rules.values.min + (i * (rules.values.max - rules.values.min) / 10.0) } }

        it "counts amounts in its unit, and back" do
          next if scale.steps && id == "set"

          amounts.each { |amount| expect(rules.from_natural(scale, rules.natural(scale, amount))).to be_within(1e-9).of(amount) }
        end

        it "writes amounts as it reads them" do
          amounts.each do |amount|
            text = rules.amount_text(scale, amount)
            expect(rules.amount_text(scale, rules.parse(scale, text))).to eq text
          end
        end

        it "leaves the value alone at its neutral amount" do
          expect(rules.apply(scale, 0.4, rules.neutral)).to be_within(1e-12).of(0.4) if rules.neutral
        end

        it "finds the amount that makes a wanted value, where one can" do
          before = 0.6
          wanted = rules.apply(scale, before, amounts[3])
          expect(rules.apply(scale, before, rules.amount(scale, before, wanted))).to be_within(1e-9).of(wanted)
        end

        it "refuses what is no amount, with a word on how to write one" do
          expect { rules.parse(scale, "mango") }.to raise_error(KindSatchel::InvalidInput, /write it like/)
        end
      end
    end
  end

  it "takes a share of the travel for any value that is set, within the travel" do
    set = described_class::Set
    scales = kinds.values.map { |parameter| scale_of(parameter) }.reject { |scale| scale.unit.word == "%" }
    scales.each { |scale| expect(set.parse(scale, "50 %")).to eq 0.5 }
    expect(faults { set.parse(scale_of(kinds["log"]), "101%") }).to eq [["out_of_range", ""]]
  end
end
