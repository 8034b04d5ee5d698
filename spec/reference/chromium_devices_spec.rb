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
  define_method(:render) do |type, dials, seconds:, left:, right: nil, block: 0|
    made = page.evaluate_async_script(<<~JS, type, dials, seconds, rate, settle, block)
      const [type, dials, seconds, rate, settle, block, done] = arguments;
      (async () => {
        const { DEVICE_SOUNDS, loadWorklets } = await import("/assets/devices.js");
        const context = new OfflineAudioContext(2, Math.ceil((seconds + settle) * rate), rate);
        await loadWorklets(context);
        const device = DEVICE_SOUNDS[type]({ context, drumSound: () => null });
        for (const [name, value] of Object.entries(dials)) device.dials[name].rest(value, 0);
        const buffer = new AudioBuffer({ length: Math.ceil(seconds * rate), sampleRate: rate, numberOfChannels: 2 });
        const sides = [(t) => #{left}, (t) => #{right || left}];
        sides.forEach((side, channel) => buffer.getChannelData(channel).forEach((_, i, all) => { all[i] = side(i / rate); }));
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

  it "filters in every kind within 0.5 dB of scipy" do
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
          const { DEVICE_SOUNDS } = await import("/assets/devices.js");
          const context = new OfflineAudioContext(1, rate, rate);
          const device = DEVICE_SOUNDS.pluck({ context, drumSound: () => null });
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
    types = %w[filter equaliser drive chorus phaser compressor bit-reducer tremolo stereo-width gain delay reverb]
    expect(KindSatchel::Devices::TYPES.select { |_, type| type.role == "effect" }.map(&:first)).to match_array types
    types.each do |type|
      samples = render(type, { bypass: 1 }, seconds: 0.05, left: tone)[0].first(2400)
      expect(samples.zip(known).map { |one, other| (one - other).abs }.max).to be < 0.5 * (10**(-90 / 20.0)), type
    end
  end
end
