# frozen_string_literal: true

# Work that several processes share: faults come across as they are.
RSpec.describe "Spread", :app do
  around do |example|
    Spread.processes = 2
    example.run
    Spread.processes = 1
  end

  def worked(&) = Spread.map.call((1..60).to_a, ->(number) { number == 41 ? yield : number })

  it "answers in order, and tells every fault of an input with its place" do
    expect(Spread.map.call((1..60).to_a, ->(number) { number * 2 })).to eq((1..60).map { |number| number * 2 })
    faults = [KindSatchel::Fault.new("one", "/a", "First."), KindSatchel::Fault.new("two", "/b/1", "Second.")]
    expect { worked { raise KindSatchel::InvalidInput, faults } }.to raise_error(KindSatchel::InvalidInput) { |error| expect(error.faults).to eq faults }
    expect { worked { raise KindSatchel::NotFound.of("gone", "", "Gone.") } }.to raise_error(KindSatchel::NotFound, "Gone.")
  end

  it "names what cannot come across by its class" do
    odd = Class.new(StandardError) { def initialize = super("odd words") }
    expect { worked { raise odd } }.to raise_error(RuntimeError, /odd words/)
  end
end
