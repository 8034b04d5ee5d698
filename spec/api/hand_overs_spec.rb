# frozen_string_literal: true

require "csv"
require "zip"

# Handing over by the server: what is chosen and kept, what it would cost, the files, the archive; and what goes wrong.
RSpec.describe "Handing over" do
  before { Server.workspaces.clear(0) }

  let(:id) { plant }
  let(:demo) { DemoSong.build }

  def hand_over(**choices) = post_json("/api/songs/#{id}/hand_overs", choices)
  def faults_of(answer) = [last_response.status, answer.fetch("faults", []).map { |fault| fault.values_at("code", "path") }]
  def waiting = Dir[File.join("#{Database.path}-hand-overs", "*")].size

  def fetch(path) = custom_request("GET", path, {}, "HTTP_HOST" => "127.0.0.1")

  # The entries of the archive, by name.
  def archive(token)
    fetch(post_json("/api/hand_overs/#{token}/wrapped?name=Low%20Tide", {})["path"])
    Zip::File.open_buffer(last_response.body).entries.to_h { |entry| [entry.name, entry.get_input_stream.read] }
  end

  it "puts what was chosen into one archive, which says what was lost, and comes back in" do
    limits = { lanes_only: true, straight: true, set_only: true, no_carriers: true, bits: 7 }
    done = hand_over(midi: true, midi_clips: true, midi_regions: true, csv: "points", sheet: true, baked: true, document: true, packed: true, limits:)
    files = archive(done["token"])
    expect(files.keys).to include("README.txt", "sheet.html", "moves.csv", "low-tide-market.mid", "low-tide-market-baked.satchel.json",
                                  "low-tide-market.satchel.zip", "clips/mooring.mid", "regions/rope-bass-5-1.mid")
    expect(Schemas.read_song(files["low-tide-market.satchel.json"]).song).to eq demo
    baked = Schemas.read_song(files["low-tide-market-baked.satchel.json"]).song
    expect(baked.directory.envelopes.each_value.map { |home| [home.track.nil?, home.envelope.role] }.uniq).to eq [[false, "set"]]
    done["losses"].each do |one|
      expect(files["README.txt"]).to match(/#{Regexp.escape(one['name'])} .*#{Regexp.escape(one['left_out'] ? one['why'] : one['largest_text'])}/)
    end
    expect(done["losses"].select { |one| one["left_out"] }.map { |one| one["name"] }).to eq ["Rate of Bit reducer in Tip Over"]
    expect(files["README.txt"]).to match(/values of 7 bits.*^Cutoff of Mono synth on Rope Bass +74 +7 bits +0\.\d+ %$/m)
    expect(CSV.parse(files["moves.csv"], headers: true).map { |row| row["address"] }.uniq).to match_array baked.sounded.map(&:to_s)
    expect(files["sheet.html"]).to include("<h1>Low Tide Market</h1>", "Rope Bass", "<polyline")
    region = MidiFile.score(files["regions/rope-bass-5-1.mid"])
    expect(region.parts.map(&:name)).to eq ["Rope Bass"]
    expect(region.parts[0].controls["cutoff"].map(&:last).minmax).not_to eq [0, 0]
    call("DELETE", "/api/hand_overs/#{done['token']}")
    expect(waiting).to eq 0
  end

  it "hands one file out as it is, and keeps what was chosen with the song" do
    done = hand_over(midi: true)
    path = post_json("/api/hand_overs/#{done['token']}/wrapped?name=x", {})
    expect(path["name"]).to eq "low-tide-market.mid"
    fetch(path["path"])
    expect([last_response.body[0, 4], last_response.headers["Content-Disposition"]]).to match ["MThd", /filename="low-tide-market.mid"/]
    known = get_json("/api/songs/#{id}/hand_over")
    rows = known["controllers"].map { |row| row.slice("address", "bits").merge("number" => row["address"].end_with?("synth/cutoff") ? 21 : row["number"]) }
    post_json("/api/songs/#{id}/hand_over", { midi: true, csv: "samples", step_ticks: 480, controllers: rows })
    Server.open_songs.forget(id)
    kept = get_json("/api/songs/#{id}/hand_over")
    expect(kept["choices"]).to include("csv" => "samples", "step_ticks" => 480)
    expect(kept["controllers"].find { |row| row["name"] == "Cutoff of Mono synth on Rope Bass" }["number"]).to eq 21
    expect(kept["sets"].map { |set| set["name"] }).to include("Lanes of tracks, straight, 7 bits")
  end

  it "tells what limits cost, shows both curves, and keeps sets of them" do
    losses = post_json("/api/songs/#{id}/baking", { limits: { straight: true, lanes_only: true, points_per_lane: 4 } })["losses"]
    expect(losses.map { |one| one["points"] }.compact.max).to eq 4
    worst = losses.find { |one| one["name"] == "Cutoff of Mono synth on Rope Bass" }
    curves = post_json("/api/songs/#{id}/baked_curves", { address: worst["address"], limits: { straight: true, lanes_only: true, points_per_lane: 4 } })
    expect([curves["before"].size / 2 > 50, curves["after"].size / 2]).to eq [true, 5]
    kept = post_json("/api/limit_sets", { name: " Old recorder ", limits: { bits: 7, track_ids: ["master"] } })
    expect(kept.slice("name", "limits")["limits"]).to include("bits" => 7)
    expect(kept["limits"].key?("track_ids")).to be false
    expect(get_json("/api/songs/#{id}/hand_over")["sets"].map { |set| set["name"] }).to include("Old recorder")
    call("DELETE", "/api/limit_sets/#{kept['id']}")
    expect(get_json("/api/songs/#{id}/hand_over")["sets"].map { |set| set["name"] }).not_to include("Old recorder")
  end

  it "says what cannot be, at its place, and leaves nothing half-written" do
    two = demo.sounded.select { |address| address.owner_id == "rope-bass" }.map { |address| { address: address.to_s, number: 20 } }
    expect(faults_of(hand_over(midi: true, controllers: two))).to eq [422, [["clash", "/controllers/1/number"]]]
    expect(faults_of(hand_over(midi: true, limits: { points_per_lane: 1 }))).to match [422, [[/\Aschema_/, "/limits/points_per_lane"]]]
    expect(faults_of(hand_over(midi: true, limits: { track_ids: ["nowhere"] }))).to eq [404, [["unknown_track", "/track_id"]]]
    expect(faults_of(hand_over(midi: true, from_tick: 960, to_tick: 480))).to eq [422, [["out_of_range", "/to_tick"]]]
    expect(faults_of(hand_over(csv: "samples", step_ticks: 1, midi: false))).to eq [422, [["too_many", "/step_ticks"]]]
    expect(faults_of(hand_over(tape: true))[0]).to eq 422
    expect(waiting).to eq 0
    expect(faults_of(post_json("/api/hand_overs/#{'0' * 32}/wrapped", {}))).to eq [404, [["unknown_hand_over", ""]]]
    expect(faults_of(post_json("/api/limit_sets", { name: " ", limits: {} }))).to eq [422, [["bad_name", "/name"]]]
  end

  it "says what is to be rendered, of the song as it stands whatever is edited meanwhile" do
    edit(id, "rename_track", { track_id: "fog-pad", name: "Rope, bass" })
    post_json("/api/songs/#{id}/listening", { track_id: "gull-chop", muted: true })
    ways = { rate: 48_000, bits: 24 }
    made = hand_over(midi: false, sounds: [{ what: "tracks", listening: true, **ways }, { what: "clips", **ways }])
    stems, *loops = made["sounds"]
    expect(stems["files"].zip(stems["taps"])).to include(%w[stems/rope-bass.wav rope-bass], %w[stems/rope-bass-2.wav fog-pad])
    expect([stems["silent"], stems["taps"] & %w[gull-chop master tideline]]).to eq [["gull-chop"], []]
    mooring = loops.find { |one| one["clip_id"] == "mooring" }
    expect(mooring.values_at("files", "from_tick", "to_tick", "taps")).to eq [["loops/mooring.wav"], 0, 8 * 960, ["rope-bass"]]
    asked = "version=#{made['token']}&from_tick=0&to_tick=7680"
    played = ->(more = "") { get_json("/api/songs/#{id}/playback?#{asked}#{more}") }
    before = [played.call, played.call("&clip_id=mooring"), get_json("/api/songs/#{id}/clock?version=#{made['token']}")]
    edit(id, "set_tempo", { tick: 0, bpm: 70 })
    edit(id, "remove_track", { track_id: "rope-bass" })
    expect([played.call, played.call("&clip_id=mooring"), get_json("/api/songs/#{id}/clock?version=#{made['token']}")]).to eq before
    expect(get_json("/api/songs/#{id}/playback?version=#{'0' * 32}&from_tick=0&to_tick=10")["faults"][0]["code"]).to eq "unknown_version"
  end

  # A process may write files of a few bytes only: the same to it as a disk that is full.
  it "leaves nothing half-packed when the disk fills" do
    token = hand_over(midi: true, document: true, sheet: true)["token"]
    told, said = IO.pipe
    pid = fork do
      trap("XFSZ", "IGNORE")
      Process.setrlimit(Process::RLIMIT_FSIZE, 4096)
      request = { "HTTP_HOST" => "127.0.0.1", "CONTENT_TYPE" => "application/json", input: "{}" }
      answer = Rack::MockRequest.new(from_here).post("/api/hand_overs/#{token}/wrapped?name=Song", request)
      said.write([answer.status, JSON.parse(answer.body)["faults"][0]["code"]].to_json)
      said.close
      exit!(0)
    end
    said.close
    Process.wait(pid)
    expect(JSON.parse(told.read)).to eq [507, "disk_full"]
    expect(Dir[File.join("#{Database.path}-hand-overs", token, "*.zip")]).to eq []
    expect(archive(token).keys).to include("README.txt", "sheet.html")
  end

  it "takes sounds that a page made, when they are what they say" do
    token = hand_over(midi: false, csv: "none", sounds: [{ what: "song", rate: 48_000, bits: 24 }])["token"]
    wav = File.binread(File.join(Server.shipped_sounds, "gull-loop.wav"))
    info = WaveFile::Reader.new(StringIO.new(wav)).then { |reader| [reader.total_sample_frames, reader.format.sample_rate] }
    send_wav = lambda do |name, frames, bytes = wav|
      answer = call("POST", "/api/hand_overs/#{token}/sounds?#{URI.encode_www_form(name:, frames:, rate: info[1])}", bytes, "CONTENT_TYPE" => "audio/wav")
      faults_of(answer)
    end
    expect(send_wav.call("mix.wav", info[0])).to eq [200, []]
    expect(send_wav.call("stems/bass.wav", info[0])).to eq [200, []]
    expect(send_wav.call("../mix.wav", info[0])).to eq [422, [["bad_name", "/name"]]]
    expect(send_wav.call("short.wav", info[0] + 1)).to eq [422, [["broken_sound", ""]]]
    expect(send_wav.call("none.wav", info[0], "RIFF")).to eq [422, [["no_sound", ""]]]
    expect(archive(token).keys).to contain_exactly("mix.wav", "stems/bass.wav")
    post_json("/api/songs/#{id}/mixdown", { peak_db: 0.7, revision: get_json("/api/songs/#{id}")["revision"] })
    expect(get_json("/api/songs/#{id}/loose_ends")["ends"].map { |one| one["text"] }).to include("The mixdown of the song as it stands reached +0.7 dBFS.")
  end
end
