# frozen_string_literal: true

RSpec.describe "Fades" do
  let(:volume) { "bass/channel/volume" }
  let(:song) { small_song }
  let(:region) { song.track("bass").regions.first }

  def fade(some, side, length, id = region.id, **more) = apply(some, "fade_region", region_id: id, side:, length:, **more)
  def decibels(some, tick) = some.parameter(address(volume)).scale.natural(heard(some, volume, tick))
  def below(some, tick, start) = decibels(some, start) - decibels(some, tick)
  def moves(some, id = region.id) = some.clip(some.directory.region(id).region.clip_id).envelopes.select { |one| one.target.to_s == volume }

  # Common practice, no source: a fade starts exactly level, lies below the straight line and ends in silence.
  it "fades a region out from what stands there to silence at its end, in a clip of its own" do
    result = fade(song, "out", "1/2")
    faded, finish = result.song, region.end_tick
    expect(result.words).to eq "Line 2: fade out over 1/2"
    expect(result.notices.map(&:text)).to eq ["it is Line 2 now; another region keeps Line"]
    expect(heard(faded, volume, finish - 1920)).to eq heard(song, volume, finish - 1920)
    expect(decibels(faded, finish - 1)).to be < -55
    levels = [480, 960, 1440].map { |ticks| below(faded, finish - 1920 + ticks, finish - 1920) }
    expect(levels).to match [be_within(1).of(8), be_within(1.5).of(17), be_within(6).of(30)]
    amplitudes = (0...1920).step(60).map { |ticks| 10**(-below(faded, finish - 1920 + ticks, finish - 1920) / 20) }
    expect(amplitudes.each_with_index.all? { |one, i| one <= 1 - (i * 60 / 1920.0) + 1e-9 }).to be true
    expect(heard(faded, volume, (6 * BAR) + 1900)).to eq heard(song, volume, (6 * BAR) + 1900)
  end

  it "mirrors a fade in, gives a fade another length, and takes it away again" do
    both = fade(fade(song, "out", 1920).song, "in", 1920).song
    middle = region.start_tick + (region.length_ticks / 2)
    [1, 480, 960, 1900].each do |ticks|
      expect(below(both, region.start_tick + ticks, middle)).to be_within(1e-6).of(below(both, region.end_tick - ticks, middle))
    end
    longer = fade(both, "out", 2880).song
    expect(moves(longer).size).to eq 1
    early, later = region.end_tick - 2880, region.end_tick - 2400
    expect([heard(longer, volume, early), heard(longer, volume, later) < heard(both, volume, later)]).to eq [heard(song, volume, 0), true]
    expect(below(longer, region.start_tick + 480, middle)).to be_within(1e-9).of(below(both, region.start_tick + 480, middle))
    gone = fade(fade(longer, "in", 0).song, "out", 0).song
    expect([moves(gone), fade(both, "out", 0).words]).to eq [[], "Line 2: without its fade out"]
  end

  it "ends two that would lie over each other at the middle of that" do
    whole = region.length_ticks
    met = fade(fade(song, "in", whole).song, "out", whole / 2).song
    points = moves(met)[0].points
    expect(points.map { |point| [point.tick, point.value] }).to eq [[0, 0.0], [whole * 3 / 4, 1.0], [whole, 0.0]]
  end

  %w[each_loop once stretched].each do |clock|
    it "multiplies a fade into what scales the volume by its clock #{clock}" do
      pump = envelope([0, 0.9], [BAR / 2, 0.3], [BAR, 0.9], target: volume, role: "scale", clock:)
      before = small_song(clip: [pump])
      faded = fade(before, "out", 2880).song
      reference = fade(song, "out", 2880).song
      expect(moves(faded).map(&:clock)).to eq ["once"]
      gain = song.parameter(address(volume)).scale
      (region.start_tick...region.end_tick).step(97) do |tick|
        share = ->(some) { gain.engine(heard(some, volume, tick)) / gain.engine(heard(song, volume, tick)) }
        expect(share.call(faded)).to be_within(0.003).of(share.call(before) * share.call(reference))
      end
    end
  end

  it "refuses what has no sound, what cannot be read, a move that is off, and says where" do
    carrier = apply(song, "make_carrier", start_tick: 0, length_ticks: BAR).song
    id = carrier.tracks.find { |track| track.kind == "carrier" }.regions.first.id
    expect(faults { fade(carrier, "out", 960, id) }).to eq [["no_sound", "/region_id"]]
    expect(faults { fade(song, "out", "soon") }).to eq [["bad_length", "/length"]]
    expect(faults { fade(small_song(clip: [envelope([0, 0.5], target: volume, role: "scale", on: false)]), "in", 960) }).to eq [["off", "/region_id"]]
    expect(fade(song, "out", 90 * BAR).song.then { |one| moves(one)[0].points.map(&:tick) }).to eq [0, region.length_ticks]
  end

  # The decibels that a bend of -0.15 gives on the law of a fader, 40 log10: 8, 18 and 33 below at each quarter.
  it "bends every fade of a lane alike, and those of the satchel" do
    laned = small_song(lanes: [envelope([0, 0.7], [8 * BAR, 0.7], id: "l1", target: volume)])
    out = apply(laned, "fade", envelope_id: "l1", from_tick: 4 * BAR, to_tick: 8 * BAR, direction: "out").song
    expect([1, 2, 3].map { |quarter| below(out, (4 + quarter) * BAR, 4 * BAR).round }).to eq [8, 18, 33]
    into = apply(laned, "fade", envelope_id: "l1", from_tick: 0, to_tick: 4 * BAR, direction: "in").song
    expect([3, 2, 1].map { |quarter| below(into, quarter * BAR, 4 * BAR).round }).to eq [8, 18, 33]
    moves = JSON.parse(File.read(File.expand_path("../../db/moves.json", __dir__))).select { |one| ["Ebb out", "Flood in"].include?(one["name"]) }
    expect(moves.map { |one| one["points"][0][2] }).to eq [-0.15, 0.15]
  end
end
