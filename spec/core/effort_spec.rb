# frozen_string_literal: true

# What is told of how long something takes, before any of it is worked out.
RSpec.describe "Effort" do
  def effort(song, from = 0, to = 4 * BAR) = KindSatchel::Heard::Effort.new(song).of(address(CUTOFF), from, to)
  def lfo(**more) = KindSatchel::Sources::Lfo.plain.with(**more)
  def wave(id, target, ticks) = envelope(id:, target:, clock: "once").with(points: [], source: lfo(cycle_ticks: ticks))

  # Each moves the rate of the one before.
  def chain(count)
    lanes = (1..count).map { |i| wave("l#{i}", i == 1 ? CUTOFF : "move/l#{i - 1}/rate", 240 + (80 * i)) }
    small_song(lanes:)
  end

  it "grows with the points, the cycles, the stretch, and with every wave that moves another one's rate" do
    few, many = [3, 30].map { |count| small_song(lanes: [envelope(*Array.new(count) { |i| [i * 100, 0.5] }, id: "l1", clock: "once")]) }
    expect(effort(many)).to be > 5 * effort(few)
    expect(effort(chain(1), 0, 8 * BAR)).to be_within(1e-9).of(2 * effort(chain(1)))
    efforts = (1..4).map { |count| effort(chain(count)) }
    expect(efforts).to eq efforts.sort
    expect(efforts.last).to be > 20 * efforts.first
    expect(effort(chain(1), 100, 100)).to eq 0.0
  end

  it "works nothing out, and tells less of what is worked out already" do
    song = chain(3)
    allow(KindSatchel::Heard::Integral::Quadrature).to receive(:new).and_call_original
    before = effort(song)
    expect(KindSatchel::Heard::Integral::Quadrature).not_to have_received(:new)
    KindSatchel::Heard::Resolver.new(song, address(CUTOFF)).at(4 * BAR)
    expect(effort(song)).to be < before / 3
  end

  it "counts what acts in each region of a clip, and nothing of what a hand holds" do
    clip = small_song(clip: [envelope([0, 0.1], [BAR, 0.9])])
    expect(effort(clip, 0, clip.length_ticks)).to be > effort(clip, 0, BAR + 1)
    expect(effort(apply(chain(3), "set_knob", address: CUTOFF, value: 0.4).song)).to eq 0.0
  end

  it "leaves room in a budget until it is gone, and says for what there was none" do
    song = chain(2)
    budget = KindSatchel::Heard::Budget.new(song, effort(song) * 1.5)
    expect(budget.room?(address(CUTOFF), 0, 4 * BAR)).to be true
    expect([budget.room?(address(CUTOFF), 0, 4 * BAR), budget.refused]).to eq [false, [address(CUTOFF)]]
    expect(budget.room?(address("bass/channel/pan"), 0, 4 * BAR)).to be true
  end

  it "draws what would take too long by its bounds, which hold all that is heard" do
    song = chain(4)
    flat = KindSatchel::Heard::Outline.heard(KindSatchel::Heard::Resolver.new(song, address(CUTOFF)), 0, 64 * BAR, width_px: 64)
    low, high = flat.each_slice(2).map(&:last).minmax
    expect(flat.size).to eq 4 * 64
    expect(KindSatchel::Heard::Resolver.new(song, address(CUTOFF)).at_each((0...BAR).step(7).to_a)).to all(be_between(low, high))
  end
end
