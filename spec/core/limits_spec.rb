# frozen_string_literal: true

# Limits and depth of an envelope: low + (high - low) v, then rest + depth (that - rest). Source: the project's own rule.
RSpec.describe "Limits and depth" do
  def near(values) = values.map { |value| be_within(1e-12).of(value) }
  def at(value, **more) = envelope([0, value], **more).at(0)

  it "run points from low to high; of a shift from -1 on" do
    expect([0.0, 0.5, 1.0].map { |value| at(value, limits: [0.2, 0.6]) }).to match near([0.2, 0.4, 0.6])
    expect([-1.0, 0.0, 1.0].map { |value| at(value, role: "shift", limits: [-0.2, 0.6]) }).to match near([-0.2, 0.2, 0.6])
    expect([0.0, 1.0].map { |value| at(value, limits: [0.9, 0.1]) }).to match near([0.9, 0.1])
  end

  it "draw towards rest: nothing for a shift, all for a scale, the middle for a set" do
    expect(at(0.5, role: "shift", depth: 0.25)).to be_within(1e-12).of(0.125)
    expect(at(0.2, role: "scale", depth: 0.5)).to be_within(1e-12).of(0.6)
    expect(at(1.0, limits: [0.2, 0.6], depth: 0.0)).to be_within(1e-12).of(0.4)
    expect([at(0.7, role: "shift", depth: 0.0), at(0.3, role: "scale", depth: 0)]).to eq [0, 1]
  end

  it "are left out where they are full, so that nothing changes by a bit" do
    rest = { "set" => 0.1, "scale" => 0.7, "shift" => -0.3 }
    rest.each { |role, value| expect(at(value, role:, limits: KindSatchel::Roles.full(role), depth: 1)).to equal value }
  end

  it "are taken into the points without a change" do
    random = Random.new(5)
    30.times do
      role = rest_role = %w[set scale shift].sample(random:)
      low = rest_role == "shift" ? -1.0 : 0.0
      limits = Array.new(2) { low + (random.rand * (1 - low)) }
      move = envelope([0, 0.1], [960, 0.9], [1920, 0.3], role:, limits:, depth: random.rand)
      plain = move.unlimited
      expect(plain.plain?).to be true
      [0, 333, 960, 1500, 4000].each { |tick| expect(plain.at(tick)).to be_within(1e-9).of(move.at(tick)) }
    end
  end

  it "refuses what lies outside of the role, and a depth beyond all" do
    expect(faults { envelope([0, 0.5], limits: [-0.1, 1.0]) }).to eq [["out_of_range", "/limits/0"]]
    expect(faults { envelope([0, 0.5], role: "shift", limits: [-0.1, 1.1]) }).to eq [["out_of_range", "/limits/1"]]
    expect(faults { envelope([0, 0.5], depth: 1.5) }).to eq [["out_of_range", "/depth"]]
  end

  it "hold for what is typed: as amounts, and no further than they go" do
    song = small_song(clip: [envelope([0, 0.0], [960, 1.0], target: "bass/synth/sub", limits: [0.2, 0.6])])
    points = ->(name, **inputs) { apply(song, name, envelope_id: "e1", **inputs).song.directory.envelope("e1").envelope.points.map(&:value) }
    expect(points.call("enter_points", runs: [[0, 0]], value: "50 %")).to match near([0.75, 1.0])
    expect(points.call("level_points", runs: [[0, 1]], to: "30 %")).to match near([0.25, 0.25])
    expect(points.call("boost_points", runs: [[0, 0]], amount: "10 %")).to match near([0.25, 1.0])
    refused = "/value: 70 % lies outside the limits, 20 % to 60 %."
    expect { points.call("enter_points", runs: [[0, 0]], value: "70 %") }.to raise_error(KindSatchel::InvalidInput, refused)
    level = small_song(clip: [envelope([0, 0.0], target: "bass/synth/sub", depth: 0.0)])
    expect(faults { apply(level, "enter_points", envelope_id: "e1", runs: [[0, 0]], value: "50 %") }).to eq []
  end

  describe "of songs of version 2, which had ranges" do
    def brought_up(role, range, *values)
      points = values.each_with_index.map { |value, i| { "tick" => i * 960, "value" => value, "shape" => "straight" } }
      record = { "id" => "e1", "target" => "a/b/c", "role" => role, "clock" => "each_loop", "own_length_ticks" => nil, "range" => range, "on" => true,
                 "fader" => "follow", "points" => points }
      KindSatchel::Records.read_envelope(KindSatchel::Older.record("envelope", record))
    end

    it "sound as they did" do
      [["set", [0.2, 0.8]], ["scale", [0.9, 0.3]], ["shift", [0.2, 0.8]], ["shift", [0.0, 0.5]], ["shift", [0.8, 0.2]]].each do |role, (low, high)|
        values = role == "shift" ? [-0.5, 0.25, 1.0] : [0.0, 0.25, 1.0]
        move = brought_up(role, [low, high], *values)
        found = values.each_index.map { |i| move.at(i * 960) }
        expect(found).to match(values.map { |value| be_within(1e-9).of((low + (value * (high - low))).clamp(-1.0, 1.0)) })
      end
    end

    it "have limits where these can be, else other points" do
      expect(brought_up("shift", [0.0, 0.5], 0.5).limits).to eq [-0.5, 0.5]
      baked = brought_up("shift", [0.8, 0.2], 1.0)
      expect([baked.full_limits?, baked.points.first.value]).to match [true, be_within(1e-9).of(0.2)]
      expect(brought_up("set", [0.0, 1.0], 0.5).full_limits?).to be true
    end
  end

  it "come in with a whole document of version 2" do
    document = KindSatchel::Document.dump(DemoSong.build)
    old = document.merge("version" => 2, **{ "tracks" => "lanes", "clips" => "envelopes" }.to_h do |owners, list|
      [owners, document[owners].map { |owner| owner.merge(list => owner[list].map { |one| one.merge("range" => [0.0, 1.0]) }) }]
    end)
    expect(KindSatchel::Document.dump(KindSatchel::Document.load(KindSatchel::Upgrade.document(old)))).to eq document
  end
end
