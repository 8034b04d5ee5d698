# frozen_string_literal: true

# What a page of the server may load, and what a request may hold.
module Guards
  POLICY = "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src " \
           "'self' data: blob:; connect-src 'self'; " \
           "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
  # The largest request body, in bytes, where nothing else is said.
  LARGEST_REQUEST = 16 * 1024 * 1024
  LARGEST = { "/api/songs/import" => Schemas::LARGEST_DOCUMENT, "/api/sounds" => SoundStore::LARGEST,
              "/api/songs/import_packed" => PackedSong::LARGEST }.freeze
  # The ways in for what is not JSON, with what is taken there, and in words.
  SOUND_TYPES = %w[audio/wav audio/x-wav audio/wave].freeze
  MIDI_TYPES = %w[audio/midi audio/x-midi].freeze
  ZIP_TYPES = %w[application/zip application/x-zip-compressed].freeze
  OTHERS = { "/api/sounds" => [SOUND_TYPES, "not_a_sound", "Send a WAV file as audio/wav."],
             "/api/songs/import_midi" => [MIDI_TYPES, "not_midi", "Send a MIDI file as audio/midi."],
             "/api/midi" => [MIDI_TYPES, "not_midi", "Send a MIDI file as audio/midi."],
             "/api/songs/import_packed" => [ZIP_TYPES, "not_a_pack", "Send a packed song as application/zip."] }.freeze
  # A sound that the page made of a song goes in beside the other files that are handed over.
  HANDED = %r{\A/api/hand_overs/[0-9a-f]{32}/sounds\z}
  HANDED_TYPE = [SOUND_TYPES, "not_a_sound", "Send a WAV file as audio/wav."].freeze

  # @return [Integer] what a request to a path may hold, in bytes
  def self.largest(path) = LARGEST.fetch(path) { HANDED.match?(path) ? Workspaces::LARGEST_SOUND : LARGEST_REQUEST }

  # Whether a path takes files.
  def self.file?(path) = LARGEST.key?(path) || OTHERS.key?(path) || HANDED.match?(path)

  # Helpers for every request.
  module Helpers
    # Refuses bodies of another type than the route takes.
    def check_type
      types, code, words = OTHERS.fetch(request.path) do
        HANDED.match?(request.path) ? HANDED_TYPE : [["application/json"], "not_json", "Send application/json."]
      end
      halt_with(415, code, words) unless types.include?(request.media_type)
    end
  end

  def self.registered(app)
    app.helpers Helpers
    app.set :host_authorization, {} # see Gate
    app.set :protection, { except: %i[session_hijacking remote_token http_origin json_csrf] }

    app.before do
      headers "Content-Security-Policy" => POLICY, "Referrer-Policy" => "no-referrer",
              "X-Content-Type-Options" => "nosniff"
      next if request.get? || request.head?

      check_type if request.post? && !request.path.start_with?(Gate::ENTRANCE)
      largest = Guards.largest(request.path)
      if request.content_length.to_i > largest
        halt_with(413, "too_large",
                  "The request is larger than #{largest / 1024 / 1024} MB.")
      end
    end
  end
end
