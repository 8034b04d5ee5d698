# frozen_string_literal: true

require "open3"
require "tmpdir"
require "wavefile"

# What the page measures and writes of a sound, against ITU-R BS.1770-4's own statements, ffmpeg's ebur128, sox and the wavefile gem.
RSpec.describe "Sound that is written" do
  script = <<~JS
    import { readFileSync, writeFileSync } from "node:fs";
    import { build } from "vite";
    const load = async (entry) => {
      const lib = { entry, formats: ["es"] };
      const [{ output }] = await build({ configFile: false, logLevel: "silent", build: { write: false, minify: false, lib } });
      return import(`data:text/javascript,${encodeURIComponent(output[0].code)}`);
    };
    const [{ measure }, { wav }] = await Promise.all(["loudness", "wav"].map((name) => load(`web/src/sound/mixdown/${name}.ts`)));
    const asked = JSON.parse(readFileSync(0, "utf8"));
    const answers = asked.map(({ rate, seconds, channels, bits, path }) => {
      const made = channels.map((tones) => Float32Array.from({ length: Math.round(rate * seconds) }, (_, i) =>
        tones.reduce((sum, [hertz, level, from = 0, to = seconds, phase = 0]) =>
          i >= from * rate && i < to * rate ? sum + level * Math.sin(2 * Math.PI * (hertz * i / rate + phase)) : sum, 0)));
      if (path) writeFileSync(path, Buffer.from(wav(made, rate, bits)));
      return measure(made, rate);
    });
    console.log(JSON.stringify(answers, (_, value) => value === -Infinity ? null : value));
  JS

  define_method(:ask) do |*questions|
    out, err, status = Open3.capture3("node", "--input-type=module", "-e", script, stdin_data: JSON.generate(questions),
                                      chdir: File.expand_path("../..", __dir__))
    status.success? ? JSON.parse(out) : raise(err)
  end

  def tone(level, hertz = 997, **more) = { rate: 48_000, seconds: 5, channels: [[[hertz, level]]], **more }

  # BS.1770-4: a sine of 997 Hz at 0 dBFS in one channel is -3.01 LKFS, at every rate; in both channels 3.01 more, 20 dB softer 20 less.
  # Softer than -70 is not counted, and what lies 10 below the mean is not either.
  it "is measured as the standard says of its own sines, gates and peaks" do
    both = [[[997, 0.1]], [[997, 0.1]]]
    quiet = { rate: 48_000, seconds: 20, channels: [[[997, 0.1, 0, 10], [997, 0.0005, 10, 20]]] }
    levels = ask(tone(1), tone(1, rate: 44_100), tone(1, rate: 96_000), tone(0.1, channels: both), tone(0), quiet).map { |one| one["loudness"] }
    expect(levels[0..2]).to all(be_within(0.02).of(-3.01))
    expect(levels[3]).to be_within(0.02).of(-20)
    expect([levels[4], levels[5]]).to match [nil, be_within(0.1).of(-23.01)]
    # Annex 2: a quarter of the rate at 45 degrees has its samples 3 dB under its peak.
    steep = ask(tone(0.5, channels: [[[12_000, 0.5, 0, 5, 0.125]]]))[0]
    expect(steep["peak_db"]).to be_within(0.01).of(-9.03)
    expect(steep["true_peak_db"]).to be_within(0.2).of(-6.02)
  end

  it "agrees with ffmpeg, sox and the wavefile gem in loudness, peaks, length and values, at every depth" do
    Dir.mktmpdir do |folder|
      tones = [[[110, 0.3], [880, 0.2, 1, 3], [5000, 0.1, 2, 4]], [[220, 0.25], [3000, 0.15, 0.5, 3.5]]]
      files = [[16, 44_100], [24, 48_000], [32, 96_000]].map { |bits, rate| [bits, rate, File.join(folder, "#{bits}.wav")] }
      measured = ask(*files.map { |bits, rate, path| { rate:, seconds: 4, channels: tones, bits:, path: } })
      files.zip(measured).each do |(bits, rate, path), told|
        ebu = Open3.capture2e("ffmpeg", "-nostats", "-hide_banner", "-i", path, "-af", "ebur128=peak=true", "-f", "null", "-")[0]
        expect(told["loudness"]).to be_within(0.1).of(ebu[/Summary.*?I:\s+(-[\d.]+) LUFS/m, 1].to_f)
        expect(told["true_peak_db"]).to be_within(0.25).of(ebu[/Summary.*?Peak:\s+(-?[\d.]+) dBFS/m, 1].to_f)
        stats = Open3.capture2e("sox", path, "-n", "stats")[0]
        expect(told["peak_db"]).to be_within(0.02).of(stats[/Pk lev dB\s+(-?[\d.]+)/, 1].to_f)
        reader = WaveFile::Reader.new(path, WaveFile::Format.new(:stereo, :float, rate))
        frames = reader.read(4 * rate).samples
        expect([frames.size, reader.native_format.bits_per_sample]).to eq [4 * rate, bits]
        off = (0...(4 * rate)).step(997).map do |i|
          (frames[i][1] - tones[1].sum do |hertz, level, from = 0, to = 4|
            i.between?(from * rate, (to * rate) - 1) ? level * Math.sin(2 * Math::PI * hertz * i / rate) : 0
          end).abs
        end
        expect(off.max).to be <= (bits == 32 ? 1e-6 : 1.6 / (1 << (bits - 1)))
      end
    end
  end
end
