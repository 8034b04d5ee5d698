# frozen_string_literal: true

# Devices beyond this machine: nobody comes in without a key; rules for sessions and cross-site requests as OWASP has them.
RSpec.describe "Keys of devices" do
  let(:id) { plant }
  let(:far) { { "REMOTE_ADDR" => "192.168.7.9" } }

  def invite(kind = "surface") = post_json("/api/songs/#{id}/invitation", { kind: })
  def secret(invitation) = invitation["address"][%r{/enter/([^?]+)}, 1]
  def faults = JSON.parse(last_response.body)["faults"].map { |fault| fault["code"] }

  def enter(key, headers = far, from: nil)
    custom_request("POST", "/enter/#{key}?song=#{id}", {}, { "HTTP_HOST" => "127.0.0.1", **headers, **(from ? { "REMOTE_ADDR" => from } : {}) })
  end

  # The cookie of a device that has come in.
  def cookie(kind = "surface")
    enter(secret(invite(kind)))
    last_response["set-cookie"][/satchel_key=[^;]+/]
  end

  after { KeyRow.delete_all }

  it "let nobody in from beyond the machine without one: no song, no page, no file of it, by no method" do
    [["GET", "/"], ["GET", "/api/songs"], ["GET", "/songs/#{id}"], ["POST", "/api/songs/#{id}/edits"], ["GET", "/api/songs/#{id}/export"],
     ["GET", "/index.html"],
     ["GET", "/api/songs/#{id}/hands"], ["DELETE", "/api/keys/1"]].each do |method, path|
      call(method, path, nil, far)
      expect([path, last_response.status, faults]).to eq [path, 401, ["no_key"]]
    end
  end

  it "take what was forwarded for somebody else for foreign, though it comes from this machine" do
    Gate::FORWARDED.each do |header|
      call("GET", "/api/songs", nil, header => "10.0.0.1")
      expect([header, last_response.status]).to eq [header, 401]
    end
  end

  it "are taken by one press, once; the cookie is HttpOnly and SameSite, and only digests are stored" do
    key = secret(invite)
    custom_request("GET", "/enter/#{key}?song=#{id}", {}, { "HTTP_HOST" => "127.0.0.1", **far })
    expect(last_response.body).to include("Open it")
    enter(key)
    expect([last_response.status, last_response["location"]]).to match [303, %r{/songs/#{id}/surface\z}]
    given = last_response["set-cookie"]
    expect(given.downcase).to include("httponly", "samesite=strict", "path=/")
    token = given[/satchel_key=([^;]+)/, 1]
    stored = KeyRow.all.map(&:attributes).to_s
    expect([key, token].none? { |text| stored.include?(text) }).to be true
    call("GET", "/api/songs/#{id}", nil, far.merge("HTTP_COOKIE" => "satchel_key=#{token}"))
    expect(last_response.status).to eq 200
    enter(key)
    expect([last_response.status, faults]).to eq [401, ["wrong_key"]]
  end

  it "are good for ten minutes" do
    now = Time.now
    ring = KeyRing.new(clock: -> { now })
    key, = ring.invite
    now += KeyRing::LIFE_SECONDS + 1
    expect { ring.enter(key, from: "a", device: "") }.to raise_error(KeyRing::Wrong)
    other, = ring.invite
    now += KeyRing::LIFE_SECONDS - 1
    token, = ring.enter(other, from: "a", device: "iPhone")
    expect(ring.find(token)).to have_attributes(kind: "surface", song_id: nil)
    found = ring.find(token).id
    expect(ring.good?(found)).to be true
    now += KeyRing::KEPT_SECONDS + 1
    expect([ring.find(token), ring.good?(found)]).to eq [nil, false]
  end

  it "are tried ten times a minute from one address, then a minute is waited" do
    10.times { |i| enter("wrong", { "HTTP_X_FORWARDED_FOR" => "10.2.2.#{i}" }, from: "10.1.1.1") }
    expect(last_response.status).to eq 401
    key = secret(invite)
    enter(key, from: "10.1.1.1")
    expect([last_response.status, faults]).to eq [429, ["too_many_tries"]]
    enter(key, from: "10.1.1.2")
    expect(last_response.status).to eq 303
  end

  it "are tried by the address that the owner's own proxy says, and nobody else's" do
    stub_const("ENV", ENV.to_h.merge("SATCHEL_PROXY" => "10.1.1.9"))
    10.times { enter("wrong", { "HTTP_X_FORWARDED_FOR" => "10.7.7.7, 10.3.3.3" }, from: "10.1.1.9") }
    enter("wrong", { "HTTP_X_FORWARDED_FOR" => "10.3.3.3" }, from: "10.1.1.9")
    expect(last_response.status).to eq 429
    enter("wrong", { "HTTP_X_FORWARDED_FOR" => "10.3.3.4" }, from: "10.1.1.9")
    expect(last_response.status).to eq 401
  end

  it "allow what one table says of every route: surfaces what hands need of their own song, studios all but what is done on the machine" do
    known = %w[GET POST DELETE].flat_map { |verb| Server.routes.fetch(verb).map { |pattern,| "#{verb} #{pattern}" } }.uniq
    expect(Rights::TABLE.keys).to match_array known
    held = Rights::KINDS.to_h { |kind| [kind, { **far, "HTTP_COOKIE" => cookie(kind) }] }
    other = plant(small_song)
    Rights::TABLE.each do |route, right|
      verb, path = route.split
      next if right == :anyone || path.match?(%r{/events|/hands})

      own, foreign = [id, other].map { |song| path.sub(":id", song.to_s).gsub(/:\w+/, "0").sub("/?", "").sub("*", "guide/README.md") }
      allowed = lambda do |kind, at|
        custom_request(verb, at, {}, { "HTTP_HOST" => "127.0.0.1", "CONTENT_TYPE" => "application/json", input: "{}", **held[kind] })
        ![401, 403].include?(last_response.status)
      end
      expect([route, allowed.call("surface", own)]).to eq [route, right == :surface]
      expect([route, allowed.call("surface", foreign)]).to eq [route, right == :surface && own == foreign]
      expect([route, allowed.call("studio", own)]).to eq [route, right != :here]
    end
  end

  it "tell devices apart by what they are" do
    agents = { "Mozilla/5.0 (Linux; Android 14; Pixel 8) AppleWebKit/537.36 Chrome/124.0 Mobile Safari/537.36" => "Android phone",
               "Mozilla/5.0 (Linux; Android 14; SM-X200) AppleWebKit/537.36 Chrome/124.0 Safari/537.36" => "Android tablet",
               "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36" => "Linux computer",
               "Mozilla/5.0 (iPhone; CPU iPhone OS 17_4 like Mac OS X) AppleWebKit/605.1.15" => "iPhone", nil => "a device", "\xFF" => "a device" }
    expect(agents.keys.map { |agent| DeviceKind.of(agent) }).to eq agents.values
  end

  it "are listed and withdrawn on the machine only; a withdrawn one opens nothing" do
    held = cookie
    call("POST", "/api/songs/#{id}/invitation", {}, far.merge("HTTP_COOKIE" => held))
    expect([last_response.status, faults]).to eq [403, ["not_allowed"]]
    entry = get_json("/api/keys").first
    expect(entry.slice("expires_at", "name", "kind", "device")).to eq("expires_at" => nil, "name" => "", "kind" => "surface", "device" => "a device")
    expect(post_json("/api/keys/#{entry['id']}", { name: " My\n tele\u202Ephone\u0000 " }).first["name"]).to eq "My telephone"
    post_json("/api/keys/#{entry['id'] + 1}", { name: "Nobody" })
    expect(last_response.status).to eq 404
    call("DELETE", "/api/keys/#{entry['id']}", nil, far.merge("HTTP_COOKIE" => held))
    expect(last_response.status).to eq 403
    expect(call("DELETE", "/api/keys/#{entry['id']}")).to eq []
    call("GET", "/api/songs", nil, far.merge("HTTP_COOKIE" => held))
    expect([last_response.status, faults]).to eq [401, ["no_key"]]
  end

  it "do not lift the checks of host and origin, nor for websockets, which need an origin" do
    held = { **far, "HTTP_COOKIE" => cookie }
    call("GET", "/api/songs", nil, held.merge("HTTP_HOST" => "evil.example"))
    expect(faults).to eq ["foreign_host"]
    call("POST", "/api/songs", { name: "X" }, held.merge("HTTP_ORIGIN" => "http://evil.example"))
    expect(faults).to eq ["foreign_origin"]
    [{ "HTTP_ORIGIN" => "http://evil.example" }, {}].each do |origin|
      call("GET", "/api/songs/#{id}/hands?role=surface", nil, { "HTTP_UPGRADE" => "websocket", "HTTP_CONNECTION" => "Upgrade", **origin })
      expect([last_response.status, faults]).to eq [403, ["foreign_origin"]]
    end
  end

  it "show the address as a QR code that holds it" do
    invitation = invite
    expect(invitation["picture"]).to start_with("<?xml").or start_with("<svg")
    expect(invitation["address"]).to match(%r{\Ahttp://127\.0\.0\.1(:\d+)?/enter/[\w-]{32}\?song=#{id}\z})
  end
end
