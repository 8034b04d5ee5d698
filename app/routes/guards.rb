# frozen_string_literal: true

# What a page of the server may load, and what a request may hold.
module Guards
  POLICY = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; connect-src 'self'; " \
           "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
  # The largest request body, in bytes, where nothing else is said.
  LARGEST_REQUEST = 16 * 1024 * 1024
  LARGEST = { "/api/songs/import" => Schemas::LARGEST_DOCUMENT, "/api/sounds" => SoundStore::LARGEST }.freeze
  # The one way in for what is not JSON.
  SOUND_TYPES = %w[audio/wav audio/x-wav audio/wave].freeze

  # Helpers for every request.
  module Helpers
    def check_type
      if request.path == "/api/sounds"
        halt_with(415, "not_a_sound", "Send a WAV file as audio/wav.") unless SOUND_TYPES.include?(request.media_type)
      elsif request.media_type != "application/json"
        halt_with(415, "not_json", "Send application/json.")
      end
    end
  end

  def self.registered(app)
    app.helpers Helpers
    app.set :host_authorization, {} # see Gate
    app.set :protection, { except: %i[session_hijacking remote_token http_origin json_csrf] }

    app.before do
      headers "Content-Security-Policy" => POLICY, "Referrer-Policy" => "no-referrer", "X-Content-Type-Options" => "nosniff"
      next if request.get? || request.head?

      check_type if request.post?
      largest = LARGEST.fetch(request.path, LARGEST_REQUEST)
      halt_with(413, "too_large", "The request is larger than #{largest / 1024 / 1024} MB.") if request.content_length.to_i > largest
    end
  end
end
