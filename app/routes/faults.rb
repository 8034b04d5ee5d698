# frozen_string_literal: true

# Turns what went wrong into an answer: 4xx with every fault for wrong input, 5xx, logged, for our own mistakes.
module Faults
  # Helpers for routes.
  module Helpers
    def json(data)
      content_type :json
      data.is_a?(String) ? data : JSON.generate(data)
    end

    def halt_with(status, code, message, **more)
      halt status, { "Content-Type" => "application/json" }, JSON.generate({ faults: [{ code:, path: "", message: }], **more })
    end

    # The request's JSON object.
    def body_json
      data = Schemas.parse(request.body.read.force_encoding("UTF-8"))
      return data if data.is_a?(Hash)

      raise KindSatchel::InvalidInput.of("bad_json", "", "The request holds no JSON object.")
    end
  end

  def self.registered(app)
    app.helpers Helpers
    input_faults(app)
    app.error(OpenSongs::Stale) { |e| halt_with(409, "stale", e.message, revision: e.revision) }
    app.error(OpenSongs::Missing) { halt_with(404, "unknown_song", "There is no such song; it may have been deleted.") }
    app.not_found do
      response.body.empty? || response.content_type != "application/json" ? halt_with(404, "unknown_page", "There is nothing at #{request.path}.") : nil
    end
    app.error do |e|
      warn "#{e.class}: #{e.message}", *e.backtrace.first(12)
      halt_with(500, "our_fault", "Something went wrong on our side; nothing was changed.")
    end
  end

  def self.input_faults(app)
    app.error(KindSatchel::InvalidInput) do |e|
      status e.is_a?(KindSatchel::NotFound) ? 404 : 422
      json("faults" => e.faults.map(&:to_h))
    end
  end
  private_class_method :input_faults
end
