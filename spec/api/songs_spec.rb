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

  it "starts a new song with something that plays" do
    id = post_json("/api/songs", { name: "Ebb" })["id"]
    expect(get_json("/api/songs/#{id}/playback?from_tick=0&to_tick=3840")["events"].size).to be > 8
  end

  it "hands a song out and takes it in again as a new one, the same" do
    id = plant
    get_json("/api/songs/#{id}/export")
    expect(last_response["Content-Disposition"]).to include "low-tide-market.satchel.json"
    taken = post_json("/api/songs/import", last_response.body)
    expect(json_of(standing(taken["id"]).song)).to eq json_of(standing(id).song)
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
    broken = { "{" => "bad_json", "[]" => "schema_object", JSON.generate(document.merge("version" => 3)) => "unknown_version",
               JSON.generate(document.merge("tempo" => [], "tracks" => "none")) => "schema_minItems" }
    before = get_json("/api/songs").size
    broken.each do |text, code|
      found = post_json("/api/songs/import", text)["faults"]
      expect([last_response.status, found.map { |fault| fault["code"] }]).to match [422, include(code)]
    end
    found = post_json("/api/songs/import", JSON.generate(document.merge("tempo" => [], "tracks" => "none")))["faults"]
    expect(found.map { |fault| fault["path"] }).to include("/tempo", "/tracks")
    post_json("/api/songs/import", "{}", "CONTENT_LENGTH" => (40 * 1024 * 1024).to_s)
    expect(last_response.status).to eq 413
    expect(get_json("/api/songs").size).to eq before
  end

  it "tells of every envelope whether it acts, with its points and without" do
    id = plant
    edit(id, "switch_envelope", { envelope_id: standing(id).song.clip("mooring").envelopes.first.id, on: false })
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
    expect(standing(id).song.name).to eq "Low Tide Market"
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
