# frozen_string_literal: true

# What a page of the server may load, and what a request may hold.
module Guards
  POLICY = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; connect-src 'self'; " \
           "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
  # The largest request body outside of import, in bytes.
  LARGEST_REQUEST = 16 * 1024 * 1024

  def self.registered(app)
    app.set :host_authorization, {} # see Gate
    app.set :protection, { except: %i[session_hijacking remote_token http_origin json_csrf] }

    app.before do
      headers "Content-Security-Policy" => POLICY, "Referrer-Policy" => "no-referrer", "X-Content-Type-Options" => "nosniff"
      next if request.get? || request.head?

      halt_with(415, "not_json", "Send application/json.") if request.post? && request.media_type != "application/json"
      largest = request.path == "/api/songs/import" ? Schemas::LARGEST_DOCUMENT : LARGEST_REQUEST
      halt_with(413, "too_large", "The request is larger than #{largest / 1024 / 1024} MB.") if request.content_length.to_i > largest
    end
  end
end
