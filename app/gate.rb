# frozen_string_literal: true

# Who may talk to the server, and in what form; stands before everything else, and refuses in the one form.
class Gate
  LOCAL_HOSTS = ["localhost", "127.0.0.1", "[::1]"].freeze
  READS = %w[GET HEAD].freeze

  # @param hosts [Array<String>] names this server may be called by, beside the local ones
  def initialize(app, hosts: ENV.fetch("SATCHEL_HOSTS", "").split(","))
    @app = app
    @hosts = LOCAL_HOSTS + hosts
  end

  def call(env)
    return refuse(400, "bad_encoding", "The address of this request is not valid UTF-8.") unless readable?(env)
    return refuse(403, "foreign_host", "This server is not called #{host(env).scrub}.") unless @hosts.include?(host(env))
    return refuse(403, "foreign_origin", "Only pages of this server may change songs.") if !READS.include?(env["REQUEST_METHOD"]) && foreign?(env)

    @app.call(env)
  end

  private

  def readable?(env)
    [env["PATH_INFO"], env["QUERY_STRING"]].all? { |text| URI.decode_www_form_component(text.to_s).valid_encoding? }
  rescue ArgumentError
    false
  end

  def host(env) = env["HTTP_HOST"].to_s.sub(/:\d+\z/, "")

  def foreign?(env)
    site, origin = env.values_at("HTTP_SEC_FETCH_SITE", "HTTP_ORIGIN")
    return true if site && !%w[same-origin none].include?(site)

    origin && origin != "#{env['rack.url_scheme']}://#{env['HTTP_HOST']}"
  end

  def refuse(status, code, message)
    [status, { "content-type" => "application/json" }, [Faults.body(code, message)]]
  end
end
