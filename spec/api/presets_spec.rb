# frozen_string_literal: true

RSpec.describe "Presets" do
  def keep(**preset) = post_json("/api/presets", preset)
  def codes(answer) = answer["faults"].map { |fault| [fault["code"], fault["path"]] }
  def named(name) = get_json("/api/presets").find { |preset| preset["name"] == name }

  it "ship as a good set, every one of which can be used" do
    shipped = get_json("/api/presets").select { |preset| preset["shipped"] }
    expect(shipped.size).to be > 15
    song = small_song
    shipped.each do |preset|
      plays = KindSatchel::Devices::TYPES.fetch(preset["devices"].first["type"]).plays
      made = KindSatchel::Edits.apply(song, "add_track", { "kind" => plays || "group", "devices" => [] }).song
      track = (made.tracks - song.tracks).first
      given = KindSatchel::Edits.apply(made, "set_chain", { "track_id" => track.id, "devices" => preset["devices"], "name" => preset["name"] }).song
      expect(given.track(track.id).devices.map(&:type)).to eq [*preset["devices"].map { |device| device["type"] }, "channel"]
    end
  end

  it "are kept under a name, replaced under the same, used in any song, and let go of" do
    filter = { "type" => "filter", "values" => { "cutoff" => 0.3 } }
    kept = keep(name: " Gullet ", device: "filter", devices: [filter])
    expect(kept).to include("name" => "Gullet", "device" => "filter", "devices" => [filter], "shipped" => false)
    again = keep(name: "Gullet", device: "filter", devices: [filter.merge("values" => { "cutoff" => 0.4 })])
    expect([again["id"], named("Gullet")["devices"][0]["values"]]).to eq [kept["id"], { "cutoff" => 0.4 }]
    id = plant
    edit(id, "set_device", { track_id: "gull-chop", device_id: "filter", values: again["devices"][0]["values"], name: "Gullet" })
    expect(snapshot(id).song.knob(KindSatchel::Address.parse("gull-chop/filter/cutoff"))).to eq 0.4
    call("DELETE", "/api/presets/#{kept['id']}")
    expect([last_response.status, named("Gullet")]).to eq [200, nil]
    call("DELETE", "/api/presets/#{kept['id']}")
    expect(last_response.status).to eq 404
  end

  it "keep a macro strip with its names and drives, and a sampler with its sound" do
    macros = [{ "id" => "macro-1", "name" => "Tide", "drives" => [{ "target" => "rope-bass/synth/cutoff", "stops" => [[0.0, 0.2], [1.0, 0.8]] }] }]
    strip = { "type" => "macro-strip", "values" => { "macro-1" => 0.5 }, "macros" => macros }
    expect(keep(name: "Tide strip", device: "macro-strip", devices: [strip])["devices"]).to eq [strip]
    sampler = { "type" => "sampler", "values" => {}, "sound" => "gull-loop" }
    expect(keep(name: "Gull keys", device: "sampler", devices: [sampler])["devices"]).to eq [sampler]
    id = plant
    edit(id, "add_device", { track_id: "rope-bass", type: "macro-strip" })
    edit(id, "set_device", { track_id: "rope-bass", device_id: "macro-strip", values: strip["values"], macros: })
    expect(snapshot(id).song.directory.driver(KindSatchel::Address.parse("rope-bass/synth/cutoff")).macro.to_s).to eq "rope-bass/macro-strip/macro-1"
    edit(id, "add_device", { track_id: "fog-pad", type: "macro-strip" })
    told = edit(id, "set_device", { track_id: "fog-pad", device_id: "macro-strip", values: {}, macros: })
    expect(told["notices"].map { |notice| notice["code"] }).to eq ["left_out"]
    gone = edit(id, "set_chain", { track_id: "rope-bass", devices: [{ type: "mono-synth" }] })
    expect(gone["notices"].map { |notice| notice["code"] }).to include "undriven"
    bad = keep(name: "Bad", device: "macro-strip", devices: [strip.merge("macros" => [{ "id" => "macro-9" }])])
    expect(codes(bad).first.last).to start_with "/devices/0/macros/0"
  end

  it "are refused where they cannot be, with the place" do
    expect(codes(keep(name: " ", device: nil, devices: [{ type: "filter" }]))).to eq [["bad_name", "/name"]]
    expect(codes(keep(name: "None", device: nil, devices: []))).to eq [["bad_chain", "/devices"]]
    expect(codes(keep(name: "Strange", device: nil, devices: [{ type: "theremin" }]))).to eq [["unknown_device", "/devices/0/type"]]
    expect(codes(keep(name: "Other", device: "filter", devices: [{ type: "drive" }]))).to eq [["bad_chain", "/device"]]
    wrong = [{ type: "filter", values: { nose: 1, cutoff: 9 } }]
    expect(codes(keep(name: "Wrong", device: "filter", devices: wrong)))
      .to eq [["unknown_parameter", "/devices/0/values/nose"], ["out_of_range", "/devices/0/values/cutoff"]]
  end
end
