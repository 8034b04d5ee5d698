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
    environment = { "SATCHEL_DB" => File.join(@folder, "songs.sqlite3"), "PORT" => @port.to_s, "TLS_PORT" => @tls_port.to_s, "BIND" => "0.0.0.0" }
    @said, @server = IO.pipe.then { |out, into| [out, spawn(environment, "bundle", "exec", "puma", "-C", "config/puma.rb", chdir: root, out: into, err: File::NULL)] }
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

  def authority = File.join(@folder, "songs.sqlite3-tls", "authority.pem")

  # As from another machine: by an address of the network, or, where there is none, by way of somebody else.
  def far(path, method = "GET", headers = {})
    http = Net::HTTP.new("127.0.0.1", @tls_port)
    http.use_ssl, http.ca_file = true, authority
    http.start { |open| open.send_request(method, path, nil, { "X-Forwarded-For" => "10.0.0.7", **headers }) }
  end

  def invite = JSON.parse(here("/api/songs/1/invitation", "POST", {}).body)
  def cookie = far(invite["address"][%r{/enter/.*}], "POST")["set-cookie"][/satchel_key=[^;]+/]

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
    expect(far("/api/songs", "GET", "Cookie" => cookie).code).to eq "200"
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
end
