# frozen_string_literal: true

require "net/http"
require "open3"
require "openssl"
require "socket"
require "tmpdir"

# The server as devices on the network meet it: by TLS, with a key, over websockets.
RSpec.describe "The server open to the network" do
  root = File.expand_path("../..", __dir__)

  def free_port = TCPServer.open("127.0.0.1", 0) { |socket| socket.addr[1] }

  before(:context) do
    @folder = Dir.mktmpdir
    @port, @tls_port = free_port, free_port
    environment = { "SATCHEL_DB" => File.join(@folder, "songs.sqlite3"), "PORT" => @port.to_s, "TLS_PORT" => @tls_port.to_s, "BIND" => "0.0.0.0",
                    "TMPDIR" => File.join(@folder, "temporary").tap { |path| FileUtils.mkdir_p(path) } }
    @said, @server = IO.pipe.then { |out, into| [out, spawn(environment, "bundle", "exec", "puma", "-C", "config/puma.rb", chdir: root, out: into, err: log)] }
    Timeout.timeout(60) { sleep 0.2 until here("/api/songs").then { |answer| answer && JSON.parse(answer.body).any? } }
  end

  after(:context) do
    Process.kill("TERM", @server)
    Process.wait(@server)
    FileUtils.rm_rf(@folder)
  end

  def here(path, method = "GET", data = nil)
    Net::HTTP.start("127.0.0.1", @port) { |http| http.send_request(method, path, data && JSON.generate(data), "Content-Type" => "application/json") }
  rescue SystemCallError
    nil
  end

  def log = File.join(@folder, "log")
  def authority = File.join(@folder, "songs.sqlite3-tls", "authority.pem")

  # As from another machine: by an address of the network, or, where there is none, by way of somebody else.
  def far(path, method = "GET", headers = {})
    http = Net::HTTP.new("127.0.0.1", @tls_port)
    http.use_ssl, http.ca_file = true, authority
    http.start { |open| open.send_request(method, path, nil, { "X-Forwarded-For" => "10.0.0.7", **headers }) }
  end

  def invite(kind = "surface") = JSON.parse(here("/api/songs/1/invitation", "POST", { kind: }).body)
  def cookie(kind = "surface") = far(invite(kind)["address"][%r{/enter/.*}], "POST")["set-cookie"][/satchel_key=[^;]+/]

  def far_socket(role, headers)
    raw = OpenSSL::SSL::SSLSocket.new(TCPSocket.new("127.0.0.1", @tls_port)).tap(&:connect)
    from = { "Origin" => "https://127.0.0.1:#{@tls_port}", "X-Forwarded-For" => "10.0.0.7" }
    FarSocket.new(raw, "wss://127.0.0.1:#{@tls_port}/api/songs/1/hands?role=#{role}", { **from, **headers })
  end

  it "speaks TLS by a certificate that openssl verifies, whose key nobody else reads; the authority can be taken" do
    given, status = Open3.capture2e("openssl", "verify", "-CAfile", authority, File.join(@folder, "songs.sqlite3-tls", "certificate.pem"))
    expect([given, status.success?]).to match [/OK/, true]
    modes = Dir[File.join(@folder, "songs.sqlite3-tls", "*.key")].map { |file| format("%o", File.stat(file).mode & 0o777) }
    expect(modes).to eq %w[600 600]
    taken = far("/enter/authority.pem")
    expect([taken.code, taken["content-type"], taken.body]).to eq ["200", "application/x-x509-ca-cert", File.read(authority)]
  end

  it "lets nobody in without a key; with one, by the address that is shown" do
    expect(far("/api/songs").code).to eq "401"
    expect(far("/", "GET", "Accept" => "text/html").body).to include("Add a phone")
    expect(far("/api/songs", "GET", "Cookie" => cookie("studio")).code).to eq "200"
    expect(invite["address"]).to start_with("https://").and include(":#{@tls_port}/enter/")
  end

  it "gives hands to one studio of a song, the one that came last, which is told who is there; the other takes over when it goes" do
    held = { "Cookie" => cookie }
    first = far_socket("studio", held)
    first.until_heard { |heard| heard.any? { |one| one["t"] == "hello" } }
    surface = far_socket("surface", held)
    surface.until_heard { |heard| heard.any? { |one| one["t"] == "hello" } }
    second = far_socket("studio", held)
    expect(second.until_heard { |heard| heard.any? { |one| one.values_at("t", "role") == %w[came surface] } }).to be true
    first.say("t" => "state", "of" => 1)
    second.say("t" => "state", "of" => 2)
    expect(surface.until_heard { |heard| heard.any? { |one| one["of"] == 2 } }).to be true
    surface.say("t" => "turn", "v" => 1)
    expect(second.until_heard { |heard| heard.any? { |one| one["t"] == "turn" } }).to be true
    first.until_heard(0.5) { false }
    expect([first.heard.count { |one| one["t"] == "turn" }, surface.heard.count { |one| one["of"] == 1 }]).to eq [0, 0]
    second.close
    surface.until_heard { |heard| heard.any? { |one| one.values_at("t", "role") == %w[gone studio] } }
    surface.say("t" => "turn", "v" => 0)
    expect(first.until_heard { |heard| heard.any? { |one| one["t"] == "turn" } }).to be true
    [first, surface].each(&:close)
  end

  it "passes hands on from surfaces to the studio and back, to nobody else; refuses foreign origins; lets go of what was withdrawn" do
    held = cookie
    studio = far_socket("studio", "Cookie" => held)
    expect(studio.until_heard { |heard| heard.any? { |one| one["t"] == "hello" } }).to be true
    surface = far_socket("surface", "Cookie" => held)
    expect(studio.until_heard { |heard| heard.any? { |one| one["t"] == "came" } }).to be true
    expect(surface.until_heard { |heard| heard.any? { |one| one["t"] == "hello" && one["studios"] == 1 } }).to be true
    surface.say("t" => "turn", "a" => "x/y/z", "v" => 0.5)
    surface.say("no json")
    surface.say([1, 2])
    expect(studio.until_heard { |heard| heard.any? { |one| one["t"] == "turn" } }).to be true
    turn = studio.heard.find { |one| one["t"] == "turn" }
    studio.say("t" => "values", "to" => turn["from"], "v" => { "x/y/z" => 0.5 })
    expect(surface.until_heard { |heard| heard.any? { |one| one["t"] == "values" } }).to be true
    studio.say("t" => "state", "faders" => Array.new(400) { |i| { "a" => "track-#{i}/channel/volume", "name" => "x" * 100 } })
    expect(surface.until_heard { |heard| heard.any? { |one| one["t"] == "state" && one["faders"].size == 400 } }).to be true
    foreign = far_socket("surface", "Cookie" => held, "Origin" => "https://evil.example")
    foreign.until_heard(1) { false }
    expect(foreign.heard).to eq []
    keys = JSON.parse(here("/api/keys").body)
    here("/api/keys/#{keys.last['id']}", "DELETE")
    surface.until_heard { false }
    expect(surface).to be_closed
    expect(far("/api/songs", "GET", "Cookie" => held).code).to eq "401"
  end

  # A device that takes little at a time, and then nothing.
  def sleeping_socket
    raw = Socket.new(:INET, :STREAM).tap { |socket| socket.setsockopt(:SOCKET, :RCVBUF, 4096) }
    raw.connect(Socket.sockaddr_in(@tls_port, "127.0.0.1"))
    [OpenSSL::SSL::SSLSocket.new(raw).tap(&:connect), raw]
  end

  def sleeping(path, held, *more)
    secret, raw = sleeping_socket
    head = ["GET #{path} HTTP/1.1", "Host: 127.0.0.1:#{@tls_port}", "Cookie: #{held}", "X-Forwarded-For: 10.0.0.7", *more]
    secret.write("#{head.join("\r\n")}\r\n\r\n")
    [secret, raw]
  end

  def step(word, revision) = JSON.parse(here("/api/songs/1/#{word}", "POST", { revision: }).body)["revision"]

  def notes_put_in
    revision = JSON.parse(here("/api/songs/1").body)["revision"]
    notes = Array.new(4000) { |i| { tick: i, length_ticks: 30, pitch: 30 + (i % 60), velocity: 90 } }
    put = here("/api/songs/1/edits", "POST", { revision:, edit: "add_notes", inputs: { clip_id: "mooring", notes: } })
    JSON.parse(put.body).fetch("revision")
  end

  it "answers edits, and tells them to others, while a phone with an open song sleeps" do
    held = cookie
    asleep, = sleeping("/api/songs/1/events", held)
    plain = TCPSocket.new("127.0.0.1", @port)
    plain.write("GET /api/songs/1/events HTTP/1.1\r\nHost: 127.0.0.1:#{@port}\r\n\r\n")
    awake, = sleeping("/api/songs/1/events", held)
    told = +""
    reader = Thread.new { loop { told << awake.readpartial(65_536) } }
    revision = notes_put_in
    slowest = Array.new(60) do |i|
      begun = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      revision = step(i.even? ? "undo" : "redo", revision)
      Process.clock_gettime(Process::CLOCK_MONOTONIC) - begun
    end.max
    expect([revision, slowest]).to match [Integer, be < 4]
    50.times { told.include?("\"revision\":#{revision}") ? break : sleep(0.1) }
    expect(told).to include("\"revision\":#{revision}")
    reader.kill
    [asleep, awake, plain].each(&:close)
  end

  # Begins to send a body, and answers what comes back at once.
  def begun(head, body)
    secret, = sleeping_socket
    lines = [*head, "Host: 127.0.0.1:#{@tls_port}", "X-Forwarded-For: 10.0.0.7"]
    secret.write("#{lines.join("\r\n")}\r\n\r\n#{body}")
    Timeout.timeout(5) { secret.readpartial(4096) }
  ensure
    secret&.close
  end

  def buffered = Dir[File.join(@folder, "temporary/**/*")].sum { |path| File.file?(path) ? File.size(path) : 0 }

  it "refuses bodies by their heads, without taking them in: without a key, and from keys more than they may send" do
    part = "x" * 100_000
    held, studio = cookie, cookie("studio")
    sound = ["POST /api/sounds?name=A HTTP/1.1", "Content-Type: audio/wav"]
    expect(begun([*sound, "Content-Length: 150000000"], part)).to match(/\AHTTP.1.1 401.*no_key/m)
    expect(begun([*sound, "Transfer-Encoding: chunked"], "186a0\r\n#{part}\r\n")).to match(/\AHTTP.1.1 401.*no_key/m)
    expect(begun([*sound, "Content-Length: 3000000", "Cookie: #{held}"], part)).to match(/\AHTTP.1.1 413.*too_large/m)
    expect(begun(["POST /api/songs/1/edits HTTP/1.1", "Content-Length: 3000000", "Cookie: #{studio}"], part)).to match(/\AHTTP.1.1 413.*larger than 1 MB/m)
    chunks = "186a0\r\n#{part}\r\n" * 12
    expect(begun(["POST /api/songs/1/edits HTTP/1.1", "Transfer-Encoding: chunked", "Cookie: #{studio}"], chunks)).to match(/\AHTTP.1.1 400/)
    expect(begun([*sound, "Content-Length: 100000", "Cookie: #{studio}"], part)).to match(/\AHTTP.1.1 422.*no_sound/m)
    expect(buffered).to eq 0
  end

  it "ends the stream of a device whose key is withdrawn, at once" do
    held = cookie
    stream, = sleeping("/api/songs/1/events", held)
    expect(stream.readpartial(4096)).to include("200 OK")
    here("/api/keys/#{JSON.parse(here('/api/keys').body).last['id']}", "DELETE")
    expect { Timeout.timeout(5) { loop { stream.readpartial(4096) } } }.to raise_error(an_instance_of(EOFError).or(be_a(OpenSSL::SSL::SSLError)))
  end

  def pair_of_hands(held)
    studio, surface = far_socket("studio", "Cookie" => held), far_socket("surface", "Cookie" => held)
    [studio, surface].each { |one| one.until_heard { |heard| heard.any? { |said| said["t"] == "hello" } } }
    [studio, surface]
  end

  def turned(studio, value, seconds = 3) = studio.until_heard(seconds) { |heard| heard.any? { |one| one.values_at("t", "v") == ["turn", value] } }

  it "loses only who sends a damaged record, or does not read, and says so once" do
    held = cookie
    studio, surface = pair_of_hands(held)
    upgrade = ["Upgrade: websocket", "Connection: Upgrade", "Sec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==", "Sec-WebSocket-Version: 13",
               "Origin: https://127.0.0.1:#{@tls_port}"]
    broken, raw = sleeping("/api/songs/1/hands?role=surface", held, *upgrade)
    asleep, = sleeping("/api/songs/1/hands?role=surface", held, *upgrade)
    expect(broken.readpartial(4096)).to include("101")
    raw.write("\x17\x03\x03\x00\x20".b + ("\xaa" * 32).b)
    surface.say("t" => "turn", "v" => 0.25)
    expect(turned(studio, 0.25)).to be true
    40.times { studio.say("t" => "state", "text" => "x" * 200_000) }
    studio.say("t" => "values", "v" => 1)
    expect(surface.until_heard(10) { |heard| heard.any? { |one| one["t"] == "values" } }).to be true
    sleep 0.5
    expect(File.readlines(log).grep(/let go/).size).to be <= 2
    expect(File.size(log)).to be < 20_000
    [studio, surface, asleep].each(&:close)
  end

  it "lets no surface that floods starve another; its newest value comes through" do
    studio, flooding = pair_of_hands(cookie)
    calm = far_socket("surface", "Cookie" => cookie)
    calm.until_heard { |heard| heard.any? { |said| said["t"] == "hello" } }
    flood = Thread.new do
      finish = Process.clock_gettime(Process::CLOCK_MONOTONIC) + 2
      flooding.say("t" => "turn", "v" => 2) while Process.clock_gettime(Process::CLOCK_MONOTONIC) < finish
      flooding.say("t" => "turn", "v" => 3)
    end
    sleep 0.5
    calm.say("t" => "turn", "v" => 0.75)
    expect(turned(studio, 0.75, 1.5)).to be true
    flood.join
    expect(turned(studio, 3)).to be true
    expect(studio.heard.count { |one| one["v"] == 2 }).to be < 2500
    [studio, flooding, calm].each(&:close)
  end
end
