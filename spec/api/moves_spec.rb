# frozen_string_literal: true

RSpec.describe "The satchel" do
  def codes(answer) = answer["faults"].map { |fault| [fault["code"], fault["path"]] }
  def own = get_json("/api/moves").reject { |entry| entry["shipped"] }

  def kept(id, envelope_id, **more)
    get_json("/api/songs/#{id}/kept_move?#{URI.encode_www_form(envelope_id:, from_tick: 0, to_tick: 3840, name: 'Lap', **more)}")
  end

  let(:id) { plant }
  let(:envelope_id) { snapshot(id).song.clip("mooring").envelopes.first.id }

  after { KeptMoveRow.delete_all }

  it "ships with a good set for every use, each of which can be dropped on a knob, a switch and a choice" do
    shipped = get_json("/api/moves").select { |entry| entry["shipped"] }
    expect(shipped.size).to be >= 40
    uses = shipped.map { |entry| entry["move"]["tags"].first }.tally
    expect(uses.keys).to include("fade", "swell", "gate", "throw", "pump", "stutter", "wobble", "riser", "build", "drop")
    expect(shipped.map { |entry| entry["move"]["name"] }.uniq.size).to eq shipped.size
    shipped.each do |entry|
      %w[rope-bass/channel/pan rope-bass/channel/mute rope-bass/synth/wave].each do |address|
        result = KindSatchel::Edits.apply(snapshot(id).song, "drop_move", "move" => entry["move"], "address" => address, "clip_id" => "mooring")
        span = KindSatchel::Heard::Resolver.new(result.song, KindSatchel::Address.parse(address)).at_each((15_360...23_040).step(97).to_a).minmax
        expect([entry["move"]["name"], span[1] - span[0]]).to match [entry["move"]["name"], be > 0.1] unless address.end_with?("wave")
      end
      expect(entry["outline"].each_slice(2).map(&:first)).to eq entry["outline"].each_slice(2).map(&:first).sort
    end
  end

  it "keeps a stretch of an envelope under a name, names it otherwise, and lets it go and come back" do
    move = kept(id, envelope_id, tags: "bass,slow")
    expect(move).to include("role" => "shift", "tags" => %w[bass slow], "length_ticks" => 3840)
    entry = post_json("/api/moves", move:)
    expect([last_response.status, own]).to eq [201, [entry]]
    renamed = post_json("/api/moves/#{entry['id']}", name: "Lapping", tags: ["low"])
    expect(renamed["move"]).to eq move.merge("name" => "Lapping", "tags" => ["low"])
    gone = call("DELETE", "/api/moves/#{entry['id']}")
    expect([gone["move"], own]).to eq [renamed["move"], []]
    call("DELETE", "/api/moves/#{entry['id']}")
    expect(last_response.status).to eq 404
    call("DELETE", "/api/moves/-1")
    expect(last_response.status).to eq 404
    edit(id, "drop_move", { move: gone["move"], address: "gull-chop/channel/send-boathouse", clip_id: "gulls", role: "set" })
    expect(last_response).to be_ok
  end

  it "goes out as a file and comes in again, once" do
    3.times { |i| post_json("/api/moves", move: kept(id, envelope_id).merge("name" => "Lap #{i}")) }
    file = get_json("/api/moves/file")
    expect(file["moves"].map { |move| move["name"] }).to eq ["Lap 2", "Lap 1", "Lap 0"]
    expect(get_json("/api/moves/file?ids=-1,#{own[0]['id']}")["moves"].size).to eq 2
    before = own.map { |entry| entry["move"] }
    KeptMoveRow.delete_all
    expect(post_json("/api/moves/take", file).size).to eq 3
    expect(own.map { |entry| entry["move"] }).to match_array before
    expect(post_json("/api/moves/take", file)).to eq []
    file["moves"][1]["points"][0]["value"] = -0.5
    expect([codes(post_json("/api/moves/take", file)), own.size]).to eq [[["out_of_range", "/moves/1/points/0/value"]], 3]
    expect(codes(post_json("/api/moves/take", { format: "other" }))).to eq [["schema_const", "/format"], ["schema_required", ""]]
  end

  it "finds what is shaped like a move" do
    points = [{ tick: 0, value: 0.2, shape: "curved", curve: 0.5 }, { tick: 3840, value: 0.6, shape: "hold" }]
    near = post_json("/api/moves/near", move: kept(id, envelope_id).merge("role" => "set", "points" => points))
    names = get_json("/api/moves").to_h { |entry| [entry["id"], entry["move"]["name"]] }
    expect(names[near["ids"].first]).to eq "Winch"
    expect(near["ids"].size).to eq names.size
  end

  it "refuses what is none" do
    move = kept(id, envelope_id)
    expect(codes(post_json("/api/moves", move: move.merge("points" => [])))).to eq [["empty", "/move/points"]]
    expect(codes(post_json("/api/moves", move: move.merge("name" => " ")))).to eq [["bad_name", "/move/name"]]
    expect(codes(post_json("/api/moves", {})).first.last).to eq "/move"
    expect(codes(kept(id, "nobody"))).to eq [["unknown_envelope", "/envelope_id"]]
    expect(codes(get_json("/api/moves/file?ids=a"))).to eq [["bad_value", "/ids"]]
  end
end
