# frozen_string_literal: true

require "midilib"
require "wavefile"

# Files taken in, and edits among many notes.
class FilesBench
  SECONDS = 180
  NOTES = 5000
  RATE = 44_100

  # A song with one clip of many notes.
  def self.notes
    writer = SongWriter.new(name: "Many notes", bpm: 120, range: [0, 64 * 3840])
    writer.track "keys", "Keys", "notes", "madder", devices: { "synth" => ["mono-synth", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    writer.clip "run", "Run", 64, notes: Array.new(NOTES) { |i|
      KindSatchel::Note.new(tick: i * 49, length_ticks: 40, pitch: 36 + (i * 7 % 48), velocity: 90)
    }
    writer.region "keys", "run", 1, 64
    writer.song
  end

  def initialize(server)
    @server = server
  end

  # A stereo file sent, and what is seen of it asked for: whole requests.
  def waveform
    times = Array.new(5) do |i|
      file = wave(220 + i)
      start = Measure.now
      answer = JSON.parse(@server.send_file("/api/sounds?name=long#{i}", file, "audio/wav"))
      raise answer.to_s unless @server.get("/api/sounds/#{answer.fetch('digest')}/outline").include?("peaks")

      (Measure.now - start) * 1000
    end
    Measure.summary(times).merge("bytes" => wave(220).bytesize)
  end

  # A note moved among all of them.
  def preview(id, runs)
    turn = 0
    Measure.milliseconds(runs, warm_up: 30) do
      turn += 1
      place = NOTES / 2
      inputs = { clip_id: "run", runs: [[place, place]], ticks: turn % 20, steps: turn % 5 }
      answer = @server.post("/api/songs/#{id}/preview", { revision: 1, edit: "move_notes", inputs:, heard: [] })
      raise answer if answer.include?('"faults"')
    end
  end

  # MIDI files imported one after the other: memory of the server after some and after all.
  def midi(count)
    file = tune
    memory = Array.new(count) do
      answer = @server.send_file("/api/songs/import_midi?name=Tune", file, "audio/midi")
      raise answer unless answer.include?('"id"')

      @server.memory_mb
    end
    { "files" => count, "mb_after_a_tenth" => memory[count / 10], "mb_after_half" => memory[count / 2], "mb_at_the_end" => memory.last }
  end

  # A MIDI file of a megabyte, with nearly as many events as are read: the whole request.
  def megabyte
    event = ->(status, pitch, velocity) { [0x80, 0x80, 0x78, status, pitch, velocity].pack("C*") }
    events = Array.new(74_000) { |i| event.call(0x90, 36 + (i % 48), 90) + event.call(0x80, 36 + (i % 48), 0) }.join
    events << [0, 0xFF, 0x2F, 0].pack("C*")
    file = ["MThd", 6, 0, 1, 960, "MTrk", events.bytesize].pack("a4Nnnna4N") << events
    times = Measure.milliseconds(5) { raise "refused" unless @server.send_file("/api/songs/import_midi?name=Long", file, "audio/midi").include?('"id"') }
    times.merge("bytes" => file.bytesize)
  end

  private

  def wave(pitch)
    format = WaveFile::Format.new(:stereo, :pcm_16, RATE)
    period = Array.new(RATE) { |i| [(9000 * Math.sin(2 * Math::PI * pitch * i / RATE)).round] * 2 }
    Tempfile.create(["long", ".wav"]) do |file|
      WaveFile::Writer.new(file.path, format) { |writer| SECONDS.times { writer.write(WaveFile::Buffer.new(period, format)) } }
      return File.binread(file.path)
    end
  end

  def tune
    sequence = MIDI::Sequence.new
    track = MIDI::Track.new(sequence)
    sequence.tracks << track
    track.events << MIDI::Tempo.new(MIDI::Tempo.bpm_to_mpq(96))
    400.times { |i| track.events.push(MIDI::NoteOn.new(0, 40 + (i % 30), 90, 0), MIDI::NoteOff.new(0, 40 + (i % 30), 0, 120)) }
    StringIO.new(+"", "wb").tap { |io| sequence.write(io) }.string
  end
end
