# frozen_string_literal: true

require "zip"

# What is sent, each with where to, as what, and how it is made.
module HostileFiles
  MEGABYTE = 1024 * 1024

  module_function

  # A WAV head that says what is not so: 4 GB of sound in some bytes, or no channels, before so many megabytes.
  def wave(channels:, said:, bits: 16, megabytes: 1)
    frame = channels * bits / 8
    head = ["RIFF", said, "WAVEfmt ", 16, 1, channels, 44_100, 44_100 * frame, frame, bits, "data", said].pack("a4Va8VvvVVvva4V")
    head << ("\x01\x7f".b * (megabytes * MEGABYTE / 2))
  end

  def midi(events)
    track = [0, 0x90, 60, 1].pack("C*") + ([0, 60, 0].pack("C*") * events) + [0, 0xFF, 0x2F, 0].pack("C*")
    ["MThd", 6, 0, 1, 96, "MTrk", track.bytesize].pack("a4Nnnna4N") << track
  end

  # A document that unpacks to so many megabytes of nothing.
  def bomb(megabytes, name)
    Zip::OutputStream.write_buffer do |zip|
      zip.put_next_entry(name)
      megabytes.times { zip.write("0" * MEGABYTE) }
    end.string
  end

  ALL = {
    "a WAV of 190 MB that is sound" => ["/api/sounds?name=x", "audio/wav", -> { wave(channels: 2, said: (190 * MEGABYTE), megabytes: 190) }],
    "a WAV that says 4 GB" => ["/api/sounds?name=x", "audio/wav", -> { wave(channels: 2, said: 0xFFFFFFF0, megabytes: 150) }],
    "a WAV of 60,000 channels" => ["/api/sounds?name=x", "audio/wav", -> { wave(channels: 60_000, said: 4000) }],
    "a WAV cut off in its head" => ["/api/sounds?name=x", "audio/wav", -> { wave(channels: 2, said: 4000)[0, 30] }],
    "a name with slashes" => ["/api/sounds?name=..%2F..%2Fetc%2Fpasswd", "audio/wav", -> { wave(channels: 2, said: 4000)[0, 40] }],
    "a MIDI file of 5 million events" => ["/api/songs/import_midi?name=x", "audio/midi", -> { midi(5_000_000) }],
    "a MIDI file of 150,000 events" => ["/api/songs/import_midi?name=x", "audio/midi", -> { midi(149_000) }],
    "a ZIP whose document is 3 GB" => ["/api/songs/import_packed", "application/zip", -> { bomb(3000, "song.satchel.json") }],
    "a ZIP whose sound is 2 GB" => ["/api/songs/import_packed", "application/zip", -> { bomb(2000, "sounds/#{'a' * 64}.wav") }],
    "a document of 31 MB of brackets" => ["/api/songs/import", "application/json", -> { "[" * (31 * MEGABYTE) }],
    "a document of 31 MB in one list" => ["/api/songs/import", "application/json", -> { "[#{(['0'] * (15 * MEGABYTE)).join(',')}]" }]
  }.freeze
end
