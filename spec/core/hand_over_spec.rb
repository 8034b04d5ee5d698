# frozen_string_literal: true

require "csv"
require "open3"

# Songs made to fit what another program can do: what is kept, what is lost, and that the loss is told truly.
RSpec.describe KindSatchel::HandOver do
  def limits(**given) = described_class::Limits.new(**given)
  def bake(song, **given) = described_class::Bake.new(song, limits(**given)).call

  all = { lanes_only: true, no_carriers: true, set_only: true, straight: true }
  let(:song) do
    small_song(clip: [envelope([0, 0.2, 0.5], [BAR, 0.9]), envelope([0, 0.0], [BAR, 0.5], target: "bass/channel/volume", role: "shift", id: "v")],
               lanes: [envelope([0, 0.5], [2 * BAR, 1.0], target: "bass/channel/volume", id: "l"),
                       envelope([0, 0.0], [BAR, 1.0], target: "bass/channel/mute", id: "m")])
  end

  # What a scale makes of a value, silence at -60 dB.
  def natural(scale, value)
    scale.gain? ? [scale.natural(value), -60.0].max : scale.natural(value)
  end

  it "leaves alone what fits: without limits nothing changes, and each move that has room stays as it is" do
    expect(bake(song).song).to eq song
    expect(bake(song).losses.map { |loss| [loss.points, loss.largest] }.uniq).to eq [[nil, 0.0]]
    curved = bake(song, straight: true)
    expect(curved.losses.select(&:points).map { |loss| loss.address.to_s }).to eq ["bass/synth/cutoff"]
    expect(curved.song.clips.values.flat_map(&:envelopes).map(&:id)).to eq ["v"]
    expect(bake(song, set_only: true).losses.select(&:points).map { |loss| loss.address.to_s }).to eq ["bass/channel/volume"]
  end

  it "makes lanes that set of all that is heard, straight, few, rounded; steps stay steps" do
    baked = bake(song, **all, bits: 7).song
    lanes = baked.track("bass").lanes
    expect(baked.clips.values.flat_map(&:envelopes)).to eq []
    expect(lanes.map(&:role).uniq).to eq ["set"]
    expect(lanes.flat_map(&:points).map { |point| point.shape.class }.uniq - [KindSatchel::Shapes::Straight, KindSatchel::Shapes::Hold]).to eq []
    expect(lanes.flat_map(&:points).map { |point| (point.value * 127) % 1 }.map { |rest| [rest, 1 - rest].min }.max).to be < 1e-9
    (0...(8 * BAR)).step(101) do |tick|
      %w[bass/synth/cutoff bass/channel/volume].each { |at| expect(heard(baked, at, tick)).to be_within(0.0062).of(heard(song, at, tick)) }
      expect(heard(baked, "bass/channel/mute", tick)).to eq heard(song, "bass/channel/mute", tick)
    end
    expect(bake(baked, **all, bits: 7).song.with(next_id: 1)).to eq baked.with(next_id: 1)
  end

  it "keeps to so many points a lane, and so many a second, choosing those that matter" do
    wild = small_song(lanes: [envelope(*Array.new(60) { |i| [i * 480, [0.1, 0.9, 0.3][i % 3]] })])
    few = bake(wild, **all, points_per_lane: 7)
    expect(few.song.track("bass").lanes[0].points.size).to eq 7
    [1, 4.5, 30].each do |rate|
      [wild, apply(wild, "glide_tempo", from_tick: 0, to_tick: 4 * BAR, from_bpm: 60, to_bpm: 180, shape: "straight").song].each do |base|
        points = bake(base, lanes_only: true, straight: true, points_per_second: rate).song.track("bass").lanes[0].points
        gaps = points.each_cons(2).map { |one, other| base.tempo.seconds_at(other.tick) - base.tempo.seconds_at(one.tick) }
        expect(gaps.min).to be >= (1.0 / rate) - 1e-6
        expect(points.size).to be > [base.tempo.seconds_at(7 * BAR) * rate / 3, 30].min
      end
    end
    errors = [3, 7, 20, 60].map { |count| bake(wild, **all, points_per_lane: count).losses[0].mean }
    expect(errors).to eq errors.sort.reverse
  end

  it "tells the largest loss where it is, in the unit of the parameter, and the mean" do
    lane = small_song(lanes: [envelope([0, 0.0], [BAR, 1.0], [2 * BAR, 0.0], target: "bass/synth/sub")])
    loss = bake(lane, **all, points_per_lane: 2).losses[0].to_record(lane)
    expect(loss.slice("points", "largest", "unit", "position", "largest_text")).to eq("points" => 2, "largest" => 100.0, "unit" => "%", "position" => "2.1.0",
                                                                                      "largest_text" => "100 %")
    expect(loss["mean"]).to be_within(0.1).of(100 * 2 * BAR / 2 / lane.length_ticks.to_f)
    gone = bake(song, **all, track_ids: ["master"]).losses
    expect(gone.map(&:why).uniq).to eq ["left out: its track does not go along"]
  end

  it "keeps the tempo at one, or its moves as a lane" do
    glide = apply(song, "glide_tempo", from_tick: 0, to_tick: 4 * BAR, from_bpm: 90, to_bpm: 150, shape: "curved", curve: 0.5).song
    one = bake(glide, one_tempo: true)
    expect([one.song.bpm, one.song.tempo.bpm_at(5 * BAR),
            one.losses[-1].largest]).to match [be_within(1e-9).of(90), be_within(1e-9).of(90), be_within(1e-6).of(60)]
    lane = bake(glide, **all).song
    (0...(8 * BAR)).step(333) { |tick| expect(lane.tempo.bpm_at(tick)).to be_within(0.4).of(glide.tempo.bpm_at(tick)) }
  end

  it "refuses limits that nothing fits into, where they stand" do
    expect(faults { limits(points_per_lane: 1) }).to eq [["out_of_range", "/points_per_lane"]]
    expect(faults { limits(points_per_second: 0) }).to eq [["out_of_range", "/points_per_second"]]
    expect(faults { limits(bits: 8) }).to eq [["out_of_range", "/bits"]]
    expect(faults { limits(track_ids: []) }).to eq [["no_tracks", "/track_ids"]]
    expect(faults { bake(song, track_ids: ["none"]) }).to eq [["unknown_track", "/track_id"]]
  end

  Seeds.list(40).each do |seed|
    it "holds for a random song: what is lost is what is told, documents come back the same (seed #{seed})" do
      wild = RandomSongs.new(seed).song
      random = Random.new(seed)
      given = [{ **all }, { **all, bits: 7 }, { **all, points_per_lane: 12 }, { **all, points_per_second: 4.0, bits: 14 }, { set_only: true }].sample(random:)
      baked = bake(wild, **given)
      expect(KindSatchel::Document.load(JSON.parse(JSON.generate(KindSatchel::Document.dump(baked.song))))).to eq baked.song
      ticks = Array.new(120) { |i| 5 + (i * wild.length_ticks / 121) + random.rand(20) }.flat_map { |tick| [tick - 1, tick, tick + 1] }
      baked.losses.reject { |loss| loss.address.song? }.each do |loss|
        scale = wild.parameter(loss.address).scale
        sides = [wild, baked.song].map { |one| KindSatchel::Heard::Resolver.new(one, loss.address).at_each(ticks).each_slice(3).to_a }
        sides.transpose.each do |before, after|
          off = (natural(scale, before[1]) - natural(scale, after[1])).abs
          next expect(off).to be < 1e-9 if loss.points.nil?

          expect(off).to be <= loss.largest + room(scale, before) + room(scale, after) + 1e-6
        end
      end
    end
  end

  # How far a course may stray from what is heard at a tick, in the unit: half the tolerance, and what a tick more or less makes of it.
  def room(scale, values)
    ends = [values.min - 0.0005, values.max + 0.0005].map { |value| natural(scale, value.clamp(0.0, 1.0)) }
    scale.steps && values.uniq.size == 1 ? 0.0 : ends[1] - ends[0]
  end

  it "proposes a controller for each parameter, says what clashes, what is none, and what has no finer half" do
    rows = described_class::Controllers.proposed(song)
    expect(rows.map do |row|
      [row.address.to_s, row.number]
    end).to contain_exactly(["bass/synth/cutoff", 74], ["bass/channel/volume", 7], ["bass/channel/mute", 102])
    read = ->(*records) { faults { described_class::Controllers.read(song, records) } }
    one = { "address" => "bass/synth/cutoff", "number" => 20 }
    expect(read.call(one, { "address" => "bass/channel/volume", "number" => 20 })).to eq [["clash", "/controllers/1/number"]]
    expect(read.call(one.merge("number" => 20, "bits" => 14),
{ "address" => "bass/channel/volume", "number" => 52 })).to eq [["clash", "/controllers/1/number"]]
    expect(read.call(one.merge("bits" => 14, "number" => 74))).to eq [["no_fine_half", "/controllers/0/bits"]]
    expect(read.call(one.merge("number" => 120), one.merge("address" => "bass/none/x"))).to eq [["out_of_range", "/controllers/0/number"],
                                                                                                ["unknown_device", "/controllers/1"]]
    many = %w[synth/cutoff channel/volume].map { |name| "bass/#{name}" }
    expect(described_class::Controllers.proposed(song, rows.first(1)).size).to eq many.size + 1
  end

  # Source: numpy.genfromtxt reads the file; numpy.interp goes between its points.
  it "writes tables that numpy reads as what is heard" do
    lines = described_class::Table.samples(song, song.sounded, 0, 2 * BAR, 120).to_a.join
    script = "import sys,json,numpy as np\nt=np.genfromtxt(sys.stdin,delimiter=',',skip_header=1)\nprint(json.dumps(t.tolist()))"
    out, status = Open3.capture2("/usr/bin/python3", "-c", script, stdin_data: lines)
    expect(status).to be_success
    read = JSON.parse(out)
    expect([read.size, read[0].size]).to eq [64, song.sounded.size + 2]
    place = lines.lines.first.chomp.split(",").index("bass/synth/cutoff")
    scale = song.parameter(address("bass/synth/cutoff")).scale
    read.each { |row| expect(row[place]).to be_within(1e-6).of(scale.natural(heard(song, "bass/synth/cutoff", row[0].to_i))) }
    points = described_class::Table.points(song, [address("bass/synth/cutoff")], 0, 2 * BAR).to_a.join
    between = "import sys,json,numpy as np\nt=np.genfromtxt(sys.stdin,delimiter=',',skip_header=1,usecols=(2,4))\n" \
              "print(json.dumps(np.interp(np.arange(7,3800,53),t[:,0],t[:,1]).tolist()))"
    values = JSON.parse(Open3.capture2("/usr/bin/python3", "-c", between, stdin_data: points)[0])
    values.zip((7...3800).step(53)) { |value, tick| expect(value).to be_within(0.001).of(heard(song, "bass/synth/cutoff", tick)) }
  end

  it "writes tables that numpy's rules read: the corners of what is heard, and samples" do
    lines = described_class::Table.points(song, song.sounded, 0, 4 * BAR).to_a
    table = CSV.parse(lines.join, headers: true)
    later = table.reverse_each.uniq { |row| row.values_at("address", "tick") }
    expect(later.size).to be > 8
    later.each { |row| expect(row["normalised"].to_f).to be_within(0.002).of(heard(song, row["address"], row["tick"].to_i)) if row["tick"].to_i < 4 * BAR }
    expect(table.map { |row| row["unit"] }.uniq).to contain_exactly("Hz", "dB", "choice")
    samples = CSV.parse(described_class::Table.samples(song, song.sounded, 0, BAR, 240).to_a.join, headers: true)
    expect(samples.map { |row| row["bass/synth/cutoff"].to_f })
      .to eq((0...BAR).step(240).map { |tick| song.parameter(address("bass/synth/cutoff")).scale.natural(heard(song, "bass/synth/cutoff", tick)) })
    expect(faults { described_class::Table.samples(song, song.sounded, 0, 2**28, 1) }).to eq [["too_many", "/step_ticks"]]
  end

  it "writes the points of each envelope as they are drawn, in the time of its clip or of the song" do
    demo = DemoSong.build
    table = CSV.parse(described_class::Table.drawn(demo, demo.automated).to_a.join, headers: true)
    homes = demo.directory.envelopes.each_value.select { |home| demo.parameter?(home.envelope.target) }
    expect(table.size).to eq(homes.sum { |home| home.envelope.points.size })
    own = table.select { |row| row["owner"] == "clip Mooring" && row["address"] == "rope-bass/synth/cutoff" }
    drawn = demo.clip("mooring").envelopes.first
    expect(own.map { |row| row["tick"].to_i }).to eq drawn.points.map(&:tick)
    expect(own[1].to_h.slice("role", "position", "value", "shape")).to eq("role" => "shift", "position" => "2.2.0", "value" => "+42 %", "shape" => "straight")
    expect(own[1]["seconds"].to_f).to be_within(1e-9).of(own[1]["tick"].to_i / 960.0 * 60 / 92)
    lane = table.select { |row| row["owner"] == "track Rope Bass" && row["address"] == "rope-bass/synth/cutoff" }.last
    expect([lane["value"], lane["position"]]).to match [/Hz\z/, demo.meters.text(lane["tick"].to_i)]
  end
end
