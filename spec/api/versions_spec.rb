# frozen_string_literal: true

# A song as it stood, under a name: kept, compared, single moves taken back.
RSpec.describe "Versions" do
  before { [VersionRow, VersionPartRow].each(&:delete_all) }

  let(:id) { plant }

  def keep(name) = post_json("/api/songs/#{id}/versions", { name: })
  def list = get_json("/api/songs/#{id}/versions")
  def compare(version) = get_json("/api/songs/#{id}/versions/#{version['id']}/comparison")
  def lane = snapshot(id).song.track("rope-bass").lanes.find { |one| one.target.parameter_id == "cutoff" }

  it "are kept apart from the log, share their parts, and are let go of" do
    before = snapshot(id).song
    edit(id, "rename_song", { name: "Later" })
    kept = keep(" First try ")
    later = snapshot(id).song
    parts = VersionPartRow.count
    keep("Same again")
    expect([VersionPartRow.count, list.map { |one| one["name"] }]).to eq [parts, ["Same again", "First try"]]
    Server.edit_log.undo(id, revision(id))
    edit(id, "rename_song", { name: "Elsewhere" })
    expect([VersionShelf.song(id, kept["id"]), VersionShelf.song(id, kept["id"]) == before]).to eq [later, false]
    list.each { |one| call("DELETE", "/api/songs/#{id}/versions/#{one['id']}") }
    expect([list, VersionPartRow.count]).to eq [[], 0]
    keep("Gone with the song")
    call("DELETE", "/api/songs/#{id}")
    call("DELETE", "/api/bin/#{id}")
    expect([VersionRow.count, VersionPartRow.count]).to eq [0, 0]
  end

  it "tell which parameters differ, where and by how much, show both curves, and give single moves back" do
    kept = keep("Before")
    expect(compare(kept)).to eq("rows" => [], "others" => [])
    old = lane
    edit(id, "scale_points", { envelope_id: old.id, runs: [[0, old.points.size - 1]], factor: 0.5 })
    edit(id, "set_knob", { address: "crate-kit/channel/pan", value: 0.75 })
    edit(id, "add_track", { kind: "group", devices: [] })
    found = compare(kept)
    expect(found["rows"].map { |row| row["name"] }).to include("Cutoff of Mono synth on Rope Bass", "Pan of Crate Kit")
    expect(found["rows"].find { |row| row["name"] == "Pan of Crate Kit" }.slice("largest", "unit")).to eq("largest" => 50.0, "unit" => "L/R")
    expect(found["others"]).to match [/is not in the version/]
    cutoff = found["rows"].find { |row| row["name"] == "Cutoff of Mono synth on Rope Bass" }
    tick = cutoff["tick"]
    scale = snapshot(id).song.parameter(lane.target).scale
    apart = [snapshot(id).song, VersionShelf.song(id, kept["id"])].map { |song| scale.natural(heard(song, lane.target.to_s, tick)) }.reduce(:-).abs
    expect(apart).to be_within(apart * 0.02).of(cutoff["largest"])
    curves = get_json("/api/songs/#{id}/versions/#{kept['id']}/curves?address=#{lane.target}")
    expect(curves["before"]).not_to eq curves["after"]
    edit(id, "take_envelope", cutoff["moves"][0])
    expect(lane).to eq old
    left = compare(kept)["rows"]
    expect(left.map { |row| row["name"] }).to eq ["Pan of Crate Kit"]
    edit(id, "set_knob", { address: left[0]["address"], value: left[0]["knob"] })
    expect(compare(kept)["rows"]).to eq []
  end

  it "are played as they were, and compared with each other" do
    kept = keep("Before")
    ask = "from_tick=0&to_tick=7680"
    played = get_json("/api/songs/#{id}/playback?#{ask}")
    parts = get_json("/api/songs/#{id}")["parts"]
    edit(id, "set_knob", { address: "crate-kit/channel/pan", value: 0.75 })
    edit(id, "set_tempo", { tick: 0, bpm: 120 })
    later = keep("After")
    expect(get_json("/api/songs/#{id}/playback?version=#{kept['id']}&#{ask}")).to eq played
    expect(get_json("/api/songs/#{id}/versions/#{kept['id']}")["parts"]).to match_array parts
    seconds = ["?version=#{kept['id']}", ""].map { |query| get_json("/api/songs/#{id}/clock#{query}")["clock"][1] }
    expect(seconds[0]).not_to eq seconds[1]
    between = get_json("/api/songs/#{id}/versions/#{kept['id']}/comparison?with=#{later['id']}")
    expect(between).to eq compare(kept)
    expect(between["rows"].map { |row| row["name"] }).to include "Pan of Crate Kit"
    expect(compare(later)).to eq("rows" => [], "others" => [])
    expect(get_json("/api/songs/#{id}/clock?version=999")["faults"][0]["code"]).to eq "unknown_version"
  end

  it "get another name, and stay as they are" do
    kept, other = keep("Before"), keep("After")
    parts = get_json("/api/songs/#{id}/versions/#{kept['id']}")["parts"]
    rename = ->(version, name) { call("PUT", "/api/songs/#{id}/versions/#{version}", { name: }) }
    expect(rename.call(kept["id"], " Dawn ")).to eq kept.merge("name" => "Dawn")
    expect(list.to_h { |one| one.values_at("id", "name") }).to eq({ kept["id"] => "Dawn", other["id"] => "After" })
    expect(get_json("/api/songs/#{id}/versions/#{kept['id']}")["parts"]).to match_array parts
    expect(rename.call(kept["id"], " ")["faults"][0]["path"]).to eq "/name"
    expect(rename.call(999, "Dusk")["faults"][0]["code"]).to eq "unknown_version"
    expect(list.map { |one| one["name"] }).to contain_exactly("Dawn", "After")
  end

  it "refuse what cannot be" do
    expect(keep(" ")["faults"][0]["path"]).to eq "/name"
    expect(get_json("/api/songs/#{id}/versions/999/comparison")["faults"][0]["code"]).to eq "unknown_version"
    record = KindSatchel::Records.envelope(lane)
    refused = ->(inputs) { edit(id, "take_envelope", inputs)["faults"].map { |fault| fault.values_at("code", "path") } }
    expect(refused.call({ owner: "pile/rope-bass", envelope: record })).to eq [["bad_owner", "/inputs/owner"]]
    expect(refused.call({ owner: "clip/mooring", envelope: record })).to eq [["taken_id", "/inputs/envelope/id"]]
    expect(refused.call({ owner: "track/none", envelope: record })[0][0]).to eq "unknown_track"
  end
end
