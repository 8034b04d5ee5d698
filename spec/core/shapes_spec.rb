# frozen_string_literal: true

RSpec.describe KindSatchel::Shapes do
  bends = [-1.0, -0.4, -1e-9, 0.0, 0.3, 1.0].map { |curve| { "curve" => curve } }
  waves = KindSatchel::Shapes::Cycle::WAVES.keys.map { |wave| { "wave" => wave, "cycles" => 2.75, "skew" => 0.3 } }
  settings = { "hold" => [{}], "straight" => [{}], "curved" => bends,
               "ess" => [*bends, { "curve" => 0.6, "from" => 0.2, "to" => 0.9 }, { "curve" => 0.6, "from" => 0.0, "to" => 0.910833333333 }],
               "cycle" => [*waves, { "wave" => "sine", "cycles" => 3, "skew" => 1.0 }, { "wave" => "square", "cycles" => 1, "note_ticks" => 240 }] }
  ends = KindSatchel::Shapes::Ends.new(0.2, 0.9, 1920)
  places = (0..40).map { |i| (i + 0.37) / 41.5 }

  it "has settings of every registered shape here" do
    expect(settings.keys).to match_array described_class::ALL.ids
  end

  settings.each do |id, list|
    list.each do |setting|
      describe "#{id} #{setting}" do
        let(:form) { described_class.of({ "shape" => id, **setting }) }

        define_method(:at) { |shape, between, u| described_class.value_at(shape, between, u) }

        it "comes apart into stretches that cover it all and go one way, each a smooth shape" do
          parts = form.parts(ends)
          expect([parts.first.start, parts.last.finish]).to eq [0, 1]
          parts.each_cons(2) { |a, b| expect(b.start).to eq a.finish }
          parts.each do |part|
            weights = (0..10).map { |i| part.shape.weight(i / 10.0) }
            expect(weights).to eq weights.sort
            expect([weights[0], weights[10]]).to match [be_within(1e-9).of(0), be_within(1e-9).of(part.shape.still? ? 0 : 1)]
          end
        end

        it "keeps its curve when it is cut" do
          [0.2, 0.5, 0.93].each do |cut|
            value = at(form, ends, cut)
            left, right = described_class::Ends.new(ends.a, value, ends.ticks * cut), described_class::Ends.new(value, ends.b, ends.ticks * (1 - cut))
            halves = [form.cut(0.0, cut, ends, left), form.cut(cut, 1.0, ends, right)]
            places.each do |u|
              expect(at(halves[0], left, u)).to be_within(1e-9).of(at(form, ends, u * cut)) unless form == described_class::Hold::PLAIN
              expect(at(halves[1], right, u)).to be_within(1e-9).of(at(form, ends, cut + (u * (1 - cut))))
            end
          end
        end

        it "runs the same way backwards when reversed, and twice is as before" do
          turned = described_class::Ends.new(ends.b, ends.a, ends.ticks)
          back = form.reversed(ends)
          places.each { |u| expect(at(back, turned, 1 - u)).to be_within(1e-9).of(at(form, ends, u)) unless form == described_class::Hold::PLAIN }
          expect(back.reversed(turned)).to eq form
        end

        it "scales with its values" do
          half = described_class::Ends.new(0.1, 0.45, 1920)
          places.each { |u| expect(at(form.scaled(0.5), half, u)).to be_within(1e-9).of(at(form, ends, u) / 2) }
        end

        it "stays within the tolerance between the breaks of its stretches" do
          form.parts(ends).each { |part| [0.001, 0.02].each { |tolerance| expect(stray(part.shape, tolerance)).to be <= tolerance * 1.0001 } }
        end

        it "goes to a record and back, and has a name" do
          expect(described_class.of(described_class.record(form))).to eq form
          expect(form.text).to match(/\w/)
        end
      end
    end
  end

  # The largest distance of a smooth shape that rises by 0.8 from the chain through its breaks.
  def stray(shape, tolerance)
    return 0 if shape.still?

    [0.0, *shape.breaks(0.8, tolerance), 1.0].each_cons(2).flat_map do |a, b|
      (0..20).map do |i|
        chord = shape.weight(a) + ((shape.weight(b) - shape.weight(a)) * i / 20)
        (chord - shape.weight(a + ((b - a) * i / 20))).abs * 0.8
      end
    end.max
  end

  it "uses few breaks: a quarter of the tolerance costs about twice as many" do
    [described_class.of({ "shape" => "curved", "curve" => 0.5 }), described_class::HalfWave.new(from: 0.0, to: 1.0)].each do |bend|
      few, more = bend.breaks(1.0, 0.001).size, bend.breaks(1.0, 0.00025).size
      expect(more.fdiv(few)).to be_within(0.3).of(2)
    end
  end

  it "is an S whose second half mirrors the first, and keeps a locked count to the note" do
    ess = described_class.of({ "shape" => "ess", "curve" => 0.5 })
    whole = described_class::Ends.new(0.0, 1.0, 960)
    places.each { |u| expect(described_class.value_at(ess, whole, u) + described_class.value_at(ess, whole, 1 - u)).to be_within(1e-9).of(1) }
    locked = described_class.of({ "shape" => "cycle", "wave" => "saw", "cycles" => 1, "note_ticks" => 240 })
    expect([480, 960, 1000].map { |ticks| locked.count(ticks) }).to eq [2, 4, 1000 / 240.0]
  end

  it "refuses what it does not know, and what is out of range" do
    expect { described_class.of({ "shape" => "zigzag" }) }.to raise_error(KindSatchel::NotFound, /hold, straight, curved/)
    { { "shape" => "curved", "curve" => 1.1 } => "/curve", { "shape" => "ess", "curve" => 0, "from" => 0.5, "to" => 0.5 } => "/to",
      { "shape" => "cycle", "wave" => "sines" } => "/wave", { "shape" => "cycle", "cycles" => 0 } => "/cycles",
      { "shape" => "cycle", "cycles" => Float::NAN } => "/cycles", { "shape" => "cycle", "skew" => 2 } => "/skew" }.each do |record, path|
      expect(faults { described_class.of(record) }.map(&:last)).to eq [path]
    end
    endless = described_class.of({ "shape" => "cycle", "note_ticks" => 15 })
    expect(faults { endless.count(10_000_000) }).to eq [["too_many", "/note_ticks"]]
  end
end
