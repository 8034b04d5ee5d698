# frozen_string_literal: true

# Turns what went wrong into an answer: 4xx with every fault for wrong input, 503 and 507 for the disk and the
# database, 5xx, logged, for our own mistakes. Every refusal has one form: { "faults": [{ "code", "path", "message" }]
# }.
module Faults
  # Raised when an edit was made and stored, and only its answer failed.
  class Made < StandardError
    attr_reader :revision

    def initialize(revision)
      @revision = revision
      super("The change was made (revision #{revision}), but its answer failed; load the song again.")
    end
  end

  # @return [String] the body of a refusal
  def self.body(code, message, **more) = JSON.generate({ faults: [{ code:, path: "", message: }], **more })

  # Helpers for routes.
  module Helpers
    # @param data [Hash, Array, String] plain data, or JSON
    def json(data)
      content_type :json
      data.is_a?(String) ? data : JSON.generate(data)
    end

    # Ends the request with a fault in JSON.
    def halt_with(status, code, message, **more)
      note(status, code)
      halt status, { "Content-Type" => "application/json" }, Faults.body(code, message, **more)
    end

    # The request's JSON object.
    # @raise [KindSatchel::InvalidInput]
    def body_json
      data = Schemas.parse(request.body.read)
      return told!(data) if data.is_a?(Hash)

      raise KindSatchel::InvalidInput.of("bad_json", "", "The request holds no JSON object.")
    end

    # One line of log for what was refused.
    def note(status, words)
      return if settings.environment == :test

      warn "#{status} #{request.request_method} #{request.path[0, 120].scrub}: #{words}"
    end
  end

  def self.registered(app)
    app.helpers Helpers
    input_faults(app)
    app.error(OpenSongs::Stale) { |e| halt_with(409, "stale", e.message, revision: e.revision) }
    app.error(OpenSongs::Missing) { halt_with(404, "unknown_song", "There is no such song; it may have been deleted.") }
    app.error(Sinatra::BadRequest, Rack::QueryParser::InvalidParameterError, Rack::QueryParser::ParameterTypeError,
              Rack::QueryParser::ParamsTooDeepError) do
      halt_with(400, "bad_request", "The address of this request cannot be read.")
    end
    app.not_found do
      if response.body.empty? || response.content_type != "application/json"
        halt_with(404, "unknown_page",
                  "There is nothing at #{request.path}.")
      end
    end
    our_faults(app)
  end

  def self.input_faults(app)
    app.error(KindSatchel::InvalidInput) do |e|
      status e.is_a?(KindSatchel::NotFound) ? 404 : 422
      note(response.status,
           "#{e.faults.first.code} at #{e.faults.first.path}#{" and #{e.faults.size - 1} more" if e.faults.size > 1}")
      json("faults" => e.faults.first(KindSatchel::Faults::MOST).map(&:to_h))
    end
  end

  def self.our_faults(app)
    app.error(Errno::ENOSPC, Errno::EDQUOT, Errno::EFBIG) do
      halt_with(507, "disk_full", "The disk is full; nothing was changed. Make room, then try again.")
    end
    app.error(Database::Trouble) do |e|
      warn "#{e.class} #{e.code}: #{e.cause&.message}"
      halt_with(e.status, e.code, e.message)
    end
    app.error(OpenSongs::Unreadable) do |e|
      warn e.message
      halt_with(503, "unreadable", e.message)
    end
    app.error(Made) do |e|
      warn "#{e.cause.class}: #{e.cause.message}", *e.cause.backtrace.first(12)
      halt_with(500, "made", e.message, revision: e.revision)
    end
    app.error do |e|
      warn "#{e.class}: #{e.message}", *e.backtrace.first(12)
      halt_with(500, "our_fault", "Something went wrong on our side; nothing was changed.")
    end
  end
  private_class_method :input_faults, :our_faults
end
