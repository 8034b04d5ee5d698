# frozen_string_literal: true

# Who may talk to the server, and what a page of it may load.
module Guards
  POLICY = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; connect-src 'self'; " \
           "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
  LOCAL_HOSTS = ["localhost", "127.0.0.1", "[::1]"].freeze
  # The largest request body outside of import, in bytes.
  LARGEST_REQUEST = 16 * 1024 * 1024

  def self.registered(app)
    hosts = LOCAL_HOSTS + ENV.fetch("SATCHEL_HOSTS", "").split(",")
    app.set :host_authorization, { permitted_hosts: hosts }
    app.set :protection, { except: %i[session_hijacking remote_token], reaction: :deny }

    app.before do
      headers "Content-Security-Policy" => POLICY, "Referrer-Policy" => "no-referrer", "X-Content-Type-Options" => "nosniff"
      next if request.get? || request.head?

      foreign = request.env["HTTP_SEC_FETCH_SITE"]
      halt_with(403, "foreign_origin", "Only pages of this server may change songs.") if foreign && !%w[same-origin none].include?(foreign)
      halt_with(415, "not_json", "Send application/json.") if request.post? && request.media_type != "application/json"
      largest = request.path == "/api/songs/import" ? Schemas::LARGEST_DOCUMENT : LARGEST_REQUEST
      halt_with(413, "too_large", "The request is larger than #{largest / 1024 / 1024} MB.") if request.content_length.to_i > largest
    end
  end
end
