# frozen_string_literal: true

RSpec.describe "The list of songs" do
  it "makes, lists, duplicates, deletes and brings back" do
    made = post_json("/api/songs", { name: "Ebb" })
    copy = post_json("/api/songs/#{made['id']}/duplicate")
    expect([last_response.status, copy["name"]]).to eq [201, "Ebb copy"]
    call("DELETE", "/api/songs/#{made['id']}")
    expect(get_json("/api/songs").map { |song| song["id"] }).to include(copy["id"]).and(exclude(made["id"]))
    get_json("/api/songs/#{made['id']}")
    expect(last_response.status).to eq 404
    post_json("/api/songs/#{made['id']}/restore")
    expect(get_json("/api/songs").map { |song| song["id"] }).to include(made["id"])
  end

  it "tells how long a song is, how fast, and where its tracks play, as it stands after an edit too" do
    entry = -> { get_json("/api/songs").find { |song| song["id"] == @id } }
    @id = plant
    song = DemoSong.build
    expect(entry.call.values_at("seconds", "bpm", "meter")).to eq [song.tempo.seconds_at(song.length_ticks).round(3), 92.0, "4/4"]
    rows = entry.call["rows"]
    expect(rows.map(&:first)).to eq(song.tracks.select { |track| track.regions.any? }.map(&:hue))
    # The chop's first region begins in bar 9 of 32: cell 12 of 48.
    expect(rows[song.tracks.select { |track| track.regions.any? }.index { |track| track.id == "gull-chop" }].last).to start_with("#{'0' * 12}1")
    edit(@id, "set_meter", { beats: 3, unit: 4 })
    edit(@id, "set_tempo", { tick: 0, bpm: 46 })
    expect(entry.call.values_at("bpm", "meter")).to eq [46.0, "3/4"]
    edit(@id, "glide_tempo", { from_tick: 8 * 3840, to_tick: 12 * 3840, from_bpm: 120, to_bpm: 60 })
    now = snapshot(@id).song
    expect(entry.call["seconds"]).to be_within(0.002).of(now.tempo.seconds_at(now.length_ticks))
  end

  it "keeps what is deleted in a bin, to be brought back or deleted for good with all its rows" do
    kept, gone = Array.new(2) { |i| post_json("/api/songs", { name: "Ebb #{i}" })["id"] }
    [kept, gone].each { |id| call("DELETE", "/api/songs/#{id}") }
    expect(get_json("/api/bin").map { |song| song["id"] }).to include(kept, gone)
    expect(get_json("/api/bin").first.keys).to include("deleted_at", "seconds")
    call("DELETE", "/api/bin/#{gone}")
    expect([PartRow, EditRow].map { |rows| rows.where(song_id: gone).count } + [SongRow.where(id: gone).count]).to eq [0, 0, 0]
    post_json("/api/songs/#{gone}/restore")
    expect(last_response.status).to eq 404
    post_json("/api/songs/#{kept}/restore")
    call("DELETE", "/api/bin/#{kept}")
    expect([last_response.status, get_json("/api/songs").map { |song| song["id"] }.include?(kept)]).to eq [404, true]
    call("DELETE", "/api/bin")
    expect(get_json("/api/bin")).to eq []
  end

  it "lists a song that cannot be read, without what it cannot tell" do
    id = plant
    PartRow.where(song_id: id, kind: "song").update_all(record: '{"tempo": []}')
    found = get_json("/api/songs").find { |song| song["id"] == id }
    expect([found["name"], found.key?("seconds")]).to eq ["Low Tide Market", false]
  end

  it "starts a new song with something that plays" do
    id = post_json("/api/songs", { name: "Ebb" })["id"]
    expect(get_json("/api/songs/#{id}/playback?from_tick=0&to_tick=3840")["events"].size).to be > 8
  end

  it "hands a song out and takes it in again as a new one, the same" do
    id = plant
    get_json("/api/songs/#{id}/export")
    expect(last_response["Content-Disposition"]).to include "low-tide-market.satchel.json"
    taken = post_json("/api/songs/import", last_response.body)
    expect(json_of(snapshot(taken["id"]).song)).to eq json_of(snapshot(id).song)
  end

  it "draws what is heard for the width it is asked for, with at most four corners a pixel" do
    path = "/api/songs/#{plant}/heard?addresses=rope-bass/synth/cutoff"
    wide, narrow = [path, "#{path}&width_px=20"].map { |one| get_json(one)["heard"]["rope-bass/synth/cutoff"].size / 2 }
    expect([wide, narrow]).to match [be > 200, be_between(20, 84)]
    get_json("#{path}&width_px=0")
    expect(last_response.status).to eq 422
  end

  it "refuses broken, foreign, newer and huge documents, with every fault, and stores nothing" do
    document = KindSatchel::Document.dump(DemoSong.build)
    broken = { "{" => "bad_json", "[]" => "schema_object", JSON.generate(document.merge("version" => KindSatchel::Document::VERSION + 1)) => "unknown_version",
               "[#{'0,' * 4_000_001}0]" => "too_many_values", JSON.generate(document).sub('"bpm":', '"bpm":60,"bpm":') => "doubled_key",
               JSON.generate(document.merge("bpm" => 401, "tracks" => "none")) => "schema_maximum" }
    before = get_json("/api/songs").size
    broken.each do |text, code|
      found = post_json("/api/songs/import", text)["faults"]
      expect([last_response.status, found.map { |fault| fault["code"] }]).to match [422, include(code)]
    end
    found = post_json("/api/songs/import", JSON.generate(document.merge("bpm" => 401, "tracks" => "none")))["faults"]
    expect(found.map { |fault| fault["path"] }).to include("/bpm", "/tracks")
    post_json("/api/songs/import", "{}", "CONTENT_LENGTH" => (40 * 1024 * 1024).to_s)
    expect(last_response.status).to eq 413
    expect(get_json("/api/songs").size).to eq before
  end

  it "tells of every envelope whether it acts, with its points and without" do
    id = plant
    edit(id, "switch_envelope", { envelope_id: snapshot(id).song.clip("mooring").envelopes.first.id, on: false })
    first, drawn = ["", "/drawing?tracks=rope-bass"].map do |path|
      get_json("/api/songs/#{id}#{path}")["parts"].filter_map { |kind, key, record| [key, record["acts"]] if kind == "envelope" }.to_h
    end
    expect(drawn.values.tally.keys).to contain_exactly(true, false)
    expect(first.slice(*drawn.keys)).to eq drawn
  end

  it "refuses a song without a name" do
    expect(post_json("/api/songs", { name: " " })["faults"]).to eq [{ "code" => "bad_name", "path" => "/name", "message" => "A name has 1 to 120 characters." }]
  end
end

RSpec.describe "Who may talk to the server" do
  it "answers to its own name only" do
    call("GET", "/api/songs", nil, "HTTP_HOST" => "elsewhere.example")
    expect(last_response.status).to eq 403
  rescue JSON::ParserError
    expect(last_response.status).to eq 403
  end

  it "takes writes from its own pages only, as JSON" do
    id = plant
    inputs = { revision: 1, edit: "rename_song", inputs: { name: "Taken" } }
    post_json("/api/songs/#{id}/edits", inputs, "HTTP_SEC_FETCH_SITE" => "cross-site")
    expect(last_response.status).to eq 403
    foreign = { "HTTP_HOST" => "127.0.0.1", "HTTP_ORIGIN" => "http://elsewhere.example", "CONTENT_TYPE" => "application/json" }
    custom_request("POST", "/api/songs/#{id}/edits", {}, { **foreign, input: JSON.generate(inputs) })
    expect(last_response.status).to eq 403
    post_json("/api/songs/#{id}/edits", inputs, "CONTENT_TYPE" => "text/plain")
    expect(last_response.status).to eq 415
    expect(snapshot(id).song.name).to eq "Low Tide Market"
  end

  it "lets pages run no script but its own" do
    call("GET", "/api/songs")
    policy = last_response["Content-Security-Policy"]
    expect(policy.split("; ").grep(/\A(?:default|script)-src/)).to eq ["default-src 'self'", "script-src 'self' 'wasm-unsafe-eval'"]
  end

  it "says what is not there" do
    expect(get_json("/nowhere")["faults"].first["message"]).to eq "There is nothing at /nowhere."
    expect(get_json("/schemas/../Gemfile")["faults"]).to be_an(Array)
    expect(last_response.status).to eq 404
  end

  it "gives out the schemas it checks with" do
    expect(get_json("/schemas/song.json")["title"]).to eq "SongDocument"
  end
end

RSpec::Matchers.define(:exclude) { |thing| match { |list| !list.include?(thing) } }
