# frozen_string_literal: true

# A database as version 1 left it.
RSpec.describe "Songs stored by older versions" do
  let(:song) { small_song(clip: [envelope([0, 0.5])], lanes: [envelope([0, 0.2], id: "l1", role: "shift")]) }

  # Stores a document of version 1 the way that version did, with a log of its own.
  def store(document, log: [])
    row = SongRow.create!(name: document["name"], format: 1, done_edits: log.size)
    PartRow.insert_all!(OldSongs.parts(document).map { |kind, part_id, record| { song_id: row.id, kind:, part_id:, record: JSON.generate(record) } })
    log.each_with_index do |patch, i|
      EditRow.create!(song_id: row.id, place: i + 1, name: "old", words: "edit #{i + 1}", inputs: "{}", patch: JSON.generate(patch))
    end
    row.id
  end

  def undo(id) = post_json("/api/songs/#{id}/undo", { revision: revision(id) })
  def redo_edit(id) = post_json("/api/songs/#{id}/redo", { revision: revision(id) })

  it "open, and tell once where they sound different" do
    id = store(OldSongs.document(song))
    snapshot = get_json("/api/songs/#{id}")
    expect(snapshot["places"].map { |place| place["text"] }).to eq ["Cutoff of Bass, 2.1.0 to 4.1.0", "Cutoff of Bass, 6.1.0 to 7.1.0"]
    expect(snapshot["parts"].find { |kind,| kind == "clip" }[2]["kind"]).to eq "notes"
    expect(snapshot(id).song).to eq song
    post_json("/api/songs/#{id}/places_seen")
    expect(get_json("/api/songs/#{id}")["places"]).to eq []
  end

  it "keep their log: what merged is one step of it, and everything before that is undone too" do
    document = OldSongs.document(song)
    pair = [[0, 0.1], [BAR, 0.3]].zip([[0, -0.2], [BAR, 0.2]]).transpose.each_with_index.map do |points, i|
      JSON.parse(JSON.generate(KindSatchel::Records.envelope(envelope(*points, role: "shift", id: "s#{i}"))))
    end
    before = pair.map { |record| record.merge("points" => record["points"].map { |point| point.merge("value" => 0.0) }) }
    document["clips"][0]["envelopes"] = pair
    owned = ->(record, place) { record.merge("owner" => "clip/line", "place" => place) }
    id = store(document, log: [[["envelope", "s0", owned.call(before[0], 0), owned.call(pair[0], 0)]]])
    expect(snapshot(id).song.clip("line").envelopes.map(&:id)).to eq ["s0"]
    brought_up = json_of(snapshot(id).song)
    expect(snapshot(id).undo).to start_with "bring the song up"
    expect(undo(id)["words"]).to start_with "bring the song up"
    expect(snapshot(id).song.clip("line").envelopes.map { |one| [one.id, one.on] }).to eq [["s0", true], ["s1", false]]
    expect(undo(id)["words"]).to eq "edit 1"
    expect(snapshot(id).song.directory.envelope("s0").envelope.points.map(&:value)).to eq [0.0, 0.0]
    2.times { redo_edit(id) }
    expect(json_of(snapshot(id).song)).to eq brought_up
    Server.open_songs.forget(id)
    expect(json_of(snapshot(id).song)).to eq brought_up
  end

  it "keep a tempo that changes, when the step that merged is undone and done again, and say which steps no longer fit" do
    document = OldSongs.document(song)
    document["tempo"] = [{ "tick" => 0, "bpm" => 92.0, "shape" => "straight" }, { "tick" => 7680, "bpm" => 120.0, "shape" => "hold" }]
    document["clips"][0]["envelopes"] = Array.new(2) do |i|
      JSON.parse(JSON.generate(KindSatchel::Records.envelope(envelope([0, 0.1], role: "shift", id: "s#{i}"))))
    end
    id = store(document, log: [[], []])
    SongRow.find(id).update!(done_edits: 1)
    expect(snapshot(id).undo).to end_with "; a step undone before can no longer be done again"
    before = json_of(snapshot(id).song)
    expect(snapshot(id).song.tempo.bpm_at(9000)).to eq 120
    2.times do
      undo(id)
      expect(snapshot(id).song.tempo.bpm_at(9000)).to eq 120
      redo_edit(id)
      expect([json_of(snapshot(id).song), json_of(SongRows.read(id))]).to eq [before, before]
    end
  end

  it "hand back knobs that were held, from an old log too" do
    held = apply(small_song(lanes: [envelope([0, 0.3], id: "l1")]), "set_knob", address: CUTOFF, value: 0.5).song
    document = OldSongs.document(held)
    track = OldSongs.parts(document).find { |kind, part_id, _| [kind, part_id] == %w[track bass] }[2]
    free = JSON.parse(JSON.generate(track)).tap { |record| record["devices"].each { |device| device.merge!("held" => [], "values" => {}) } }
    id = store(document, log: [[["track", "bass", free, track]]])
    expect(snapshot(id).song.held_value(address(CUTOFF))).to eq 0.5
    undo(id)
    expect([snapshot(id).song.held, json_of(SongRows.read(id))]).to eq [[], json_of(snapshot(id).song)]
  end

  it "come in as documents, with the places told" do
    answer = post_json("/api/songs/import", OldSongs.document(song))
    expect(last_response.status).to eq 201
    expect(get_json("/api/songs/#{answer['id']}")["places"].size).to eq 2
    expect(snapshot(answer["id"]).song).to eq song
  end

  it "opens one of version 2 with limits in place of its ranges; nothing of it is a step of undo" do
    id = plant(DemoSong.still)
    move = snapshot(id).song.clip("mooring").envelopes.find { |one| one.role == "shift" }
    row = PartRow.find_by!(song_id: id, kind: "envelope", part_id: move.id)
    row.update!(record: JSON.generate(JSON.parse(row.record).merge("range" => [0.0, 0.5])))
    SongRow.find(id).update!(format: 2)
    Server.open_songs.forget(id)
    told = get_json("/api/songs/#{id}")
    record = told["parts"].find { |_, part| part == move.id }[2]
    expect(record.values_at("limits", "range")).to eq [[-0.5, 0.5], nil]
    expect(told.values_at("undo", "places")).to eq [nil, []]
    tick = move.points.max_by(&:value).tick
    expect(snapshot(id).song.directory.envelope(move.id).envelope.at(tick)).to be_within(1e-9).of(move.at(tick) * 0.5)
  end

  describe "of version 3" do
    let(:tempos) { [{ "tick" => 0, "bpm" => 92, "shape" => "straight" }, { "tick" => 7680, "bpm" => 72, "shape" => "hold" }] }

    # The head of a row as it was.
    def old_head(id, tempo = tempos)
      row = PartRow.find_by!(song_id: id, kind: "song")
      row.update!(record: JSON.generate(JSON.parse(row.record).except("bpm").merge("tempo" => tempo)))
      SongRow.find(id).update!(format: 3)
      Server.open_songs.forget(id)
    end

    it "is opened, stored or as a document, as it is; its tempos are a lane on the master" do
      id = plant(DemoSong.still)
      before = snapshot(id).song
      old_head(id, tempos.first(1))
      expect(get_json("/api/songs/#{id}").values_at("undo", "places")).to eq [nil, []]
      expect([snapshot(id).song, SongRow.find(id).format]).to eq [before, KindSatchel::Document::VERSION]
      document = JSON.parse(json_of(before)).except("bpm").merge("version" => 3, "tempo" => tempos)
      read = Schemas.read_song(JSON.generate(document)).song
      expect([read.bpm, read.tempo.bpm_at(3840), read.tempo.bpm_at(9000)]).to eq [92, 82.0, 72.0]
      old_head(id)
      expect(snapshot(id).song).to eq read
      expect(SongRows.read(id)).to eq read
      macros = document["tracks"][0].merge("devices" => [{ "id" => "m", "type" => "macro-strip", "values" => {}, "held" => {}, "macros" => [] },
                                                         *document["tracks"][0]["devices"]])
      newer = document.merge("tracks" => [macros, *document["tracks"].drop(1)])
      expect { Schemas.read_song(JSON.generate(newer)) }.to raise_error(KindSatchel::InvalidInput)
    end

    it "undoes and does again what changed its tempos" do
      id = plant(DemoSong.still)
      edit(id, "rename_song", { name: "Ebb" })
      entry = EditRow.find_by!(song_id: id, place: 1)
      heads = JSON.parse(entry.patch)[0][2..].map { |head| head.except("bpm") }
      heads = [heads[0].merge("tempo" => tempos.first(1)), heads[1].merge("tempo" => tempos)]
      entry.update!(patch: JSON.generate([["song", "head", *heads]]))
      old_head(id)
      moved = snapshot(id).song
      Server.edit_log.undo(id, revision(id))
      expect([snapshot(id).song.tempo.bpm_at(9000), SongRows.read(id)]).to eq [92, snapshot(id).song]
      Server.edit_log.redo(id, revision(id))
      expect([snapshot(id).song, SongRows.read(id)]).to eq [moved, moved]
    end
  end
end
