# frozen_string_literal: true

# What goes wrong around a song: other writers, the disk, the file, broken requests. Nothing is lost, and each is named.
RSpec.describe "Troubles" do
  let(:id) { plant }

  def codes(answer) = answer["faults"].map { |fault| fault["code"] }
  def rename(song_id, name) = edit(song_id, "rename_song", { name: })

  # A second user of the database file.
  def other
    database = SQLite3::Database.new(AppHelpers::DATABASE)
    yield database
  ensure
    database.close
  end

  # Requests from threads of their own, each with a session of its own.
  def at_once(jobs)
    jobs.map { |job| Thread.new { Rack::MockRequest.new(from_here).then(&job) } }.map(&:value)
  end

  def post_edit(song_id, revision, edit, inputs)
    lambda do |session|
      session.post("/api/songs/#{song_id}/edits", "HTTP_HOST" => "127.0.0.1", "CONTENT_TYPE" => "application/json",
                                                  :input => JSON.generate(revision:, edit:, inputs:))
    end
  end

  it "lets many songs be edited at once: no edit fails, none is lost" do
    ids = Array.new(4) { plant }
    statuses = at_once(ids.map do |song_id|
      ->(session) { Array.new(12) { |i| post_edit(song_id, i + 1, "rename_song", { name: "Take #{i}" }).call(session).status } }
    end)
    expect(statuses.flatten.tally).to eq(200 => 48)
    ids.each { |song_id| expect([revision(song_id), SongRow.find(song_id).done_edits, SongRows.read(song_id).name]).to eq [13, 12, "Take 11"] }
  end

  it "says that it is busy while somebody else holds the lock, reads on meanwhile, and goes on after" do
    snapshot(id)
    other do |database|
      database.execute("BEGIN IMMEDIATE")
      started = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      expect([codes(rename(id, "Busy")), last_response.status]).to eq [["busy"], 503]
      expect(Process.clock_gettime(Process::CLOCK_MONOTONIC) - started).to be_between(1.0, 8.0)
      expect([get_json("/api/songs/#{id}")["revision"], get_json("/api/songs").map { |one| one["id"] }]).to match [1, include(id)]
      database.execute("ROLLBACK")
    end
    expect(rename(id, "Free")["revision"]).to eq 2
  end

  it "notices that the row has moved on, and takes the newest state" do
    snapshot(id)
    SongRow.where(id:).update_all(revision: 7)
    answer = edit(id, "rename_song", { name: "Late" })
    expect([last_response.status, answer["revision"], revision(id)]).to eq [409, 7, 7]
  end

  it "keeps everything when the disk is full, and says so" do
    # Songs that came and went leave pages that are free: there would be room.
    gone = Array.new(60) { |i| SongRow.create!(name: "Gone #{i}", format: 1, revision: 1, done_edits: 0, places: "x" * 60_000).id }
    SongRow.where(id: gone).delete_all
    snapshot(id)
    connection = ActiveRecord::Base.connection
    connection.execute("VACUUM")
    connection.execute("PRAGMA max_page_count = #{connection.select_value('PRAGMA page_count')}")
    answers = []
    answers << rename(id, "Full #{answers.size} #{'x' * 80}") until answers.size == 400 || answers.last&.key?("faults")
    expect([last_response.status, codes(answers.last)]).to eq [507, ["disk_full"]]
    Server.open_songs.forget(id)
    expect(SongRows.read(id).name).to start_with answers.size > 1 ? "Full #{answers.size - 2} " : "Low Tide Market"
    expect([revision(id), SongRow.find(id).done_edits]).to eq [answers.size, answers.size - 1]
  ensure
    connection.execute("PRAGMA max_page_count = 4294967294")
    expect(rename(id, "Room")["faults"]).to be_nil
  end

  # As SQLite does it of itself on a full disk (its documentation: "the transaction might be rolled back automatically").
  def full
    connection = SongRow.connection
    gone = lambda do |*|
      connection.execute("ROLLBACK")
      connection.execute("PRAGMA max_page_count = 1")
      raise SQLite3::FullException, "database or disk is full"
    end
    %i[exec_insert exec_update exec_delete].each { |way| allow(connection).to(receive(way).and_wrap_original { |*| gone.call }) }
    yield
  ensure
    RSpec::Mocks.space.proxy_for(SongRow.connection).reset
    SongRow.connection.execute("PRAGMA max_page_count = 4294967294")
  end

  it "says that the disk is full, of every kind of write, also where the transaction is gone already; reading goes on" do
    snapshot(id)
    # What was kept before by others would be kept already.
    MappingRow.delete_all
    writes = [["POST", "/api/songs", { name: "New" }], ["POST", "/api/songs/#{id}/edits", { revision: 1, edit: "rename_song", inputs: { name: "Full" } }],
              ["POST", "/api/songs/#{id}/duplicate", {}], ["POST", "/api/songs/#{id}/versions", { name: "Kept" }], ["DELETE", "/api/songs/#{id}", nil],
              ["POST", "/api/songs/#{id}/mappings", { all: [] }], ["POST", "/api/songs/#{id}/mixdown", { peak_db: -1, revision: 1 }],
              ["POST", "/api/songs/#{id}/invitation", {}], ["POST", "/api/songs/#{id}/places_seen", {}]]
    found = full { writes.map { |verb, path, data| [path, codes(call(verb, path, data)), last_response.status] } }
    expect(found).to eq(writes.map { |_, path,| [path, ["disk_full"], 507] })
    SongRow.where(id:).update_all(card_revision: nil)
    paths = %W[/api/songs /api/bin /api/songs/#{id} /api/songs/#{id}/clock /api/sounds /api/presets]
    expect(full { paths.map { |path| get_json(path) && last_response.status } }.uniq).to eq [200]
    expect(rename(id, "Room")["revision"]).to eq 2
  end

  it "says that the disk is full where a file is written" do
    allow(IO).to receive(:copy_stream).and_raise(Errno::ENOSPC)
    answer = call("POST", "/api/sounds?name=A", "RIFF", "CONTENT_TYPE" => "audio/wav")
    expect([codes(answer), last_response.status]).to eq [["disk_full"], 507]
  end

  it "says that a file may not be written to" do
    snapshot(id)
    ActiveRecord::Base.connection.execute("PRAGMA query_only = 1")
    expect([codes(rename(id, "No")), last_response.status]).to eq [["read_only"], 503]
    expect(get_json("/api/songs/#{id}")["revision"]).to eq 1
  ensure
    ActiveRecord::Base.connection.execute("PRAGMA query_only = 0")
  end

  it "names a song whose parts are damaged, and leaves the others alone" do
    PartRow.where(song_id: id, kind: "region").limit(1).update_all(record: "{ broken")
    Server.open_songs.forget(id)
    expect([codes(get_json("/api/songs/#{id}/clock")), last_response.status]).to eq [["unreadable"], 503]
    expect(rename(plant, "Other")["revision"]).to eq 2
  end

  it "tells damage of a song from a mistake of ours" do
    part = PartRow.find_by!(song_id: id, kind: "track", part_id: "rope-bass")
    part.update!(record: JSON.generate(JSON.parse(part.record).except("devices")))
    Server.open_songs.forget(id)
    answer = get_json("/api/songs/#{id}/clock")
    expect([codes(answer), last_response.status, answer["faults"][0]["message"]]).to match [["unreadable"], 503, %r{schema_required at /tracks/1}]
    expect(get_json("/api/songs").map { |one| one["id"] }).to include id
    other = plant
    Server.open_songs.forget(other)
    allow(KindSatchel::Parts).to receive(:assemble).and_raise(NoMethodError, "spoiled")
    expect([codes(get_json("/api/songs/#{other}/clock")), last_response.status]).to eq [["our_fault"], 500]
  end

  it "takes a deleted song away for edits and reads alike, also between the two" do
    session = Rack::MockRequest.new(from_here)
    snapshot(id)
    results = at_once([->(one) { [one.delete("/api/songs/#{id}", "HTTP_HOST" => "127.0.0.1").status] },
                       ->(one) { Array.new(6) { |i| post_edit(id, i + 1, "rename_song", { name: "Ghost #{i}" }).call(one).status } }])
    expect(results[0]).to eq [200]
    expect(results[1].uniq - [200, 404]).to eq []
    paths = ["", "/clock", "/drawing?tracks=rope-bass", "/export", "/values?addresses=rope-bass/synth/cutoff&tick=0"]
    expect(paths.map { |path| session.get("/api/songs/#{id}#{path}", "HTTP_HOST" => "127.0.0.1").status }).to all eq 404
    expect([rename_status(session, id), EditRow.where(song_id: id).count]).to eq [404, results[1].count(200)]
  end

  def rename_status(session, song_id) = post_edit(song_id, 1, "rename_song", { name: "Gone" }).call(session).status

  it "never says that nothing was changed once an edit is stored" do
    allow(Answer).to receive(:new).and_raise(NoMethodError, "spoiled")
    expect { rename(id, "Stored") }.to output(/spoiled/).to_stderr
    expect([last_response.status, JSON.parse(last_response.body)["faults"][0]["code"]]).to eq [500, "made"]
    expect([revision(id), SongRows.read(id).name]).to eq [2, "Stored"]
  end

  it "holds songs by how large they are, the one used last always" do
    songs = Array.new(3) { plant }
    size = snapshot(songs[0]).bytes
    expect(size).to be_within(5000).of(SongRows.texts(songs[0]).sum { |_, _, text| text.bytesize })
    small = OpenSongs.new(most_bytes: (size * 2) + 100)
    songs.each { |song_id| small.fetch(song_id) }
    expect(small.held).to eq songs.last(2)
    tiny = OpenSongs.new(most_bytes: 1)
    songs.each { |song_id| tiny.fetch(song_id) }
    expect(tiny.held).to eq songs.last(1)
  end

  describe "requests that are broken" do
    bad = "\xff\xfe"
    {
      "a body that is no UTF-8" => ["POST", "/api/songs", "{\"name\":\"#{bad}\"}", 422, "bad_encoding"],
      "a path that is no UTF-8" => ["GET", "/api/songs/%FF%FE", nil, 400, "bad_encoding"],
      "a query that is no UTF-8" => ["GET", "/api/songs/1/values?addresses=%FF&tick=0", nil, 400, "bad_encoding"],
      "parameters nested deep" => ["GET", "/api/songs/1/values?#{"a#{'[b]' * 200}=1"}", nil, 400, "bad_request"],
      "a name that is a number" => ["POST", "/api/songs", '{"name":5}', 422, "bad_value"],
      "a number beyond all bounds" => ["POST", "/api/songs/import", '{"format":1e999999}', 422, "out_of_range"],
      "an edit that is no name" => ["POST", "/api/songs/1/edits", '{"edit":{"a":1},"inputs":[],"revision":1}', 422, "bad_value"],
      "an edit that is none" => ["POST", "/api/songs/1/edits", '{"edit":"sing","inputs":{},"revision":1}', 404, "unknown_edit"],
      "another kind of body" => ["POST", "/api/songs", "[]", 422, "bad_json"],
      "a stretch beyond all time" => ["GET", "/api/songs/1/playback?from_tick=0&to_tick=99999999999999999999", nil, 422, "out_of_range"],
      "nothing at all" => ["GET", "/api/nothing", nil, 404, "unknown_page"]
    }.each do |what, (method, path, body, status, code)|
      it "answers #{what} with #{status}, in the one form" do
        answer = call(method, path, body)
        expect([last_response.status, codes(answer), last_response.content_type]).to eq [status, [code], "application/json"]
      end
    end

    it "refuses hosts and origins it does not know in the one form" do
      expect([codes(call("GET", "/api/songs", nil, "HTTP_HOST" => "evil.example")), last_response.status]).to eq [["foreign_host"], 403]
      expect(codes(post_json("/api/songs", { name: "X" }, "HTTP_ORIGIN" => "http://evil.example"))).to eq ["foreign_origin"]
      expect(codes(post_json("/api/songs", { name: "X" }, "HTTP_SEC_FETCH_SITE" => "cross-site"))).to eq ["foreign_origin"]
      post_json("/api/songs", { name: "Mine" }, "HTTP_ORIGIN" => "http://127.0.0.1", "HTTP_SEC_FETCH_SITE" => "same-origin")
      expect(last_response.status).to eq 201
    end

    it "refuses a list by its length before it looks at anything in it, and tells no more than 50 faults" do
      long = edit(id, "remove_points", { envelope_id: "x", runs: [["no"]] * 300_000 })
      expect(codes(long)).to eq ["too_many"]
      many = edit(id, "remove_points", { envelope_id: "x", runs: [%w[no no]] * 900 })
      expect(many["faults"].size).to be_between(1, 50)
      document = KindSatchel::Document.dump(DemoSong.build)
      document["clips"][0]["notes"] = [{ "tick" => -1, "length_ticks" => 0, "pitch" => 300, "velocity" => 0 }] * 2000
      expect(post_json("/api/songs/import", document)["faults"].size).to be_between(1, 50)
    end

    it "speaks to musicians" do
      expect(edit(id, "set_meter", { beats: 0, unit: 4 })["faults"][0]["message"]).to start_with "A meter is written like 4/4"
      expect(edit(id, "set_meter", { beats: 4, unit: 3 })["faults"][0]["message"]).to start_with "A meter is written like 4/4"
      expect(edit(id, "rename_song", { name: "" })["faults"][0]["message"]).to eq "Name has 1 to 120 characters."
      expect(edit(id, "rename_song", {})["faults"][0]["message"]).to eq "name is missing."
      expect(edit(id, "switch_envelope", { envelope_id: "x", on: "loud" })["faults"][0]["message"]).to eq "On is yes or no (true or false)."
    end

    it "keeps letters of any script in the name of an export" do
      edit(id, "rename_song", { name: "Ебб и Tide 潮" })
      get_json("/api/songs/#{id}/export")
      name = last_response["Content-Disposition"][/filename\*=UTF-8''(\S+)/, 1]
      expect(URI.decode_www_form_component(name)).to eq "ебб-и-tide-潮.satchel.json"
    end
  end
end
