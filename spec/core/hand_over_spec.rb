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
            one.losses[-1].largest]).to match [be_within(1e-9).of(90), be_within(1e-9).of(90), be_between(60, 60.05)]
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

  # What is heard of two songs at places on ticks and between, but for those between a jump and the next tick: pairs of values.
  def readings(songs, address, places)
    resolvers = songs.map { |one| KindSatchel::Heard::Resolver.new(one, address) }
    finish = [places.max.ceil, 1].max + 1
    lists = resolvers.map { |one| one.pieces(0, finish) }
    jumps = lists.flat_map { |list| jumps(list) }.group_by(&:floor).transform_values(&:min)
    places.reject { |place| !place.is_a?(Integer) && jumps.key?(place.floor) && place >= jumps[place.floor] }
          .map { |place| [place, *lists.map { |list| list.bsearch { |piece| piece.to > place }.at(place) }] }
  end

  # Where between two ticks a value jumps, and where it steps.
  def jumps(pieces)
    between = pieces.each_cons(2).select { |one, two| one.to != one.to.floor && (one.at(one.to) - two.at(two.from)).abs > 1e-9 }.map { |one,| one.to }
    pieces[0].scale.steps ? between + pieces.reject(&:still?).flat_map { |piece| (piece.from.floor..piece.to.ceil).to_a } : between
  end

  # Largest difference found, in the unit, and the largest that may be told for it.
  def found(songs, loss, places)
    scale = songs[0].parameter(loss.address).scale
    near = (-128..128).map { |i| loss.tick + (i/32r) }.select { |place| place.between?(0, songs[0].length_ticks) }
    near = near.map { |place| place == place.to_i ? place.to_i : place.to_f }
    read = readings(songs, loss.address, (places + near).uniq.sort)
    largest = read.map { |_, before, after| (natural(scale, before) - natural(scale, after)).abs }.max
    travel = read.map { |_, before,| natural(scale, (before + 0.0005).clamp(0, 1)) - natural(scale, (before - 0.0005).clamp(0, 1)) }.max
    [largest, [1.5 * largest, travel, scale.gain? ? 0.05 : 0].max]
  end

  def places(song, random, count)
    Array.new(count) { random.rand(song.length_ticks) }.flat_map { |tick| [tick, tick + 0.5, tick + random.rand] }.sort
  end

  Seeds.list(20, long: 200).each do |seed|
    it "holds for a random song: what is lost is what is told, on ticks and between, and hardly less; documents come back the same (seed #{seed})" do
      wild = RandomSongs.new(seed).song
      random = Random.new(seed)
      given = [{ **all }, { **all, bits: 7 }, { **all, points_per_lane: 12 }, { **all, points_per_second: 4.0, bits: 14 }, { set_only: true }].sample(random:)
      baked = bake(wild, **given)
      expect(KindSatchel::Document.load(JSON.parse(JSON.generate(KindSatchel::Document.dump(baked.song))))).to eq baked.song
      baked.losses.reject { |loss| loss.address.song? }.each do |loss|
        largest, most = found([wild, baked.song], loss, places(wild, random, 150))
        expect(loss.largest).to be_between(largest - 1e-6, loss.points ? most + 1e-6 : 1e-9), "#{loss.address} at #{loss.tick}: #{largest}"
      end
    end
  end

  # A sine of so many ticks a cycle on a volume that comes to silence: the places it may be off most lie between ticks.
  [60, 30, 31.7, 240].each do |cycle_ticks|
    it "notices what a fast wave into silence loses (#{cycle_ticks} ticks a cycle), and the mean of it" do
      fast = Faults.song("hand_over_fast_lfo")
      clip = fast.clip("c")
      move = clip.envelopes[0].with(source: clip.envelopes[0].source.with(cycle_ticks:))
      fast = fast.with_clip(clip.with(envelopes: [move]))
      baked = bake(fast, **all)
      loss = baked.losses[0]
      dense = (0...(3839 * 8)).map { |i| (i % 8).zero? ? i / 8 : i / 8.0 }
      read = readings([fast, baked.song], loss.address, dense)
      scale = fast.parameter(loss.address).scale
      off = read.map { |_, before, after| (natural(scale, before) - natural(scale, after)).abs }
      expect(loss.largest).to be_between(off.max, [1.5 * off.max, 0.05].max)
      expect(loss.mean).to be_within(0.05 * off.sum / off.size).of(off.sum / off.size)
    end
  end

  it "counts what lies inside a stretch whose ends agree, and integrates the mean of a bow and of what crosses" do
    bow = small_song(lanes: [envelope([0, 0.2, 0.9], [4 * BAR, 0.8], target: "bass/synth/cutoff")])
    baked = bake(bow, **all, points_per_lane: 2)
    loss = baked.losses[0]
    scale = bow.parameter(loss.address).scale
    values = [bow, baked.song].map { |one| KindSatchel::Heard::Resolver.new(one, loss.address).at_each((0...bow.length_ticks).step(3).to_a) }
    off = values.transpose.map { |one, other| (scale.natural(one) - scale.natural(other)).abs }
    expect(loss.largest).to be_between(off.max, off.max * 1.02)
    expect(loss.mean).to be_within(off.sum / off.size * 0.01).of(off.sum / off.size)
  end

  it "measures lines that end a hair off silence, and below it" do
    volume = "bass/channel/volume"
    silent = song.parameter(address(volume)).scale.normalised(KindSatchel::HandOver::Loss::SILENCE_DB).next_float
    fading = small_song(lanes: [envelope([0, 0.5], [960, silent], [1920, 0.0], [2880, silent], [3840, 0.7], target: volume)])
    loss = bake(fading, **all, points_per_lane: 2).losses[0]
    expect([loss.largest, loss.mean]).to all(be_finite.and(be_positive))
    expect(loss.mean).to be < loss.largest
  end

  it "names each parameter with its device, and tells pans as sides" do
    two = small_song(lanes: [envelope([0, 0.1, 0.6], [BAR, 0.9], target: "bass/channel/pan", id: "p"), envelope([0, 0.1, 0.6], [BAR, 0.9], id: "c")])
    records = bake(two, **all, points_per_lane: 2).losses.map { |loss| loss.to_record(two) }
    expect(records.map { |record| record["name"] }).to eq ["Pan of Bass", "Cutoff of Mono synth on Bass"]
    expect(records[0]["largest_text"]).to match(%r{\AL/R \d})
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

  it "writes no cell that a spreadsheet would work out: whatever the names are, only numbers and amounts begin with a sign" do
    record = JSON.parse(JSON.generate(KindSatchel::Document.dump(DemoSong.build)))
    %w[clips tracks].each { |kind| record[kind].each { |one| one["name"] = "@SUM(1)" } }
    demo = KindSatchel::Document.load(record)
    tables = [described_class::Table.drawn(demo, demo.automated), described_class::Table.points(demo, demo.sounded, 0, BAR),
              described_class::Table.samples(demo, demo.sounded, 0, BAR, 240)]
    cells = tables.flat_map { |table| CSV.parse(table.to_a.join).flatten }.compact
    expect(cells.grep(/=|@/)).to include("clip @SUM(1)")
    expect(cells.grep(/\A[=+\-@\t\r]/).grep_v(/\A[+-](\d+(\.\d+)?(e-?\d+)?|inf)( \S+)?\z/)).to eq []
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
