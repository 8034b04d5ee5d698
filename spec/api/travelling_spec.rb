# frozen_string_literal: true

RSpec.describe "Arranging and combining over the wire" do
  let(:id) { plant }
  let(:song) { snapshot(id).song }
  let(:region) { song.track("rope-bass").regions.first }
  let(:cutoff) { "rope-bass/synth/cutoff" }

  def codes(answer) = answer["faults"].map { |fault| [fault["code"], fault["path"]] }

  # Inputs for each edit of regions, tracks, song time and combination, on the demo song.
  def inputs_of(name)
    move, lane = song.clip("mooring").envelopes.first.id, song.track("rope-bass").lanes.first.id
    { "move_regions" => { region_ids: [region.id], ticks: 960, track_steps: 1 }, "copy_regions" => { region_ids: [region.id], ticks: 7680 },
      "duplicate_regions" => { region_ids: song.track("rope-bass").regions.first(2).map(&:id) }, "remove_regions" => { region_ids: [region.id] },
      "separate_regions" => { region_ids: [region.id] }, "mute_regions" => { region_ids: [region.id], muted: true },
      "swap_clip" => { region_ids: [region.id], clip_id: "cast-off" }, "split_region" => { region_id: region.id, tick: region.start_tick + 1000 },
      "trim_region" => { region_id: region.id, end_tick: region.end_tick + 1920 }, "set_points_follow" => { on: true },
      "make_carrier" => { start_tick: 0, length_ticks: 7680 }, "set_role" => { envelope_id: move, role: "set", keep: "drawing" },
      "fit_carrier" => { region_id: song.track("tideline").regions.first.id, start_tick: 0, end_tick: 3840 },
      "set_knob" => { address: cutoff, value: 0.4 }, "set_fader" => { envelope_id: lane, fader: "trim" },
      "raise_envelope" => { envelope_id: lane, amount: "+100 Hz" }, "delete_time" => { from_tick: 3000, to_tick: 20_000 },
      "insert_time" => { tick: 17_000, length_ticks: 3840 }, "duplicate_track" => { track_id: "rope-bass", moves: true },
      "remove_track" => { track_id: "deck" }, "rename_track" => { track_id: "deck", name: "Planks" },
      "make_group" => { track_ids: %w[fog-pad gull-chop] }, "set_output" => { track_ids: ["bell-buoy"], output: "deck" },
      "copy_moves" => { from_clip_id: "mooring", to_clip_id: "undertow" }, "lay_out" => { track_id: "rope-bass" },
      "pack" => { envelope_id: song.track("fog-pad").lanes.first.id, from_tick: 0, to_tick: 7680 } }.fetch(name)
  end

  %w[move_regions copy_regions duplicate_regions remove_regions separate_regions mute_regions swap_clip split_region trim_region set_points_follow
     make_carrier set_role fit_carrier set_knob set_fader raise_envelope delete_time insert_time duplicate_track remove_track rename_track
     make_group set_output copy_moves lay_out pack].each do |name|
    it "tries #{name}, makes it, stores it, undoes it to the byte and does it again" do
      before, inputs = json_of(song), inputs_of(name)
      tried = post_json("/api/songs/#{id}/preview", { revision: 1, edit: name, inputs:, heard: [cutoff] })
      expect([last_response.status, json_of(snapshot(id).song)]).to eq [200, before]
      made = edit(id, name, inputs, heard: [cutoff])
      after = json_of(snapshot(id).song)
      expect([made["words"], made["notices"]]).to eq tried.values_at("words", "notices")
      expect([after == before, made["undo"]]).to eq [false, made["words"]]
      expect(json_of(SongRows.read(id))).to eq after
      post_json("/api/songs/#{id}/undo", { revision: revision(id), heard: [cutoff] })
      expect([json_of(snapshot(id).song), json_of(SongRows.read(id))]).to eq [before, before]
      post_json("/api/songs/#{id}/redo", { revision: revision(id) })
      expect([json_of(snapshot(id).song), json_of(SongRows.read(id))]).to eq [after, after]
    end
  end

  it "gives a stretch of the song by itself, which comes back where it is pasted" do
    stretch = get_json("/api/songs/#{id}/stretch?from_tick=15360&to_tick=30720")
    expect(stretch["regions"].map { |entry| entry["track_id"] }.uniq).to include("crate-kit", "rope-bass", "fog-pad")
    expect(stretch["lanes"].map { |entry| entry["target"] }).to include(cutoff)
    edit(id, "paste_time", { tick: 122_880, stretch: })
    expect(last_response.status).to eq 200
    [0, 5000, 15_359].each { |into| expect(heard(snapshot(id).song, cutoff, 122_880 + into)).to be_within(1e-9).of heard(song, cutoff, 15_360 + into) }
    get_json("/api/songs/#{id}/stretch?from_tick=100&to_tick=100")
    expect(last_response.status).to eq 422
  end

  it "refuses a pasted stretch that is not one, all faults at once, and stores nothing" do
    before = json_of(song)
    broken = get_json("/api/songs/#{id}/stretch?from_tick=15360&to_tick=19200").merge("length_ticks" => 0, "tempo" => [], "more" => 1)
    answer = edit(id, "paste_time", { tick: 0, stretch: broken })
    expect(codes(answer).map(&:last)).to include("/inputs/stretch/length_ticks", "/inputs/stretch/tempo", "/inputs/stretch/more")
    lost = get_json("/api/songs/#{id}/stretch?from_tick=15360&to_tick=19200")
    lost["regions"].each { |entry| entry["clip_id"] = "gone" }
    expect(codes(edit(id, "paste_time", { tick: 0, stretch: lost }))).to include(["no_place", "/inputs/stretch/regions/0"])
    expect(json_of(snapshot(id).song)).to eq before
  end

  it "shows what of a clip's or track's moves matches another before anything is done" do
    rows = get_json("/api/songs/#{id}/moves_table?from_clip_id=mooring&to_clip_id=fog")["rows"]
    expect(rows.map { |row| row.values_at("name", "target", "replaces") }).to eq [["Rope Bass: Cutoff", "fog-pad/filter/cutoff", false]]
    rows = get_json("/api/songs/#{id}/moves_table?from_track_id=rope-bass&to_track_id=crate-kit")["rows"]
    expect(rows.map { |row| row.values_at("target", "target_name") }).to eq [[nil, nil]]
    get_json("/api/songs/#{id}/moves_table?from_track_id=rope-bass&to_clip_id=fog")
    expect(last_response.status).to eq 422
    get_json("/api/songs/#{id}/moves_table?from_track_id=rope-bass&to_track_id=gone")
    expect(last_response.status).to eq 404
  end

  it "says what a duplicate of a track would bring" do
    expect(get_json("/api/songs/#{id}/track_counts?track_id=rope-bass")).to eq("lanes" => 1, "envelopes" => 3, "clips" => 2, "regions" => 6)
    get_json("/api/songs/#{id}/track_counts?track_id=gone")
    expect(last_response.status).to eq 404
  end

  describe "listening" do
    def listen(**what) = post_json("/api/songs/#{id}/listening", what)

    it "is held for the song, outside of document and log, and told to other tabs" do
      before, revision_before = json_of(song), revision(id)
      expect(get_json("/api/songs/#{id}")["listening"]).to eq("muted" => [], "soloed" => [], "silent" => [], "resting" => [], "rested" => [])
      ours, theirs = UNIXSocket.pair
      Server.listeners.add(id, ours, {})
      solo = listen(track_id: "rope-bass", soloed: true, tab: "mine")
      expect(solo["silent"]).to match_array(song.tracks.map(&:id) - %w[rope-bass deck boathouse echo-pier master])
      expect(get_json("/api/songs/#{id}")["listening"]).to eq solo
      text = +""
      text << theirs.readpartial(65_536) until (told = text[/^event: listening\ndata: (.*)\n/, 1])
      expect(JSON.parse(told)).to eq solo.merge("tab" => "mine")
      expect([json_of(snapshot(id).song), revision(id), EditRow.where(song_id: id).count]).to eq [before, revision_before, 0]
    end

    it "comes with every answer, as the tracks stand then" do
      listen(track_id: "rope-bass", soloed: true)
      made = edit(id, "set_output", { track_ids: ["rope-bass"], output: "master" })
      expect(made["silent"]).to include("deck")
      tried = post_json("/api/songs/#{id}/preview", { revision: revision(id), edit: "set_output", inputs: { track_ids: ["rope-bass"], output: "deck" } })
      expect(tried["silent"]).not_to include("deck")
    end

    it "lets moves rest: curves, values, reasons and what plays are without them, other tabs hear where; documents keep them" do
      target, document = "rope-bass/synth/cutoff", json_of(song)
      texts = ->(path) { get_json("/api/songs/#{id}/#{path}") }
      plays = ->(more = "") { texts.call("playback?from_tick=0&to_tick=#{8 * BAR}#{more}")["ramps"][target].each_slice(2).map(&:last).uniq.size }
      ours, theirs = UNIXSocket.pair
      Server.listeners.add(id, ours, {})
      rest = listen(rest: "song", rests: true, tab: "mine")
      expect(rest["rested"].to_set).to eq song.directory.envelopes.each_value.map(&:envelope).select { |one| one.on && !one.target.song? }.to_set(&:id)
      expect(rest["touched"]).to include target
      text = +""
      text << theirs.readpartial(65_536) until text.include?("event: listening")
      flat = texts.call("heard?addresses=#{target}")["heard"][target].each_slice(2).map(&:last).uniq
      expect(flat).to eq [song.knob(address(target)).round(5)]
      expect(texts.call("values?addresses=#{target}&tick=#{9 * BAR}")[target][0]).to eq song.knob(address(target))
      expect(texts.call("explanation?address=#{target}&tick=#{9 * BAR}")["steps"].map { |step| step["kind"] }).to eq %w[knob heard]
      expect([plays.call > 5, plays.call("&listened=1")]).to eq [true, 1]
      expect(json_of(snapshot(id).song) == document).to be true
      answer = edit(id, "set_knob", { address: target, value: 0.25 }, heard: [target])
      expect(answer["heard"].merge(answer["patches"]["heard"]).to_s).to include "0.25"
      expect([answer["rested"].size, listen(rest: "song", rests: false)["rested"]]).to eq [rest["rested"].size, []]
    end

    it "refuses what is no track, no answer, or nothing, and says where" do
      expect(codes(listen(rest: "clip/nobody", rests: true))).to eq [["unknown_clip", "/clip_id"]]
      expect([codes(listen(rest: "moon", rests: true)), codes(listen(rest: "song"))]).to eq [[["bad_owner", "/rest"]], [["bad_request", "/rests"]]]
      expect(codes(listen(track_id: "master", soloed: true))).to eq [["no_solo", "/soloed"]]
      expect(codes(listen(track_id: "deck", muted: "yes"))).to eq [["bad_request", "/muted"]]
      expect(codes(listen(track_id: "deck"))).to eq [["nothing_asked", ""]]
      expect(codes(listen(muted: true))).to eq [["bad_request", "/track_id"]]
      listen(track_id: "gone", muted: true)
      expect(last_response.status).to eq 404
    end

    it "steps over a logged edit of an older version that only muted a track" do
      edit(id, "set_knob", { address: cutoff, value: 0.4 })
      EditRow.create!(song_id: id, place: 2, name: "listen_track", words: "mute Deck", inputs: "{}", patch: JSON.generate([]))
      SongRow.find(id).update!(done_edits: 2)
      expect(post_json("/api/songs/#{id}/undo", { revision: revision(id) })["words"]).to eq "mute Deck"
      expect(post_json("/api/songs/#{id}/undo", { revision: revision(id) })["words"]).to include("Cutoff")
    end
  end

  it "tells where two set one parameter, with what is heard of it" do
    edit(id, "set_role", { envelope_id: song.clip("mooring").envelopes.first.id, role: "set" })
    edit(id, "make_carrier", { start_tick: 19_200, length_ticks: 3840 })
    clip = snapshot(id).song.clips.keys.last
    answer = edit(id, "embed_envelope", { clip_id: clip, address: cutoff }, heard: [cutoff])
    from, to, winner, loser = answer["conflicts"][cutoff].first
    expect([from, to, loser[0]]).to eq [19_200, 23_040, song.clip("mooring").envelopes.first.id]
    expect(snapshot(id).song.directory.region(winner[1]).region.clip_id).to eq clip
    expect(get_json("/api/songs/#{id}/heard?addresses=#{cutoff}")["conflicts"][cutoff]).to eq answer["conflicts"][cutoff]
  end

  it "sends a knob that is taken over and handed back as heard, and as what plays" do
    wants = { heard: [cutoff], sound: { from_tick: 15_360, to_tick: 19_200 } }
    held = edit(id, "set_knob", { address: cutoff, value: 0.5 }, **wants)
    expect(held["heard"][cutoff].each_slice(2).map(&:last).uniq).to eq [0.5]
    expect(held["sound"]["ramps"][cutoff].each_slice(2).map(&:last).uniq.size).to eq 1
    back = edit(id, "hand_back", { addresses: [cutoff] }, **wants)
    expect(back["heard"][cutoff].each_slice(2).map(&:last).uniq.size).to be > 10
    expect(codes(edit(id, "hand_back", {}))).to eq [["nothing_held", "/inputs"]]
  end

  {
    ["move_regions", { region_ids: [], ticks: 0 }] => ["schema_minItems", "/inputs/region_ids"],
    ["move_regions", { region_ids: ["x"], ticks: 0.5 }] => ["schema_integer", "/inputs/ticks"],
    ["delete_time", { from_tick: 10, to_tick: 5 }] => ["too_short", "/inputs/to_tick"],
    ["make_group", { track_ids: ["master"] }] => ["bad_output", "/inputs/track_ids/0"],
    ["set_fader", { envelope_id: "envelope-1", fader: "ride" }] => ["schema_enum", "/inputs/fader"],
    ["lay_out", {}] => ["bad_request", "/inputs"],
    ["duplicate_track", { track_id: "master", moves: true }] => ["no_regions_here", "/inputs/track_id"],
    ["copy_moves", { from_clip_id: "mooring" }] => ["bad_request", "/inputs"],
    ["swap_clip", { region_ids: ["region-11"], clip_id: "gulls" }] => ["wrong_kind", "/inputs/region_ids/0"]
  }.each do |(name, inputs), fault|
    it "refuses #{name} with #{inputs}, and stores nothing" do
      before = json_of(song)
      expect([codes(edit(id, name, inputs)), json_of(snapshot(id).song)]).to eq [[fault], before]
    end
  end
end
