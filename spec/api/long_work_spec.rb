# frozen_string_literal: true

require "socket"

# Large songs are worked on by a process of its own.
RSpec.describe "Long work" do
  # The demo with so many notes and points that it is large.
  let(:large) do
    song = DemoSong.build
    points = Array.new(26_000) { |i| KindSatchel::Point.new(tick: i * 4, value: (i % 97) / 96.0, shape: KindSatchel::Shapes::Straight::PLAIN) }
    lane = song.track("master").lanes.first
    song.with_track(song.track("master").with(lanes: [lane.with(points:), *song.track("master").lanes.drop(1)]))
  end
  let(:id) { plant(large) }
  let(:token) { "work-#{rand(10**9)}" }

  def progress(socket, count)
    text = +""
    text << socket.readpartial(65_536) until text.scan("event: progress").size >= count && text.end_with?("\n\n")
    text.scan(/^event: progress\ndata: (.*)$/).map { |(data)| JSON.parse(data)["progress"] }
  end

  it "takes a document in, with its progress told, and refuses it like any other", :long do
    ours, theirs = UNIXSocket.pair
    Server.listeners.add(token, ours, 0)
    text = json_of(large)
    answer = post_json("/api/songs/import", text, "HTTP_X_WORK" => token)
    expect([last_response.status, json_of(snapshot(answer["id"]).song)]).to eq [201, text]
    expect(progress(theirs, 2)).to eq [0.05, 0.6]
    broken = post_json("/api/songs/import", text.sub('"kind":"notes"', '"kind":"noise"'))
    expect([last_response.status, broken["faults"][0]["code"]]).to eq [422, "schema_enum"]
  end

  it "steps back for whoever plays and is answered meanwhile" do
    nice = Workers.new.take do |worker,|
      100.times { Process.getpriority(Process::PRIO_PROCESS, worker.pid).positive? ? break : sleep(0.1) }
      Process.getpriority(Process::PRIO_PROCESS, worker.pid)
    end
    expect(nice).to be > Process.getpriority(Process::PRIO_PROCESS, 0)
  end

  it "gives a document and what plays out", :long do
    expect(json_of(KindSatchel::Document.load(get_json("/api/songs/#{id}/export")))).to eq json_of(large)
    found = get_json("/api/songs/#{id}/playback?from_tick=0&to_tick=#{80 * BAR}")
    expect(found).to eq JSON.parse(JSON.generate(Playback.new(large).stretch(0, 80 * BAR)))
  end

  it "mends all of a kind in it", :long do
    home = large.directory.envelopes.each_value.find { |one| one.clip&.id == "mooring" }
    edit(id, "switch_envelope", { envelope_id: home.envelope.id, on: false })
    itself = apply(snapshot(id).song, "mend_ends", check: "off", fix: 0)
    made = edit(id, "mend_ends", { check: "off", fix: 0 })
    expect([made["words"], json_of(snapshot(id).song)]).to eq ["switch it on: 2 loose ends", json_of(itself.song)]
  end

  it "compares it with a version" do
    kept = VersionShelf.keep(id, "Before")
    edit(id, "set_knob", { address: "crate-kit/channel/pan", value: 0.75 })
    found = get_json("/api/songs/#{id}/versions/#{kept['id']}/comparison")
    expect(found["rows"].map { |row| row.values_at("name", "largest", "knob") }).to eq [["Pan of Crate Kit", 50.0, 0.5]]
    gone = ->(path) { get_json("/api/songs/#{id}/versions/#{path}")["faults"][0]["code"] }
    expect([gone.call("9999/comparison"), gone.call("#{kept['id']}/comparison?with=9999")]).to eq %w[unknown_version unknown_version]
  end

  it "lays much out, as the edit itself would, in one step of undo" do
    before = json_of(snapshot(id).song)
    made = edit(id, "lay_out", { track_id: "rope-bass" })
    itself = apply(large, "lay_out", track_id: "rope-bass")
    expect([made["words"], made["notices"].map { |notice| notice["text"] }]).to eq [itself.words, itself.notices.map(&:text)]
    expect(json_of(snapshot(id).song)).to eq json_of(itself.song)
    post_json("/api/songs/#{id}/undo", { revision: 2 })
    expect(json_of(snapshot(id).song)).to eq before
    expect(edit(id, "lay_out", { track_id: "master" })["faults"][0]["code"]).to eq "nothing_to_lay_out"
  end

  it "can be cancelled; then nothing is stored" do
    count = SongRow.count
    headers = { "HTTP_HOST" => "127.0.0.1", "CONTENT_TYPE" => "application/json", "HTTP_X_WORK" => token }
    work = Thread.new { Rack::MockRequest.new(from_here).post("/api/songs/import", headers.merge(input: json_of(large))) }
    session = Rack::MockRequest.new(from_here)
    400.times do
      break if JSON.parse(session.delete("/api/jobs/#{token}", "HTTP_HOST" => "127.0.0.1").body)["cancelled"]

      sleep 0.01
    end
    answer = work.value
    expect([answer.status, JSON.parse(answer.body)["faults"][0]["code"], SongRow.count]).to eq [409, "cancelled", count]
  end

  # Asks for a large song to be taken in, and does something with the process that does it.
  def taken_in
    headers = { "HTTP_HOST" => "127.0.0.1", "CONTENT_TYPE" => "application/json", "HTTP_X_WORK" => token, input: json_of(large) }
    work = Thread.new { Rack::MockRequest.new(from_here).post("/api/songs/import", headers) }
    running = Server.long_work.instance_variable_get(:@running)
    1000.times { running[token] ? break : sleep(0.01) }
    yield running[token]
    work.value
  end

  it "says that it could not be finished where its process is killed, or takes too long; nothing is stored" do
    count = SongRow.count
    killed = taken_in { |pid| Process.kill("KILL", pid) }
    expect([killed.status, JSON.parse(killed.body)["faults"][0].values_at("code", "message")])
      .to match [503, ["not_finished", /\AIt could not be finished, nothing was changed. Its process ended before it was done \(import, ended by signal 9/]]
    stub_const("LongWork::MOST_SECONDS", Hash.new(0))
    late = taken_in { nil }
    expect([late.status, JSON.parse(late.body)["faults"][0]["message"], SongRow.count])
      .to eq [503, "It could not be finished, nothing was changed. It took too long, and was ended.", count]
  end

  def connected
    listening = TCPServer.new("127.0.0.1", 0)
    [TCPSocket.new("127.0.0.1", listening.addr[1]), listening.accept]
  end

  it "ends when nobody waits for it any more, also where the last words of the other end lie unread" do
    theirs, ours = connected
    asker = Asker.new("work-12345", ours)
    expect(asker.gone?).to be false
    theirs.write("bye")
    theirs.close
    expect(asker).to be_gone
    pid = nil
    workers = Workers.new
    allow(workers).to(receive(:take).and_wrap_original { |take, *rest, &block| take.call(*rest) { |one, count| (pid = one.pid) && block.call(one, count) } })
    work = LongWork.new(Server.listeners, workers)
    expect { work.with_file("import", {}, asker:, content: json_of(large)) }.to raise_error(Asker::Left).and output(/nobody waits for it/).to_stderr
    expect { Process.kill(0, pid) }.to raise_error(Errno::ESRCH)
  end

  it "does only so much at a time, in order, and tells who waits how many are before it" do
    turns = Turns.new(2, waiting: 2)
    inside, leave, told, done = Queue.new, Queue.new, Queue.new, Queue.new
    first = Thread.new { turns.take(2, ->(_) {}) { (inside << 1) && leave.pop } }
    inside.pop
    others = Array.new(2) do |i|
      Thread.new { turns.take(1, ->(before) { told << [i, before] }) { done << i } }.tap { |_| told.pop }
    end
    expect { turns.take(1, ->(_) {}) { nil } }.to raise_error(Turns::Full)
    leave << :go
    [first, *others].each(&:value)
    expect([done.pop, done.pop]).to contain_exactly(0, 1)
    left = Class.new(StandardError)
    hold = Thread.new { turns.take(2, ->(_) {}) { (inside << 1) && leave.pop } }
    inside.pop
    expect { turns.take(1, ->(_) { raise left }) { nil } }.to raise_error(left)
    leave << :go
    hold.value
    expect(turns.take(5, ->(_) {}) { |count| count }).to eq 2
  end

  it "has so much memory and no more, and answers a page of somebody else nothing" do
    limits = Workers.new.take { |worker,| File.read("/proc/#{worker.pid}/limits") }
    expect(limits[/Max address space\s+(\d+)/, 1].to_i).to eq Workers::MOST_MEMORY
    foreign = { "HTTP_SEC_FETCH_SITE" => "cross-site" }
    expect(call("GET", "/api/songs/#{id}/offline?block_ticks=3840", nil, foreign)["faults"][0]["code"]).to eq "foreign_origin"
    expect(call("GET", "/api/songs", nil, { "HTTP_SEC_FETCH_SITE" => "same-origin" })).to be_an(Array)
    custom_request("GET", "/songs/#{id}", {}, { "HTTP_HOST" => "127.0.0.1", **foreign })
    expect(last_response.status).to eq 200
  end
end
