# frozen_string_literal: true

require_relative "addresses"
require_relative "rights"

# Who may talk to the server, and in what form; stands before everything else, and refuses in the one form. What comes
# from beyond this machine needs a key.
class Gate
  LOCAL_HOSTS = ["localhost", "127.0.0.1", "[::1]"].freeze
  READS = %w[GET HEAD].freeze
  # Where a key is brought, and what it takes to bring it.
  ENTRANCE = "/enter/"
  COOKIE = "satchel_key"
  # What came by way of somebody else is never taken for this machine.
  FORWARDED = %w[HTTP_FORWARDED HTTP_X_FORWARDED_FOR HTTP_X_FORWARDED_HOST HTTP_X_FORWARDED_PROTO HTTP_X_REAL_IP
                 HTTP_VIA].freeze
  NOT_ALLOWED = { "surface" => "The key of this device is that of a surface: it turns, plays, records and arms in " \
                               "its song, and nothing else.",
                  "studio" => "That is done on the computer itself, by no key." }.freeze
  NO_KEY = "This device has no key, or it was withdrawn. On the computer, press Add a phone, and open the address it " \
           "shows."

  # @param hosts [Array<String>] names this server may be called by, beside the local ones
  # @param bind [String] what it listens on
  def initialize(app, hosts: ENV.fetch("SATCHEL_HOSTS", "").split(","), bind: ENV.fetch("BIND", "127.0.0.1"))
    @app = app
    @hosts = LOCAL_HOSTS + hosts
    @bind = bind
  end

  def call(env)
    wrong = fault(env) || env["satchel.refused"]
    return refuse(env, *wrong) if wrong

    env["satchel.local"] = local?(env)
    return @app.call(env) if env["satchel.local"] || env["PATH_INFO"].start_with?(ENTRANCE)

    key = Gate.key(env)
    return refuse(env, 401, "no_key", NO_KEY) unless key
    unless Rights.allow?(key, env["REQUEST_METHOD"], env["PATH_INFO"])
      return refuse(env, 403, "not_allowed", NOT_ALLOWED[key.kind])
    end

    env["satchel.key"] = key.id
    @app.call(env)
  end

  # Whether a request comes from this machine itself.
  # @param address [String] of the other end of its socket
  def self.local?(env, address)
    (address.start_with?("127.") || address == "::1") && FORWARDED.none? { |name| env.key?(name) }
  end

  # @return [KeyRing::Key, nil] of the device
  def self.key(env, seen: true) = Server.keys.find(Rack::Utils.parse_cookies(env)[COOKIE], seen:)

  private

  # What is wrong with a request whoever sends it.
  # @return [Array(Integer, String, String), nil] status, code, words
  def fault(env)
    words = "The address of this request is not valid UTF-8, or has a NUL in it."
    return [400, "bad_encoding", words] unless readable?(env)

    form = env["CONTENT_TYPE"].to_s.downcase.start_with?("multipart/")
    return [415, "no_form", "Nothing is sent here in parts of a form."] if form
    return [403, "foreign_host", "This server is not called #{host(env).scrub}."] unless called?(host(env))

    foreign = works?(env) && foreign?(env)
    [403, "foreign_origin", "Only pages of this server may change songs, or ask about them."] if foreign
  end

  def readable?(env)
    [env["PATH_INFO"], env["QUERY_STRING"]].all? do |text|
      text = URI.decode_www_form_component(text.to_s)
      text.valid_encoding? && !text.include?("\0")
    end
  rescue ArgumentError
    false
  end

  def host(env) = env["HTTP_HOST"].to_s.sub(/:\d+\z/, "")

  # By its addresses too, where others on the network reach it; those may change while it runs.
  def called?(host) = @hosts.include?(host) || (Addresses.beyond?(@bind) && Addresses.reached(@bind).include?(host))

  # Whether it changes something, or has something worked out.
  def works?(env)
    socket?(env) || !READS.include?(env["REQUEST_METHOD"]) || env["PATH_INFO"].start_with?("/api/", "/sounds/")
  end

  def socket?(env) = env["HTTP_UPGRADE"].to_s.casecmp?("websocket")

  def foreign?(env)
    site, origin = env.values_at("HTTP_SEC_FETCH_SITE", "HTTP_ORIGIN")
    return true if site && !%w[same-origin none].include?(site)
    return true if socket?(env) && origin.nil?

    origin && origin != "#{env['rack.url_scheme']}://#{env['HTTP_HOST']}"
  end

  def local?(env) = Gate.local?(env, env["REMOTE_ADDR"].to_s)

  def refuse(env, status, code, message)
    if env["HTTP_ACCEPT"].to_s.include?("text/html")
      return [status, { "content-type" => "text/plain; charset=utf-8" },
              ["#{message}\n"]]
    end

    [status, { "content-type" => "application/json" }, [Faults.body(code, message)]]
  end
end
