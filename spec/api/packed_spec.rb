# frozen_string_literal: true

require "open3"

# Packed songs; what is written is read by Info-ZIP's own reader in Python's standard library.
RSpec.describe "Packed songs" do
  def wav(pitch)
    Tempfile.create(["tone", ".wav"]) do |file|
      format = WaveFile::Format.new(:mono, :pcm_16, 44_100)
      samples = Array.new(4410) { |i| (9000 * Math.sin(2 * Math::PI * pitch * i / 44_100)).round }
      WaveFile::Writer.new(file.path, format) { |writer| writer.write(WaveFile::Buffer.new(samples, format)) }
      return File.binread(file.path)
    end
  end

  def with_sound(digest)
    song = DemoSong.build
    clip = song.clips.values.find(&:audio)
    song.with(name: "Foghorn song").with_clip(clip.with(audio: clip.audio.with(sound: digest)))
  end

  def call_raw(path) = custom_request("GET", path, {}, { "HTTP_HOST" => "127.0.0.1" })
  def send_pack(bytes) = call("POST", "/api/songs/import_packed", bytes, "CONTENT_TYPE" => "application/zip")
  def codes(answer) = [last_response.status, answer.fetch("faults", []).map { |fault| fault.values_at("code", "path") }]

  def packed(id)
    call_raw("/api/songs/#{id}/packed")
    last_response.body.b
  end

  # The same ZIP file with some entries made anew; nil takes one out.
  def altered(bytes, changes)
    Zip::OutputStream.write_buffer do |out|
      Zip::File.open_buffer(bytes) do |zip|
        zip.entries.reject { |entry| changes.key?(entry.name) }.each { |entry| out.put_next_entry(entry.name).then { out.write(entry.get_input_stream.read) } }
      end
      changes.compact.each { |name, text| out.put_next_entry(name).then { out.write(text) } }
    end.string
  end

  # A sound of its own for each, since a song of the shelf that misses one keeps it.
  let(:bytes) { wav(300 + RSpec.current_example.metadata[:line_number]) }
  let(:digest) { call("POST", "/api/sounds?name=Foghorn", bytes, "CONTENT_TYPE" => "audio/wav")["digest"] }
  let(:song) { with_sound(digest) }

  def forget(digest)
    SoundRow.find_by(digest:).destroy!
    FileUtils.rm_f(Dir["#{Database.path}-sounds/*/#{digest}.wav"])
  end

  it "go out with their sounds and come back in, sound by sound, where the sounds are not known" do
    id = plant(song)
    pack = packed(id)
    names, status = Open3.capture2("/usr/bin/python3", "-c", "import sys,zipfile,io;" \
                                                             "z=zipfile.ZipFile(io.BytesIO(sys.stdin.buffer.read()));z.testzip();print(*z.namelist())",
                                   stdin_data: pack, binmode: true)
    expect([status.success?, names.split]).to eq [true, ["song.satchel.json", "sounds.json", "sounds/#{digest}.wav"]]
    forget(digest)
    expect(get_json("/api/songs/#{id}/missing")).to match [{ "sound" => digest, "clips" => [an_instance_of(String)] }]
    taken = send_pack(pack)
    expect(json_of(snapshot(taken["id"]).song)).to eq json_of(song)
    expect([get_json("/api/songs/#{id}/missing"), SoundRow.find_by(digest:).name]).to eq [[], "Foghorn"]
    call_raw("/sounds/#{digest}.wav")
    expect(last_response.body).to eq bytes
  end

  it "are refused whole, with the place, when broken; nothing is stored" do
    Tempfile.create("pack") do |file|
      PackedSong.write(file.path, json_of(song), song.sounds, Server.sounds)
      refuse_broken(File.binread(file.path))
    end
  end

  it "are refused whatever bytes of them were changed, or where they end", :long do
    pack = packed(plant(song))
    random = Random.new(11)
    statuses = Array.new(250) do
      bytes = pack.dup
      random.rand(1..4).times { bytes.setbyte(random.rand(2).zero? ? bytes.size - 1 - random.rand(400) : random.rand(bytes.size), random.rand(256)) }
      send_pack(random.rand(5).zero? ? bytes[0, random.rand(bytes.size)] : bytes)
      last_response.status
    end
    expect(statuses.uniq - [201]).to eq [422]
  end

  # No song of the shelf plays the sound, so nothing else could keep it.
  def refuse_broken(pack)
    forget(digest)
    before = [SongRow.count, SoundRow.count]
    expect(codes(send_pack("no zip at all"))).to eq [422, [["no_pack", ""]]]
    expect(codes(send_pack(pack[0, pack.size / 2]))).to eq [422, [["no_pack", ""]]]
    expect(codes(send_pack(altered(pack, "song.satchel.json" => nil)))).to eq [422, [["no_pack", ""]]]
    expect(codes(send_pack(altered(pack, "song.satchel.json" => "{}")))[0]).to eq 422
    expect(codes(send_pack(altered(pack, "sounds/#{digest}.wav" => wav(200))))).to eq [422, [["changed_sound", "/sounds/#{digest}.wav"]]]
    spoilt = pack.sub(bytes[2000, 8], "\0" * 8)
    expect(codes(send_pack(spoilt))[0]).to eq 422
    expect([SongRow.count, SoundRow.count, Dir["#{Database.path}-sounds/*/#{digest}.wav"]]).to eq [*before, []]
    call("POST", "/api/songs/import_packed", pack, "CONTENT_TYPE" => "application/json")
    expect(last_response.status).to eq 415
  end

  # Silence, which squeezes to a thousandth.
  def squeezed(size, says: size)
    pack = altered(packed(plant(song)), "sounds/#{'a' * 64}.wav" => "\0" * size)
    says == size ? pack : pack.gsub([size].pack("V"), [says].pack("V"))
  end

  def kept = [SongRow.count, SoundRow.count, Dir["#{Database.path}-sounds/*/*"].size]

  it "are refused before anything is taken out where they hold far more than they are; what lies about its size is taken no further" do
    song
    stub_const("PackedSong::FREE", 1024 * 1024)
    bomb, liar = squeezed(20 * 1024 * 1024), squeezed(4 * 1024 * 1024, says: 2000)
    before = kept
    answer = send_pack(bomb)
    expect(answer["faults"][0].values_at("code", "message")).to eq ["too_large", "The packed song holds 20 MB in a file of 1 MB; pack it without squeezing."]
    expect(codes(send_pack(liar))[1][0][0]).to eq("no_pack").or eq("too_large")
    expect(kept).to eq before
  end

  it "are taken out no further when whoever sent them has gone, outside of every lock; nothing stays" do
    pack = packed(plant(song))
    forget(digest)
    before = kept
    asker = Asker.new
    asker.define_singleton_method(:gone?) { Thread.new { Database.alone { true } }.value }
    Tempfile.create("pack") do |file|
      File.binwrite(file.path, pack)
      expect { PackedSong.new(file.path, asker:).with_sounds(Server.sounds) { raise "It went on." } }.to raise_error(Asker::Left)
    end
    expect(kept).to eq before
  end
end
