# frozen_string_literal: true

require "open3"

# Loops whose pitch is kept, as the page works them out: length to the sample, pitch by autocorrelation (numpy), beats by their place.
RSpec.describe "Loops with their pitch kept" do
  before { page.visit("/") }

  rate = 48_000

  # Works a pass out. `signal` is an expression of seconds t; `event` what the core says of the pass.
  define_method(:stretched) do |signal, seconds, event|
    made = page.evaluate_async_script(<<~JS, seconds, event, rate)
      const [seconds, event, rate, done] = arguments;
      (async () => {
        const { Stretched } = await import("/assets/devices.js");
        const sound = new AudioBuffer({ length: Math.round(seconds * rate), sampleRate: rate, numberOfChannels: 1 });
        sound.getChannelData(0).forEach((_, i, all) => { const t = i / rate; all[i] = #{signal}; });
        const passes = new Stretched(() => sound);
        await passes.ready([event]);
        const pass = passes.get(event);
        passes.dispose();
        const words = new Uint8Array(pass.getChannelData(0).buffer);
        let text = "";
        for (let i = 0; i < words.length; i += 32768) text += String.fromCharCode(...words.subarray(i, i + 32768));
        done({ samples: btoa(text) });
      })().catch((error) => done({ fault: String(error) }));
    JS
    raise made["fault"] if made["fault"]

    made["samples"].unpack1("m").unpack("e*")
  end

  def event(start:, finish:, into: 0.0, **more)
    { kind: "audio", track_id: "t", region_id: "r", clip_id: "c", sound: "s", stretched: true, start_tick: 0, end_tick: 1,
      start_seconds: start, end_seconds: finish, into_seconds: into, **more }
  end

  def python(script, numbers)
    out, err, status = Open3.capture3("/usr/bin/python3", "-c", "import sys, numpy as np\nx = np.frombuffer(sys.stdin.buffer.read(), dtype='<f4')\n#{script}",
                                      stdin_data: numbers.pack("e*"), binmode: true)
    status.success? ? out.to_f : raise(err)
  end

  # numpy's autocorrelation: the lag of its highest peak between 100 and 1000 Hz, by a parabola through it.
  def pitch(samples)
    python(<<~PYTHON, samples[12_000, 24_000])
      r = np.correlate(x, x, 'full')[len(x) - 1:]
      k = 48 + int(np.argmax(r[48:480]))
      a, b, c = r[k - 1:k + 2]
      print(48000 / (k + (a - c) / (2 * (a - 2 * b + c))))
    PYTHON
  end

  [0.7, 1.0, 1.4].each do |speed|
    it "have their pitch and their length to the sample at #{speed} times the speed" do
      samples = stretched("0.5 * Math.sin(2 * Math.PI * 220 * t)", 4, event(start: 1.0, finish: 1.0 + (4 / speed), rate: speed))
      expect(samples.size).to eq((4 / speed * rate).round)
      expect(pitch(samples)).to be_within(0.5).of(220)
      expect(samples[24_000, 24_000].sum { |one| one * one } / 24_000).to be_within(0.03).of(0.125)
    end
  end

  # Where each short tick of a sound lands: the middle of its energy around the moment at which it should.
  def places(samples, wanted)
    wanted.map do |second|
      middle = (second * 48_000).round
      from = [middle - 2400, 0].max
      part = samples[from, 4800].map { |one| one * one }
      sum = part.sum
      sum < 1e-6 ? nil : (from + (part.each_with_index.sum { |one, i| one * i } / sum)) / 48_000.0
    end
  end

  # A tick of 6 ms at each beat of 120 BPM, its middle on the beat.
  ticks = "(() => { const d = ((t + 0.25) % 0.5) - 0.25; if (Math.abs(d) > 0.003) return 0; " \
          "return Math.sin(2 * Math.PI * 1500 * d) * (1 + Math.cos(Math.PI * d / 0.003)) / 2; })()"

  it "are right within 2 ms at every beat, faster and slower, and begun in their middle" do
    [0.8, 1.25].each do |speed|
      samples = stretched(ticks, 6, event(start: 0.0, finish: 4 / speed, into: 1.0, rate: speed))
      wanted = (1..7).map { |beat| beat * 0.5 / speed }
      expect(places(samples, wanted).zip(wanted).map { |found, second| (found - second).abs }.max).to be < 0.002
    end
  end

  it "are right within 2 ms at every beat while the tempo moves" do
    # From 96 to 144 BPM over 8 beats, straight in ticks: as the core tells it.
    points = [[0, 96, "straight"], [7680, 144, "hold"]].map { |tick, bpm, shape| KindSatchel::Timing::TempoPoint.new(tick:, bpm:, shape:) }
    tempo = KindSatchel::Timing::TempoMap.new(points:)
    rates = KindSatchel::Heard::Beat.tempos(tempo, 0, 7680).flat_map { |second, bpm| [second, bpm / 120] }
    samples = stretched(ticks, 6, event(start: 0.0, finish: tempo.seconds_at(7680), rate: 0.8, rates:))
    wanted = (1..7).map { |beat| tempo.seconds_at(beat * 960) }
    expect(places(samples, wanted).zip(wanted).map { |found, second| (found - second).abs }.max).to be < 0.002
  end

  it "run backwards from where they are told" do
    samples = stretched("0.5 * Math.sin(2 * Math.PI * (t < 2 ? 220 : 330) * t)", 4, event(start: 0.0, finish: 2.0, into: 3.0, rate: 1.0, backwards: true))
    expect(pitch(samples)).to be_within(1).of(330)
    expect(pitch(samples[48_000..])).to be_within(1).of(220)
  end
end
