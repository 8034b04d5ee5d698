# frozen_string_literal: true

require "rqrcode"
require_relative "../device_kind"
require_relative "../local_authority"

# The phone as surface of the desktop: keys for devices beyond this machine, and the websocket hands go over.
module SurfaceRoutes
  # Helpers for routes.
  module Helpers
    # Refuses whoever asks from another machine.
    def only_here!
      halt_with(403, "not_here", "Keys are given out and withdrawn on the computer itself.") unless env["satchel.local"]
    end

    # Where a device beyond this machine comes in; nil where nobody does.
    def outside
      bind = ENV.fetch("BIND", "127.0.0.1")
      return unless Addresses.beyond?(bind)

      host = ENV.fetch("SATCHEL_HOSTS", "").split(",").first || Addresses.reached(bind).first
      host && "https://#{host}:#{ENV.fetch('TLS_PORT', '9293')}"
    end

    # @param kind [String] of key, see {Rights::KINDS}
    # @raise [KindSatchel::InvalidInput]
    def invited(kind)
      unless Rights::KINDS.include?(kind)
        raise KindSatchel::InvalidInput.of("bad_value", "/kind",
                                           "A key is that of a #{Rights::KINDS.join(' or a ')}.")
      end

      invitation(*settings.keys.invite(kind:, song_id:))
    end

    # By which trust in this machine's certificates is checked; nil where there is none.
    def fingerprint
      file = File.join(settings.tls_folder, "authority.pem")
      File.file?(file) ? LocalAuthority.fingerprint(File.read(file)) : nil
    end

    # Where a request comes from, as guesses are counted: the other end of its socket, or what the owner's own proxy
    # says.
    def from_where
      address = env["REMOTE_ADDR"].to_s
      return address unless ENV.fetch("SATCHEL_PROXY", "").split(",").include?(address)

      env["HTTP_X_FORWARDED_FOR"].to_s.split(",").last.to_s.strip.then { |said| said.empty? ? address : said }
    end

    # @return [String, nil] the fingerprint of the authority, in pairs
    def told_fingerprint
      return unless fingerprint

      " Its fingerprint (SHA-256) is <code style='word-break: break-all'>#{fingerprint}</code>; the computer shows " \
        "the same."
    end

    # @return [Hash] the address that a new key is fetched from, and its picture
    def invitation(secret, row)
      base = outside || "http://#{request.host_with_port}"
      address = "#{base}#{Gate::ENTRANCE}#{secret}?song=#{song_id}"
      drawn = RQRCode::QRCode.new(address).as_svg(viewbox: true, use_path: true, fill: "ffffff", offset: 16)
      { "address" => address, "picture" => drawn, "seconds" => KeyRing::LIFE_SECONDS, "beyond" => !outside.nil?,
        "key" => row.entry,
        "fingerprint" => fingerprint }
    end

    # @return [String] a page without scripts, for browsers that have no key yet
    def plain_page(words, form = "")
      content_type :html
      "<!doctype html><html lang=en><meta name=viewport content='width=device-width'><title>Kind Satchel</title>" \
        "<body style='font: 18px/1.5 sans-serif; margin: 2rem auto; max-width: 30rem; padding: 0 " \
        "1rem'><p>#{words}</p>#{form}</body></html>"
    end

    # A refusal, as a page for people and as JSON for programs.
    def refused(status, words)
      status status
      return plain_page(words) if request.env["HTTP_ACCEPT"].to_s.include?("text/html")

      json(Faults.body(status == 429 ? "too_many_tries" : "wrong_key", words))
    end
  end

  def self.registered(app)
    app.helpers Helpers
    keys(app)
    entrance(app)
    app.get("/songs/:id/surface") do
      content_type :html
      Pages.page(settings)
    end
    app.get("/api/songs/:id/hands") do
      song
      halt_with(426, "no_websocket", "This is the way of a websocket.") unless WebSocket::Driver.websocket?(env)
      role = asked(:role)
      halt_with(400, "bad_request", "A role is #{HandsHub::ROLES.join(' or ')}.") unless HandsHub::ROLES.include?(role)
      settings.hub.add(env, song_id, role, asked(:name).to_s.scrub[0, 60], env["satchel.key"])
      [200, {}, []]
    end
  end

  def self.keys(app)
    app.get("/api/keys") { json(settings.keys.list) }
    app.post("/api/songs/:id/invitation") do
      only_here!
      song
      status 201
      json(invited(body_json.fetch("kind", "surface")))
    end
    app.post("/api/keys/:id") do
      only_here!
      name = body_json["name"]
      raise KindSatchel::InvalidInput.of("bad_name", "/name", "A key's name is a text.") unless name.is_a?(String)

      halt_with(404, "unknown_key", "There is no such key.") unless settings.keys.rename(asked!(:id), name)
      json(settings.keys.list)
    end
    app.delete("/api/keys/:id") do
      only_here!
      halt_with(404, "unknown_key", "There is no such key.") unless settings.keys.withdraw(asked!(:id))
      [settings.hub, settings.listeners].each { |rounds| rounds.withdraw(asked!(:id)) }
      json(settings.keys.list)
    end
  end

  # A key is taken by a press, not by opening the address: what only looks at addresses does not spend it.
  def self.entrance(app)
    app.get("/enter/authority.pem") do
      file = File.join(settings.tls_folder, "authority.pem")
      unless File.file?(file)
        halt_with(404, "no_authority",
                  "No authority was made; the server listens to this machine only.")
      end
      content_type "application/x-x509-ca-cert"
      File.read(file)
    end
    app.get("/enter/:key") do
      song = asked(:song).to_i
      key = Rack::Utils.escape_html(Rack::Utils.escape(asked!(:key)))
      # Without a referrer a form would not say where it comes from.
      headers "Referrer-Policy" => "same-origin"
      plain_page("This device wants to come into Kind Satchel.",
                 "<form method=post action='/enter/#{key}?song=#{song}'>" \
                 "<button style='font: inherit; padding: .6rem 1.2rem'>Open it</button></form>" \
                 "<p><small>If it warns of the connection: <a href='/enter/authority.pem'>take this authority</a> " \
                 "and trust it in the settings of the device, or go on.#{told_fingerprint}</small></p>")
    end
    app.post("/enter/:key") do
      token, key = settings.keys.enter(asked!(:key), from: from_where, device: DeviceKind.of(request.user_agent))
      response.set_cookie(Gate::COOKIE, value: token, path: "/", httponly: true, same_site: :strict,
                                        secure: request.ssl?,
                                        max_age: KeyRing::KEPT_SECONDS.to_s)
      redirect to("/songs/#{asked(:song).to_i}#{'/surface' if key.kind == 'surface'}"), 303
    rescue KeyRing::Wrong
      refused(401, "This key is wrong, spent, or older than ten minutes. Ask for a new one on the computer.")
    rescue KeyRing::TooMany
      refused(429, "Too many wrong keys; wait a minute.")
    end
  end
  private_class_method :keys, :entrance
end
