# frozen_string_literal: true

require "open3"

# Debian's numpy and scipy as outside references for curves and clocks.
RSpec.describe "Numbers others compute" do
  # Runs a Python script with data as JSON on its input; its output is read as JSON.
  def python(script, data)
    out, err, status = Open3.capture3("/usr/bin/python3", "-c", "import json,sys\ndata=json.load(sys.stdin)\n#{script}\n", stdin_data: JSON.generate(data))
    raise err unless status.success?

    JSON.parse(out)
  end

  # Source: numpy.interp.
  it "straight envelopes agree with numpy.interp, held ends included" do
    random = Random.new(11)
    ticks = Array.new(40) { random.rand(20_000) }.uniq.sort
    values = ticks.map { random.rand }
    probe = Array.new(3000) { random.rand(24_000) }
    move = envelope(*ticks.zip(values))
    theirs = python("import numpy\nprint(json.dumps(list(numpy.interp(data['at'],data['x'],data['y']))))", { at: probe, x: ticks, y: values })
    expect(probe.zip(theirs).map { |tick, value| (move.at(tick) - value).abs }.max).to be < 1e-12
  end

  # Source: scipy.signal.sawtooth with width (a triangle whose peak lies at width; a ramp at 1, a saw at 0) and
  # scipy.signal.square with duty (high for the first part, where ours is low for it).
  it "cycles agree with scipy's waves, away from their jumps" do
    script = "from scipy import signal\nimport numpy\nt=numpy.array(data['t'])*2*numpy.pi\n" \
             "print(json.dumps([list((signal.sawtooth(t,data['skew'])+1)/2), list((signal.sawtooth(t,1)+1)/2), " \
             "list((signal.sawtooth(t,0)+1)/2), list((1-signal.square(t,1-data['skew']))/2), list((1-numpy.cos(t))/2)]))"
    cycles, skew = 5.0, 0.3
    ends = KindSatchel::Shapes::Ends.new(0.0, 1.0, 9600)
    places = (0...400).map { |i| (i + 0.31) / 400 }
    theirs = python(script, { t: places.map { |u| u * cycles }, skew: })
    [["triangle", skew], ["ramp", 0.5], ["saw", 0.5], ["square", skew], ["sine", 0.5]].zip(theirs) do |(wave, bent), values|
      form = shape("cycle", wave:, cycles:, skew: bent)
      expect(places.zip(values).map { |u, value| (KindSatchel::Shapes.value_at(form, ends, u) - value).abs }.max).to be < 1e-9
    end
  end

  # Source: scipy.signal.lfilter as the one-pole filter y += a (x - y), its coefficient from the time constant.
  it "a follower whose attack is its release agrees with scipy's one-pole filter" do
    random = Random.new(9)
    levels = Array.new(5000) { random.rand }
    ours = KindSatchel::Follow::Follower.new(attack: 0.08, release: 0.08).shares(levels, 0.01)
    script = "from scipy import signal\nimport numpy\na=1-numpy.exp(-0.01/0.08)\nprint(json.dumps(list(signal.lfilter([a],[1,a-1],data))))"
    expect(ours.zip(python(script, levels)).map { |one, other| (one - other).abs }.max).to be < 1e-12
  end

  # Source: Ramer-Douglas-Peucker as in shapely's simplify (its distance is across the line, ours along the value; with
  # time in ticks the two are the same to a millionth).
  it "thinning keeps no more points than Ramer-Douglas-Peucker at the same tolerance, and holds the tolerance" do
    random = Random.new(5)
    strokes = Array.new(6) do |i|
      value = 0.5
      Array.new(1500) { |t| [t * 7, value = (value + ((random.rand - 0.5) * 0.01 * (i + 1)) + (Math.sin(t / 90.0) * 0.002)).clamp(0.0, 1.0)] }
    end
    tolerances = [0.004, 0.01, 0.03]
    script = "from shapely.geometry import LineString\n" \
             "print(json.dumps([[len(LineString(s).simplify(t, preserve_topology=False).coords) for t in data['tolerances']] for s in data['strokes']]))"
    theirs = python(script, { strokes:, tolerances: })
    strokes.zip(theirs) do |stroke, counts|
      tolerances.zip(counts) do |tolerance, count|
        kept = KindSatchel::Thinning.keep(stroke.map(&:first), stroke.map(&:last), tolerance)
        line = envelope(*kept.map { |place| stroke[place] })
        expect(kept.size).to be <= count
        expect(stroke.map { |tick, value| (line.at(tick) - value).abs }.max).to be <= tolerance + 1e-9
      end
    end
  end

  # Source: scipy.integrate.quad of 60 / tempo.
  it "the clock agrees with the integral of the tempo" do
    stretches = [[96, 72, 7680], [60, 180, 40_000], [120, 120, 960], [140, 139.9, 100_000]]
    theirs = python(<<~PYTHON, stretches)
      from scipy.integrate import quad
      print(json.dumps([quad(lambda t: 60/960/(a+(b-a)*t/d), 0, d, epsabs=1e-12)[0] for a,b,d in data]))
    PYTHON
    ours = stretches.map do |from, to, ticks|
      points = [[0, from], [ticks, to]].map { |tick, bpm| KindSatchel::Timing::TempoPoint.new(tick:, bpm:, shape: "straight") }
      KindSatchel::Timing::TempoMap.new(points:).seconds_at(ticks)
    end
    expect(ours.zip(theirs).map { |a, b| (a - b).abs }.max).to be < 1e-9
  end

  # Source: MMA recommended practice for controller 7, gain in dB = 40 log10(n); 20 log10 of the amplitude.
  it "the fader follows 40 log10 and meets 20 log10 of its amplitude" do
    scale = KindSatchel::Scales::Fader.new(peak: 1)
    shares = [1, 0.75, 0.5, 0.25, 0.1]
    theirs = python("import numpy\nprint(json.dumps([float(40*numpy.log10(n)) for n in data]))", shares)
    shares.zip(theirs).each do |n, decibels|
      expect(scale.natural(n)).to be_within(1e-9).of(decibels)
      expect(20 * Math.log10(scale.engine(n))).to be_within(1e-9).of(decibels)
    end
  end

  # Source: ISO 266 / IEC 61260 octave-band centres, nominal values from memory: 31.5 Hz doubling to 16 kHz.
  it "octave bands lie equally spaced on a log scale" do
    scale = KindSatchel::Devices::TYPES.fetch("filter").parameter("cutoff").scale
    places = (0..9).map { |i| scale.normalised(1000 * (2.0**(i - 5))) }
    steps = places.each_cons(2).map { |a, b| b - a }
    expect(steps.max - steps.min).to be < 1e-12
  end

  # Source: MIDI Tuning, twelve-tone equal temperament with A4 = note 69 = 440 Hz; note 60 is 261.6256 Hz (from memory).
  it "a shift of an octave on a log scale is twelve equal semitones" do
    scale = KindSatchel::Devices::TYPES.fetch("filter").parameter("cutoff").scale
    semitone = Math.log(2) / 12 / Math.log(scale.ratio)
    expect(scale.natural(scale.shifted(scale.normalised(440), -9 * semitone))).to be_within(1e-3).of(261.6256)
  end

  # Source: music theory, the least common multiple (7 beats over 4 meet after 28), here as Python's math.lcm has it.
  it "an envelope of its own length and its loop meet after their least common multiple" do
    pairs = [[7, 4], [3, 4], [5, 8], [12, 16], [9, 6]]
    theirs = python("import math\nprint(json.dumps([math.lcm(a, b) for a, b in data]))", pairs)
    pairs.zip(theirs).each do |(own, beats), beat|
      song = small_song(clip: [envelope([0, 0.1], [own * 960, 0.9], clock: "own_length", own_length_ticks: own * 960)])
      clip = song.clip("line").with(length_ticks: beats * 960)
      expect(KindSatchel::Clocks.meeting(clip, clip.envelopes.first)).to eq beat * 960
    end
    seven = small_song(clip: [envelope([0, 0.1], [6720, 0.9], clock: "own_length", own_length_ticks: 6720)])
    seven = seven.with_track(seven.track("bass").with(regions: [KindSatchel::Region.fresh(id: "r", clip_id: "line", start_tick: 0, length_ticks: 30 * 960)]))
    starts = (0...30).select { |beat| heard(seven, CUTOFF, beat * 960) == 0.1 }
    expect([starts, starts.select { |beat| (beat % 4).zero? }]).to eq [[0, 7, 14, 21, 28], [0, 28]]
  end

  # Source: arithmetic; that a range limits a move before anything else does is common practice, no source.
  it "a move at half way over a range 20..80 is 50, and the range counts before the limits of the knob" do
    ranged = small_song(clip: [envelope([0, 0.5], [1920, 1.0], target: "bass/synth/sub", limits: [0.2, 0.8])])
    scale = ranged.parameter(address("bass/synth/sub")).scale
    expect(scale.natural(heard(ranged, "bass/synth/sub", BAR))).to be_within(1e-9).of(50)
    expect(scale.natural(heard(ranged, "bass/synth/sub", BAR + 1920))).to be_within(1e-9).of(80)
    shifted = small_song(clip: [envelope([0, 1.0], target: "bass/synth/sub", limits: [0.2, 0.8])], lanes: [])
    lane = envelope([0, 0.9], id: "l1", target: "bass/synth/sub")
    over = shifted.with_clip(shifted.clip("line").with(envelopes: [envelope([0, 1.0], target: "bass/synth/sub", role: "shift", limits: [0.0, 0.05])]))
    over = over.with_track(over.track("bass").with(lanes: [lane]))
    expect([heard(shifted, "bass/synth/sub", BAR), heard(over, "bass/synth/sub", BAR)].map { |value| value.round(9) }).to eq [0.8, 0.95]
  end

  # Common practice, no source: curved fades are preferred to straight ones, and both ends are level with what surrounds them.
  it "a fade is curved, and starts and ends level with what surrounds it" do
    song = small_song(lanes: [envelope([0, 0.7], [8 * BAR, 0.7], id: "l1", target: "bass/channel/volume")])
    faded = apply(song, "fade", envelope_id: "l1", from_tick: 4 * BAR, to_tick: 8 * BAR, direction: "out").song
    volume = ->(tick) { heard(faded, "bass/channel/volume", tick) }
    expect([volume[(4 * BAR) - 1], volume[4 * BAR], volume[8 * BAR]]).to eq [0.7, 0.7, 0.0]
    expect((volume[6 * BAR] - 0.35).abs).to be > 0.02
  end

  # Source: the wave module of Python, an independent reader of RIFF WAVE.
  it "the made sounds are WAV files that another reader reads" do
    folder = File.expand_path("../../sounds", __dir__)
    read = "[[w.getnchannels(),w.getsampwidth(),w.getframerate(),w.getnframes()] for w in [wave.open(p) for p in data]]"
    found = python("import wave\nprint(json.dumps(#{read}))", Dir["#{folder}/*.wav"])
    expect(found.map { |entry| entry.first(3) }.uniq).to eq [[1, 2, 44_100]]
    loop_frames = found[Dir["#{folder}/*.wav"].index { |path| path.end_with?("gull-loop.wav") }].last
    expect(loop_frames).to be_within(1).of(8 * 60.0 / 92 * 44_100)
  end
end
