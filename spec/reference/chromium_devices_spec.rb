# frozen_string_literal: true

require "open3"

# The devices as Chromium's OfflineAudioContext renders them, through the very code that plays them, against outside sources.
RSpec.describe "The sound of devices" do
  before { page.visit("/") }

  rate = 48_000
  # Dials come to rest before a signal starts.
  settle = 0.25

  # Renders a signal through a device. `dials` are in the engine's units; `signal` is an expression of seconds t for each side.
  # `block` samples are told as the sum of their squares; both sides only where they differ.
  define_method(:render) do |type, dials, seconds:, left:, right: nil, block: 0, mono: false|
    made = page.evaluate_async_script(<<~JS, type, dials, seconds, rate, settle, block, mono ? 1 : 2)
      const [type, dials, seconds, rate, settle, block, wide, done] = arguments;
      (async () => {
        const { DEVICE_SOUNDS, loadWorklets, studioIn } = await import("/assets/devices.js");
        const context = new OfflineAudioContext(2, Math.ceil((seconds + settle) * rate), rate);
        await loadWorklets(context);
        const device = DEVICE_SOUNDS[type](studioIn(context));
        for (const [name, value] of Object.entries(dials)) device.dials[name].rest(value, 0);
        // The package behind some comes by itself.
        await device.ready;
        const buffer = new AudioBuffer({ length: Math.ceil(seconds * rate), sampleRate: rate, numberOfChannels: wide });
        const sides = [(t) => #{left}, (t) => #{right || left}];
        sides.slice(0, wide).forEach((side, channel) => buffer.getChannelData(channel).forEach((_, i, all) => { all[i] = side(i / rate); }));
        const source = new AudioBufferSourceNode(context, { buffer });
        source.connect(device.input);
        device.output.connect(context.destination);
        source.start(settle);
        const made = await context.startRendering();
        const first = Math.round(settle * rate);
        done(#{right ? '[0, 1]' : '[0]'}.map((channel) => {
          const samples = made.getChannelData(Math.min(channel, made.numberOfChannels - 1)).slice(first);
          if (!block) return Array.from(samples);
          return Array.from({ length: Math.floor(samples.length / block) },
                            (_, i) => samples.subarray(i * block, (i + 1) * block).reduce((sum, one) => sum + one * one, 0));
        }));
      })().catch((error) => done(String(error)));
    JS
    made.is_a?(String) ? raise(made) : made
  end

  impulse = "(t === 0 ? 1 : 0)"
  # What the pitch shifter keeps back, in samples.
  define_method(:shift_latency) { (0.15 * rate).round }

  def python(script, data)
    out, err, status = Open3.capture3("/usr/bin/python3", "-c", "import json,sys,numpy as np\ndata=json.load(sys.stdin)\n#{script}\n",
                                      stdin_data: JSON.generate(data))
    status.success? ? JSON.parse(out) : raise(err)
  end

  # Decibels at some frequencies of an impulse response (scipy.signal.freqz of it as a finite filter).
  define_method(:response) do |samples, frequencies|
    python("import scipy.signal as s\nw,h=s.freqz(data['h'],worN=data['f'],fs=#{rate})\nprint(json.dumps(list(20*np.log10(np.abs(h)+1e-9))))",
{ h: samples, f: frequencies })
  end

  # The Audio EQ Cookbook (R. Bristow-Johnson), which the Web Audio API names as the source of its filters, put into scipy.signal.freqz.
  define_method(:cookbook) do |bands, frequencies|
    python(<<~PYTHON, { bands:, f: frequencies })
      import scipy.signal as s
      total=np.ones(len(data['f']),dtype=complex)
      for kind,f0,q,gain in data['bands']:
        w=2*np.pi*f0/#{rate}; A=10**(gain/40); c=np.cos(w); sn=np.sin(w)
        if kind in('lowpass','highpass'): q=10**(q/20)
        a=sn/(2*q)
        sh=sn/2*np.sqrt(2); r=2*np.sqrt(A)*sh
        table={'lowpass':([(1-c)/2,1-c,(1-c)/2],[1+a,-2*c,1-a]),'highpass':([(1+c)/2,-1-c,(1+c)/2],[1+a,-2*c,1-a]),
               'bandpass':([a,0,-a],[1+a,-2*c,1-a]),'notch':([1,-2*c,1],[1+a,-2*c,1-a]),
               'peaking':([1+a*A,-2*c,1-a*A],[1+a/A,-2*c,1-a/A]),
               'lowshelf':([A*((A+1)-(A-1)*c+r),2*A*((A-1)-(A+1)*c),A*((A+1)-(A-1)*c-r)],[(A+1)+(A-1)*c+r,-2*((A-1)+(A+1)*c),(A+1)+(A-1)*c-r]),
               'highshelf':([A*((A+1)+(A-1)*c+r),-2*A*((A-1)+(A+1)*c),A*((A+1)+(A-1)*c-r)],[(A+1)-(A-1)*c+r,2*((A-1)-(A+1)*c),(A+1)-(A-1)*c-r])}
        b,a_=table[kind]
        total*=s.freqz(b,a_,worN=data['f'],fs=#{rate})[1]
      print(json.dumps(list(20*np.log10(np.abs(total)+1e-9))))
    PYTHON
  end

  places = [60, 120, 250, 500, 900, 1000, 1100, 2000, 4000, 8000, 12_000]

  it "filters in every kind within 0.5 dB of scipy", :long do
    %w[lowpass bandpass notch highpass].each_with_index do |kind, choice|
      heard = response(render("filter", { kind: choice, cutoff: 1000, resonance: 6, bypass: 0 }, seconds: 0.2, left: impulse)[0], places)
      pairs = heard.zip(cookbook([[kind, 1000, 6.0, 0]], places)).select { |_, wanted| wanted > -70 }
      expect(pairs.size).to be > 8
      expect(pairs.map { |one, other| (one - other).abs }.max).to be < 0.5
    end
  end

  it "equalises four bands within 0.5 dB of scipy" do
    dials = { "low" => 6, "low-frequency" => 110, "first-bell" => -9, "first-frequency" => 400, "first-width" => 2, "second-bell" => 5,
              "second-frequency" => 2500, "second-width" => 0.7, "high" => -4, "high-frequency" => 7000, "bypass" => 0 }
    heard = response(render("equaliser", dials, seconds: 0.5, left: impulse)[0], places)
    known = cookbook([["lowshelf", 110, 1, 6], ["peaking", 400, 2, -9], ["peaking", 2500, 0.7, 5], ["highshelf", 7000, 1, -4]], places)
    expect(heard.zip(known).map { |a, b| (a - b).abs }.max).to be < 0.5
  end

  # Source: the static curve of a compressor, y = T + (x - T) / R above the threshold T (common practice), away from its knee.
  it "compresses along its static curve" do
    dials = { threshold: -20, ratio: 4, attack: 0.002, release: 0.4, makeup: 0, bypass: 0 }
    [[-40, -40], [-12, -18], [-4, -16], [0, -15]].each do |input, output|
      samples = render("compressor", dials, seconds: 0.3, left: "#{10**(input / 20.0)} * Math.sin(2 * Math.PI * 1000 * t)")[0]
      expect(20 * Math.log10(samples.last(4800).max)).to be_within(0.6).of(output)
    end
  end

  # Source: reverberation time as ISO 3382 has it: the slope of the backward integral (Schroeder) from -5 to -35 dB, times two.
  it "dies away in the time it says, within a tenth" do
    [0.6, 2.0, 5.0].each do |length|
      samples = render("reverb", { length:, predelay: 0.001, tone: 18_000, mix: 1, bypass: 0 }, seconds: [length, 1.5].max, left: impulse, block: 240)[0]
      slope = python(<<~PYTHON, samples)
        e=np.cumsum(np.array(data)[::-1])[::-1]; d=10*np.log10(e/e[0]+1e-12)
        i=np.argmax(d<-5); j=np.argmax(d<-35) or len(d)-1
        print(json.dumps(float((j-i)*240/#{rate}*60/(d[i]-d[j]))))
      PYTHON
      expect(slope).to be_within(0.1 * length).of(length)
    end
  end

  # Source: middle and sides, (l + r) / 2 and (l - r) / 2 (common practice).
  it "widens by the sides alone" do
    one, other = "Math.sin(2 * Math.PI * 500 * t)", "0.25 * Math.sin(2 * Math.PI * 500 * t)"
    { 0 => [0.625, 0.625], 1 => [1, 0.25], 2 => [1.375, -0.125] }.each do |width, (left, right)|
      sides = render("stereo-width", { width:, bypass: 0 }, seconds: 0.1, left: one, right: other)
      at = ((0.0005 + 0.04) * rate).round
      expect(sides.map { |samples| samples[at] }).to match [be_within(1e-3).of(left), be_within(1e-3).of(right)]
    end
  end

  it "reduces to as many steps as bits say" do
    samples = render("bit-reducer", { bits: 3, rate: rate, mix: 1, bypass: 0 }, seconds: 0.1, left: "Math.sin(2 * Math.PI * 100 * t)")[0]
    levels = samples.drop(100).map { |sample| (sample * 4).round(3) }.uniq
    expect(levels).to all(satisfy { |level| (level - level.round).abs < 0.01 })
    expect(levels.size).to eq 9
  end

  # Source: twelve-tone equal temperament, A4 = note 69 = 440 Hz (MIDI Tuning); a bend of b semitones is a factor of 2^(b/12).
  it "bends every instrument's pitch, continuously" do
    [0, 7.5, -12].each do |bend|
      crossings = page.evaluate_async_script(<<~JS, bend, rate)
        const [bend, rate, done] = arguments;
        (async () => {
          const { DEVICE_SOUNDS, studioIn } = await import("/assets/devices.js");
          const context = new OfflineAudioContext(1, rate, rate);
          const device = DEVICE_SOUNDS.pluck(studioIn(context));
          for (const [name, value] of Object.entries({ bend, strike: 0, ring: 6, partial: 3, pitch: 0, fine: 0 })) device.dials[name].rest(value, 0);
          device.output.connect(context.destination);
          device.play({ at: 0.3, until: 1, late: 0, songSeconds: 0, pitch: 69, velocity: 127 });
          const samples = (await context.startRendering()).getChannelData(0).slice(0.45 * rate, 0.95 * rate);
          done(samples.reduce((count, sample, i) => count + (i > 0 && samples[i - 1] < 0 && sample >= 0 ? 1 : 0), 0));
        })();
      JS
      expect(crossings / 0.5).to be_within(3).of(440 * (2**(bend / 12.0)))
    end
  end

  it "leaves the sound as it is to -90 dB where a device is passed by" do
    tone = "0.5 * Math.sin(2 * Math.PI * 440 * t)"
    known = (0...2400).map { |i| 0.5 * Math.sin(2 * Math::PI * 440 * i / rate) }
    types = %w[filter equaliser drive chorus phaser compressor bit-reducer tremolo step-gate stereo-width gain delay reverb pitch-shift]
    expect(KindSatchel::Devices::TYPES.select { |_, type| type.role == "effect" }.map(&:first)).to match_array types
    types.each do |type|
      late = type == "pitch-shift" ? shift_latency : 0
      samples = render(type, { bypass: 1 }, seconds: 0.05 + late.fdiv(rate), left: tone)[0].drop(late).first(2400)
      expect(samples.zip(known).map { |one, other| (one - other).abs }.max).to be < 0.5 * (10**(-90 / 20.0)), type
    end
  end

  # A clip's own effects on a track of one instrument: an attenuation whose gate is open from second 1 to 2. Tells the level in
  # decibels before, in, and after.
  define_method(:through_clip) do |type, start|
    dials = KindSatchel::Devices::TYPES.fetch(type).parameters.to_h { |id, parameter| [id, parameter.scale.engine(parameter.default)] }
    made = page.evaluate_async_script(<<~JS, type, dials, rate)
      const [type, dials, rate, done] = arguments;
      (async () => {
        const { Strip, studioIn } = await import("/assets/devices.js");
        const context = new OfflineAudioContext(1, 3 * rate, rate);
        const strip = new Strip(studioIn(context), "t");
        const clip = { id: "c", devices: [{ id: "gain", type: "gain", values: {}, held: {} }], tails: "ring" };
        strip.follow([{ id: "i", type, values: {}, held: {} }, { id: "channel", type: "channel", values: {}, held: {} }], [clip]);
        const known = new Map(strip.dials());
        for (const [name, value] of Object.entries(dials)) known.get(`t/i/${name}`)?.rest(value, 0);
        known.get("clip-c/gain/level").rest(-12, 0);
        known.get("gate/c").follow([0, 0, 1, 0, 1, 1, 2, 1, 2, 0, 3, 0], 0, 3, 0);
        const buffer = new AudioBuffer({ length: 3 * rate, sampleRate: rate });
        buffer.getChannelData(0).forEach((_, i, all) => { all[i] = Math.sin(i * 0.05); });
        const play = (at, until, through) => strip.instrument.play({ at, until, late: 0, songSeconds: at, pitch: 45, velocity: 100, buffer, into: 0, rate: 1, through });
        #{start}
        strip.output.connect(context.destination);
        const samples = (await context.startRendering()).getChannelData(0);
        const level = (from) => 10 * Math.log10(samples.slice(from * rate, (from + 0.35) * rate).reduce((sum, one) => sum + one * one, 1e-12));
        done([0.5, 1.5, 2.5].map(level));
      })().catch((error) => done(String(error)));
    JS
    made.is_a?(String) ? raise(made) : made
  end

  it "leads a track's notes through the effects of a clip while it sounds, and past them before and after" do
    before, inside, after = through_clip("mono-synth", "play(0, 3);")
    expect([inside - before, after - before]).to match [be_within(0.3).of(-12), be_within(0.3).of(0)]
  end

  it "leads what is recorded in a clip through its effects, and nothing else" do
    before, inside, after = through_clip("loop-player", "play(0, 1); play(1, 2, strip.entry('c')); play(2, 3);")
    expect([inside - before, after - before]).to match [be_within(0.1).of(-12), be_within(0.1).of(0)]
  end

  # Note lengths at half a second a quarter note: an eighth is 12,000 samples at 48 kHz, an eighth triplet 8,000.
  it "comes again after a note length, to the sample" do
    { 0.5 => 12_000, 1 / 3.0 => 8000, 0.75 => 18_000 }.each do |note, samples|
      dials = { note:, "in-notes": 1, feedback: 0.5, tone: 18_000, mix: 1, wet: 1, dry: 1, bypass: 0, sway: 0 }
      made = render("delay", dials, seconds: 0.9, left: impulse)[0]
      first = made.each_index.max_by { |i| made[i].abs }
      second = made.each_index.drop(samples + 5000).max_by { |i| made[i].abs }
      # The tone filter by itself keeps back a fraction of a sample each time.
      expect([first, second]).to match [samples, be_within(2).of(2 * samples)]
    end
  end

  it "has a level each for what went in and what comes again" do
    dials = { time: 0.1, feedback: 0, tone: 18_000, mix: 0.5, bypass: 0 }
    made = [{ dry: 1, wet: 0 }, { dry: 0.5, wet: 1 }].map { |levels| render("delay", { **dials, **levels }, seconds: 0.2, left: impulse)[0] }
    expect([made[0][0], made[0].drop(4000).map(&:abs).max, made[1][0], made[1].drop(4000).map(&:abs).max])
      .to match [be_within(1e-3).of(0.5), be < 1e-4, be_within(1e-3).of(0.25), be > 0.2]
  end

  it "lets through what steps say, as deep as is said" do
    [[1, 0.25], [0.5, 0.625]].each do |depth, left|
      made = render("step-gate", { steps: 0.25, depth:, soft: 0.005, bypass: 0 }, seconds: 0.05, left: "1")[0]
      expect(made[2000]).to be_within(1e-3).of(left)
    end
  end

  # W3C Web Audio API 1.0, StereoPannerNode for one channel: x = (pan + 1) / 2, left cos(x pi/2), right sin(x pi/2).
  it "pans what has one side with equal power" do
    [-1, -0.4, 0, 0.7].each do |place|
      sides = render("tremolo", { level: 1, depth: 0, place:, width: 1, bypass: 0 }, seconds: 0.02, left: "1", right: "1", mono: true)
      angle = (place + 1) / 2.0 * Math::PI / 2
      expect(sides.map { |samples| samples[500] }).to match [be_within(1e-3).of(Math.cos(angle)), be_within(1e-3).of(Math.sin(angle))]
    end
  end

  # An octave up is twice the frequency (twelve-tone equal temperament); measured by the largest peak of numpy's FFT.
  it "shifts pitch at the same pace" do
    made = render("pitch-shift", { pitch: 12, tonality: 18_000, mix: 1, bypass: 0 }, seconds: 1.2, left: "0.5 * Math.sin(2 * Math.PI * 330 * t)")[0]
    peak = python("x=np.array(data['x']);s=np.abs(np.fft.rfft(x*np.hanning(len(x))));print(json.dumps(float(np.argmax(s)*#{rate}/len(x))))",
{ x: made.drop(20_000).first(32_768) })
    expect(peak).to be_within(3).of(660)
  end

  # What a channel of the master gives to a limiter, rendered: the greatest sample, and the first samples after `late`.
  define_method(:limited) do |ceiling, on, signal|
    page.evaluate_async_script(<<~JS, ceiling, on, rate)
      const [ceiling, on, rate, done] = arguments;
      (async () => {
        const { Limiter, loadWorklets } = await import("/assets/devices.js");
        const context = new OfflineAudioContext(2, rate, rate);
        await loadWorklets(context);
        const limiter = new Limiter(context);
        for (const [name, dial] of limiter.dials) dial.rest(name === "limiter" ? on : ceiling, 0);
        const buffer = new AudioBuffer({ length: rate / 2, sampleRate: rate, numberOfChannels: 2 });
        for (const side of [0, 1]) buffer.getChannelData(side).forEach((_, i, all) => { const t = i / rate; all[i] = #{signal}; });
        const source = new AudioBufferSourceNode(context, { buffer });
        source.connect(limiter.input);
        limiter.output.connect(context.destination);
        source.start(0.25);
        const samples = Array.from((await context.startRendering()).getChannelData(0));
        done([Math.max(...samples.map(Math.abs)), samples.slice(Math.round((0.25 + limiter.latency) * rate)).slice(0, 4800)]);
      })().catch((error) => done([String(error), []]));
    JS
  end

  it "lets no sample above the ceiling, and leaves what is quieter as it is; switched off it leaves everything" do
    loud = "4 * Math.sin(2 * Math.PI * 97 * t) * (Math.sin(t * 40) > 0.6 ? 1 : 0.1) + (i % 4799 === 0 ? 3 : 0)"
    expect(limited(-1, 1, loud)[0]).to be_between(0.6, (10**(-1 / 20.0)) + 1e-4)
    quiet = "0.5 * Math.sin(2 * Math.PI * 440 * t)"
    known = (0...4800).map { |i| 0.5 * Math.sin(2 * Math::PI * 440 * i / rate) }
    expect([[1, quiet], [0, quiet]].map { |on, signal| limited(-1, on, signal)[1].zip(known).map { |a, b| (a - b).abs }.max }).to all(be < 1e-5)
    expect(limited(-1, 0, loud)[0]).to be > 3.9
  end

  # Hits of two parts of the kit: when the second chokes the first, it falls silent.
  define_method(:kit_level) do |choke|
    page.evaluate_async_script(<<~JS, choke, rate)
      const [choke, rate, done] = arguments;
      (async () => {
        const { DEVICE_SOUNDS, studioIn } = await import("/assets/devices.js");
        const context = new OfflineAudioContext(1, rate, rate);
        const buffer = new AudioBuffer({ length: rate, sampleRate: rate });
        buffer.getChannelData(0).fill(0.5);
        const kit = DEVICE_SOUNDS["drum-kit"](studioIn(context, buffer));
        for (const part of ["hat", "open-hat"])
          for (const [name, value] of Object.entries({ choke, cutoff: 18000, resonance: 0, pan: 0, tune: 0, decay: 3, level: part === "hat" ? 0 : 1 }))
            kit.dials[`${part}-${name}`].rest(value, 0);
        kit.dials.decay.rest(3, 0);
        kit.output.connect(context.destination);
        const hit = (at, pitch) => kit.play({ at, until: 1, late: 0, songSeconds: at, pitch, velocity: 127 });
        hit(0.3, 46);
        hit(0.6, 42);
        done((await context.startRendering()).getChannelData(0)[Math.round(0.75 * rate)]);
      })().catch((error) => done(String(error)));
    JS
  end

  it "lets parts of one choke group break each other off, and others ring" do
    expect([kit_level(0), kit_level(1)]).to match [be > 0.2, be < 0.001]
  end

  # A sampler's sound begins at a ramp from 0 to 1 over a second, so what is heard says from where it was read.
  it "plays a sound from its start at its root, and twice as fast an octave above" do
    [[60, 0.25, 0.35], [72, 0.25, 0.45], [60, 0.5, 0.6]].each do |pitch, start, heard|
      made = page.evaluate_async_script(<<~JS, pitch, start, rate)
        const [pitch, start, rate, done] = arguments;
        (async () => {
          const { DEVICE_SOUNDS, studioIn } = await import("/assets/devices.js");
          const context = new OfflineAudioContext(1, rate / 2, rate);
          const buffer = new AudioBuffer({ length: rate, sampleRate: rate });
          buffer.getChannelData(0).forEach((_, i, all) => { all[i] = i / rate; });
          const sampler = DEVICE_SOUNDS.sampler(studioIn(context, buffer));
          sampler.hold({ id: "s", type: "sampler", values: {}, held: {}, sound: "any" });
          const dials = { root: 60, start, end: 1, loop: 0, "loop-start": 0, attack: 0.001, sustain: 1, decay: 0.1, cutoff: 18000, resonance: 0, level: 1, pitch: 0, fine: 0, bend: 0 };
          for (const [name, value] of Object.entries(dials)) sampler.dials[name].rest(value, 0);
          sampler.output.connect(context.destination);
          sampler.play({ at: 0.3, until: 1, late: 0, songSeconds: 0, pitch, velocity: 127 });
          done((await context.startRendering()).getChannelData(0)[Math.round(0.4 * rate)]);
        })().catch((error) => done(String(error)));
      JS
      expect(made).to be_within(0.01).of(heard)
    end
  end
end
