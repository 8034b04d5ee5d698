# frozen_string_literal: true

require "open3"
require "tmpdir"
require "wavefile"
require_relative "../../app/wave_head"
require_relative "../../app/wave_outline"

# What is read of WAV files, against sox, which writes them; and tempos guessed from click tracks of known tempo.
RSpec.describe "WAV files" do
  def sox(*words)
    out, status = Open3.capture2e("sox", *words)
    status.success? ? out : raise(out)
  end

  def outline(path) = WaveOutline.new(path, WaveHead.new(path)).to_record
  def near(values, goal) = values.map { |value| (value - goal).abs }.max

  # Source: sox stat, whose RMS amplitude is the root of the mean square of all samples.
  it "is as loud over its length as sox says" do
    Dir.mktmpdir do |folder|
      path = File.join(folder, "swell.wav")
      sox("-n", "-r", "44100", "-c", "1", path, "synth", "3", "pinknoise", "fade", "q", "2", "3", "0.5")
      energy = outline(path)["energy"]
      expect(Math.sqrt(energy.sum / energy.size)).to be_within(0.002).of(sox(path, "-n", "stat")[/RMS\s+amplitude:\s+([\d.]+)/, 1].to_f)
    end
  end

  encodings = { "unsigned" => "unsigned-integer", "signed" => "signed-integer", "float" => "floating-point" }

  # A tone of half amplitude: its peaks are at 127.5 of 255, its mean square is 1/8.
  [%w[8 unsigned], %w[16 signed], %w[24 signed], %w[32 signed], %w[32 float], %w[64 float]].each do |bits, coding|
    it "reads #{bits} bits #{coding}, one channel or two, at every rate" do
      Dir.mktmpdir do |folder|
        path = File.join(folder, "tone.wav")
        %w[1 2].product(%w[8000 44100 48000 96000]).each do |channels, rate|
          sox("-n", "-r", rate, "-c", channels, "-b", bits, "-e", encodings.fetch(coding), path, "synth", "1", "sine", "1000", "vol", "0.5")
          found = outline(path)
          expect([found["peaks"].size, near(found["peaks"], 127.5), near(found["energy"], 0.125)]).to match [be_within(1).of(100), be < 2.5, be < 0.004]
        end
      end
    end
  end

  it "says of a noise what sox says of it" do
    Dir.mktmpdir do |folder|
      path = File.join(folder, "noise.wav")
      sox("-R", "-n", "-r", "44100", "-c", "1", "-b", "24", path, "synth", "2", "pinknoise", "vol", "0.7")
      known = sox(path, "-n", "stat")[/RMS\s+amplitude:\s+([\d.]+)/, 1].to_f
      found = outline(path)["energy"]
      expect(Math.sqrt(found.sum / found.size)).to be_within(0.001).of(known)
    end
  end

  [[120, 8], [92, 8], [140, 16], [75, 4], [150, 16]].each do |bpm, beats|
    it "guesses #{bpm} BPM and #{beats} beats from clicks on them" do
      seconds = beats * 60.0 / bpm
      energy = Array.new((seconds * 100).round) { |i| ((i / 100.0 * bpm / 60) % 1) < 0.02 ? 0.3 : 0.0001 }
      guess = KindSatchel::Follow::TempoGuess.new(energy, 0.01, seconds)
      expect([guess.beats, guess.bpm]).to match [beats, be_within(0.5).of(bpm)]
    end
  end
end
