# frozen_string_literal: true

RSpec.describe KindSatchel::Shapes do
  settings = { "hold" => [{}], "straight" => [{}], "curved" => [-1.0, -0.4, -1e-9, 0.0, 0.3, 1.0].map { |curve| { "curve" => curve } } }

  it "has settings of every registered shape here" do
    expect(settings.keys).to match_array described_class::ALL.ids
  end

  settings.each do |id, list|
    list.each do |setting|
      describe "#{id} #{setting}" do
        let(:form) { described_class.of({ "shape" => id, **setting }) }

        it "starts on the first value" do
          expect(form.weight(0.0)).to eq 0.0
          expect(form.weight(1.0)).to be_within(1e-12).of(form.still? ? 0 : 1)
        end

        it "keeps its curve when it is cut" do
          [0.2, 0.5, 0.93].each do |cut|
            left, right = form.cut(0.0, cut), form.cut(cut, 1.0)
            middle, top = form.weight(cut), form.weight(1.0)
            (0..8).map { |i| i / 8.0 }.each do |u|
              expect(left.weight(u) * middle).to be_within(1e-9).of(form.weight(u * cut)) unless form.still?
              expect(middle + (right.weight(u) * (top - middle))).to be_within(1e-9).of(form.weight(cut + (u * (1 - cut))))
            end
          end
        end

        it "runs the same way backwards when reversed" do
          (0..8).map { |i| i / 8.0 }.each do |u|
            expect(1 - form.reversed.weight(1 - u)).to be_within(1e-9).of(form.weight(u)) unless form.still?
          end
          expect(form.reversed.reversed).to eq form
        end

        it "stays within the tolerance between its breaks" do
          [0.001, 0.02].each do |tolerance|
            corners = [0.0, *form.breaks(0.8, tolerance), 1.0]
            corners.each_cons(2) do |a, b|
              (0..20).each do |i|
                next if form.still?

                u = i / 20.0
                chord = form.weight(a) + ((form.weight(b) - form.weight(a)) * u)
                expect((chord - form.weight(a + ((b - a) * u))).abs * 0.8).to be <= tolerance * 1.0001
              end
            end
          end
        end

        it "goes to a record and back" do
          expect(described_class.of(described_class.record(form))).to eq form
        end
      end
    end
  end

  it "uses few breaks: a half of the tolerance costs about the root of two more" do
    bend = described_class.of({ "shape" => "curved", "curve" => 0.5 })
    few, more = bend.breaks(1.0, 0.001).size, bend.breaks(1.0, 0.00025).size
    expect(more.fdiv(few)).to be_within(0.25).of(2)
  end

  it "refuses an unknown shape and a bend out of range" do
    expect { described_class.of({ "shape" => "zigzag" }) }.to raise_error(KindSatchel::NotFound, /hold, straight, curved/)
    expect { described_class.of({ "shape" => "curved", "curve" => 1.1 }) }.to raise_error(KindSatchel::InvalidInput, /-1 to 1/)
  end
end
