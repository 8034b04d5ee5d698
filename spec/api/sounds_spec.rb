# frozen_string_literal: true

require "wavefile"
require_relative "../../app/sweep"

RSpec.describe "Recorded sounds" do
  # A sine of some frames at 44.1 kHz, as a WAV file's bytes.
  def wav(frames, format: :pcm_16, pitch: 440)
    Tempfile.create(["tone", ".wav"]) do |file|
      samples = Array.new(frames) { |i| 0.4 * Math.sin(2 * Math::PI * pitch * i / 44_100) }
      WaveFile::Writer.new(file.path, WaveFile::Format.new(:mono, format, 44_100)) do |writer|
        writer.write(WaveFile::Buffer.new(samples, WaveFile::Format.new(:mono, :float, 44_100)))
      end
      return File.binread(file.path)
    end
  end

  def upload(bytes, name: "Tone", type: "audio/wav") = call("POST", "/api/sounds?name=#{name}", bytes, "CONTENT_TYPE" => type)
  def codes(answer) = answer["faults"].map { |fault| [fault["code"], fault["path"]] }
  def entry(digest) = get_json("/api/sounds").find { |one| one["digest"] == digest }

  it "are stored once by digest, read by it, and listed with the songs that use them" do
    bytes = wav(4410)
    first = upload(bytes, name: "Foghorn")
    expect(first).to include("name" => "Foghorn", "digest" => Digest::SHA256.hexdigest(bytes), "seconds" => 0.1, "rate" => 44_100, "channels" => 1)
    expect(upload(bytes, name: "Again")["name"]).to eq "Foghorn"
    call_raw("/sounds/#{first['digest']}.wav")
    expect([last_response.body, last_response.headers["cache-control"]]).to match [bytes, /immutable/]
    song = DemoSong.build
    clip = song.clips.values.find(&:audio)
    id = plant(song.with_clip(clip.with(audio: clip.audio.with(sound: first["digest"]))))
    expect(entry(first["digest"])["used_in"]).to eq [{ "id" => id, "name" => song.name }]
  end

  it "ship with the app under words, by which the demo's clips name them" do
    shipped = get_json("/api/sounds").select { |one| one["shipped"] }
    expect(shipped.map { |one| one["id"] }).to include("kick", "snare", "gull-loop")
    call_raw("/sounds/gull-loop.wav")
    expect(last_response.body).to eq File.binread(File.join(Server::ROOT, "sounds/gull-loop.wav"))
    expect(codes(call("DELETE", "/api/sounds/kick"))).to eq [["shipped", ""]]
  end

  it "go when nothing uses them, not even an undo" do
    kept, gone = [wav(2000), wav(3000)].map { |bytes| upload(bytes)["digest"] }
    song = small_song
    audio = KindSatchel::Clip.new(id: "horn", name: "Horn", kind: "audio", length_ticks: BAR, notes: [], audio: KindSatchel::Audio.new(sound: kept, bpm: 120),
                                  envelopes: [])
    plant(song.with_clip(audio))
    expect(codes(call("DELETE", "/api/sounds/#{kept}"))).to eq [["used", ""]]
    expect(call("DELETE", "/api/sounds")["freed"]).to be >= 1
    call_raw("/sounds/#{gone}.wav")
    expect([last_response.status, entry(gone), entry(kept)&.fetch("digest")]).to eq [404, nil, kept]
  end

  def horn(sound)
    audio = KindSatchel::Audio.new(sound:, bpm: 120)
    KindSatchel::Clip.new(id: "horn", name: "Horn", kind: "audio", length_ticks: BAR, notes: [], envelopes: [], audio:)
  end

  it "stay while a kept version, a preset or a song in the bin plays them" do
    in_version, in_preset, in_bin = [4100, 4200, 4300].map { |frames| upload(wav(frames))["digest"] }
    version = VersionShelf.keep(versioned = plant(small_song.with_clip(horn(in_version))), "Before")
    [PartRow, EditRow].each { |rows| rows.where(song_id: versioned).where(rows == PartRow ? { kind: "clip" } : {}).delete_all }
    preset = post_json("/api/presets", { name: "Horns", devices: [{ type: "sampler", values: {}, sound: in_preset }] })
    call("DELETE", "/api/songs/#{plant(small_song.with_clip(horn(in_bin)))}")
    call("DELETE", "/api/sounds")
    expect([in_version, in_preset, in_bin].map { |digest| SoundRow.exists?(digest:) }).to eq [true, true, true]
    said = [in_version, in_preset].map { |digest| call("DELETE", "/api/sounds/#{digest}")["faults"][0]["message"] }
    expect(said).to eq ["Tone is in a kept version of a song; it stays.", "Tone is in a preset; it stays."]
    VersionShelf.remove(versioned, version["id"])
    call("DELETE", "/api/presets/#{preset['id']}")
    expect(call("DELETE", "/api/sounds/#{in_version}")).to eq({})
  end

  it "are not served, packed or told as there when their file is no longer whole; what ships is made again" do
    digest = upload(bytes = wav(5000))["digest"]
    id = plant(small_song.with_clip(horn(digest)))
    path = File.join(Server.sounds.folder, digest[0, 2], "#{digest}.wav")
    File.truncate(path, 900)
    call_raw("/sounds/#{digest}.wav")
    expect([last_response.status, Server.sounds.spoilt.map(&:digest)]).to eq [404, [digest]]
    expect(get_json("/api/songs/#{id}/missing").map { |one| one["sound"] }).to eq [digest]
    File.binwrite(path, bytes.reverse)
    Tempfile.create("pack") do |file|
      PackedSong.write(file.path, json_of(snapshot(id).song), [digest], Server.sounds)
      expect(Zip::File.open(file.path).map(&:name)).to eq %w[song.satchel.json sounds.json]
    end
    upload(bytes)
    File.truncate(path, 10)
    upload(bytes)
    expect(File.binread(path)).to eq bytes
    kick, shipped = Server.sounds.find("kick")
    File.truncate(shipped, 100)
    Server.sounds.take_shipped(Server.shipped_sounds)
    expect(Server.sounds.whole("kick")[0].digest).to eq kick.digest
  end

  it "leave nothing behind when a server was killed over them: swept an hour later, not before" do
    digest = upload(wav(6000))["digest"]
    folder = File.join(Server.sounds.folder, "ab")
    FileUtils.mkdir_p(folder)
    Dir.mktmpdir do |temporary|
      lost = %W[#{folder}/#{'ab' * 32}.wav #{folder}/x.wav.1.2.part #{temporary}/satchel-work1 #{temporary}/satchel-song1]
      lost.first(3).each { |path| File.write(path, "x") }
      FileUtils.mkdir_p(File.join(lost[3], "within"))
      File.write(File.join(temporary, "other"), "x")
      expect(Sweep.call(Server.sounds, temporary:)).to eq []
      expect(Sweep.call(Server.sounds, temporary:, now: Time.now + Sweep::OLD_SECONDS + 5)).to match_array lost
      expect(lost.none? { |path| File.exist?(path) } && File.exist?(File.join(temporary, "other")) && Server.sounds.there?(digest)).to be true
    end
  end

  it "are refused, with a reason, where they are no sound, too large, without a name, or come in another way" do
    expect(codes(upload("RIFF what is this"))).to eq [["no_sound", ""]]
    expect(codes(upload(wav(0)))).to eq [["empty_sound", ""]]
    expect(codes(upload(wav(100), name: ""))).to eq [["bad_name", "/name"]]
    expect(codes(upload(wav(100), type: "text/plain"))).to eq [["not_a_sound", ""]]
    expect(codes(call("POST", "/api/songs", wav(100), "CONTENT_TYPE" => "audio/wav"))).to eq [["not_json", ""]]
    expect(codes(call("POST", "/api/sounds?name=Big", "x", "CONTENT_TYPE" => "audio/wav",
                      "CONTENT_LENGTH" => (SoundStore::LARGEST + 1).to_s))).to eq [["too_large", ""]]
    expect(codes(call("POST", "/api/sounds?name=Far", wav(100), "CONTENT_TYPE" => "audio/wav",
                      "HTTP_ORIGIN" => "http://elsewhere.test"))).to eq [["foreign_origin", ""]]
    get_json("/sounds/nothing.wav")
    expect(last_response.status).to eq 404
  end

  def call_raw(path) = custom_request("GET", path, {}, { "HTTP_HOST" => "127.0.0.1" })
end
