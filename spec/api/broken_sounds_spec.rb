# frozen_string_literal: true

require "timeout"
require "wavefile"

# Sounds that are not what they say. None of them may hold the server, and nothing of them stays.
RSpec.describe "Broken sounds" do
  # One channel of silence, its head as said.
  def wav(rate: 44_100, channels: 1, block: nil, bits: 16, tag: 1, data: "\0\0" * 100, says: data.bytesize, before: "")
    block ||= channels * bits / 8
    body = "WAVEfmt #{[16, tag, channels, rate, (rate * block) & 0xffffffff, block, bits].pack('VvvVVvv')}#{before}data#{[says].pack('V')}".b + data.b
    "RIFF".b + [body.bytesize].pack("V") + body
  end

  def upload(bytes) = Timeout.timeout(20) { call("POST", "/api/sounds?name=Tone", bytes, "CONTENT_TYPE" => "audio/wav") }
  def refusal(bytes) = upload(bytes)["faults"].map { |fault| fault.values_at("code", "message") }
  def kept = [SoundRow.count, Dir[File.join(app.settings.sounds.folder, "**/*")].count { |path| File.file?(path) }]

  {
    "a rate that no sound has" => [{ rate: 2_130_750_532 }, "bad_rate", "The sample rate at byte 24 is 2130750532 Hz; from 1 to 768 kHz is read."],
    "no rate at all" => [{ rate: 0 }, "bad_rate", "The sample rate at byte 24 is 0 Hz; from 1 to 768 kHz is read."],
    "frames of nothing" => [{ block: 0 }, "broken_sound",
                            "The WAV file is broken: it says at byte 32 that a frame has 0 bytes; 1 channel of 16 bits have 2."],
    "samples of no bits" => [{ bits: 0, block: 0 }, "broken_sound",
                             "The WAV file is broken: it says at byte 32 that a frame has 0 bytes; 1 channel of 0 bits have 0."],
    "more samples than there are" => [{ says: 4_000_000_000 }, "broken_sound",
                                      "The WAV file is broken: its part \"data\" at byte 36 says that it has 4000000000 bytes, and 200 follow."],
    "another part past its end" => [{ before: "LIST#{[1 << 31].pack('V')}".b }, "broken_sound",
                                    "The WAV file is broken: its part \"LIST\" at byte 36 says that it has 2147483648 bytes, and 208 follow."],
    "nine channels" => [{ channels: 9, data: "\0" * 180 }, "too_wide", "The sound has 9 channels; one or two are taken."]
  }.each do |name, (head, code, words)|
    it "are refused before any sound is read: #{name}" do
      before = kept
      expect(refusal(wav(**head))).to eq [[code, words]]
      expect(kept).to eq before
    end
  end

  it "are refused where a sample is no number, or beyond all numbers, and nothing stays" do
    before = kept
    [Float::NAN, Float::INFINITY, -Float::INFINITY].each do |odd|
      samples = Array.new(30_000, 0.25).tap { |list| list[22_050] = odd }
      expect(refusal(wav(tag: 3, bits: 32, data: samples.pack("e*")))).to eq [["no_number", "Sample 22050 of the sound, at 0.5 s, is no number."]]
    end
    wide = Array.new(2_000, 0.5).tap { |list| list[1001] = Float::NAN }
    expect(refusal(wav(tag: 3, bits: 64, channels: 2, data: wide.pack("E*")))).to eq [["no_number", "Sample 500 of the sound, at 0.011 s, is no number."]]
    expect(kept).to eq before
  end

  it "are read at the slowest and the fastest rate, and where their last frame is cut off" do
    slow, fast, cut = [wav(rate: 1_000), wav(rate: 768_000, data: "\1\0" * 20_000), wav(data: "\2\0\3")].map { |bytes| upload(bytes) }
    expect([slow["seconds"], fast["seconds"].round(3), cut["rate"]]).to eq [0.1, 0.026, 44_100]
    expect(get_json("/api/sounds/#{fast['digest']}/outline")["peaks"].size).to eq 2
  end

  it "are no sound where they end in their first bytes" do
    expect((0..44).map { |size| refusal(wav[0, size])[0][0] }.uniq - %w[no_sound broken_sound empty_sound]).to eq []
  end

  # Also what no one thought of: any bytes of the head may be any others.
  it "are answered in words, whatever the bytes of their head" do
    random = Random.new(5)
    whole = wav(data: "\1\2" * 300)
    before = kept
    statuses = Array.new(300) do
      bytes = whole.dup.tap { |text| (1 + random.rand(4)).times { text.setbyte(random.rand(44), random.rand(256)) } }
      upload(bytes[0, random.rand(4).zero? ? random.rand(bytes.size) : bytes.size])
      last_response.status
    end
    expect(statuses.uniq - [201, 422, 415]).to eq []
    expect(statuses).to include(422)
    expect(kept[0] - before[0]).to eq(kept[1] - before[1])
  end
end
