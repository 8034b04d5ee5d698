# frozen_string_literal: true

# Long work: who follows it, who cancels it. A request names its work in the header X-Work, a token of its own (see
# {Asker}).
module Work
  # Helpers for routes.
  module Helpers
    # @return [Asker] of this request
    def asker = @asker ||= Asker.of(request.env)

    # Keeps the connection of the request for events.
    def hijacked(key, snapshot)
      halt_with(501, "no_events", "This server cannot hold events open.") unless request.env["rack.hijack?"]
      settings.listeners.add(key, request.env["rack.hijack"].call, snapshot, key: request.env["satchel.key"])
      halt(-1)
    end

    # Whether a song is so large that work on all of it would hold up others.
    def long?(id) = settings.open_songs.fetch(id).bytes > LongWork::LONG_BYTES
  end

  def self.registered(app)
    app.helpers Helpers
    app.error(LongWork::Cancelled) { halt_with(409, "cancelled", "It was cancelled; nothing was changed.") }
    app.error(LongWork::Failed) do |e|
      halt_with(503, "not_finished", "It could not be finished, nothing was changed. #{e.message}.")
    end
    app.error(Turns::Full) do
      halt_with(503, "too_much_work", "Too much long work waits already; nothing was changed. Try again in a while.")
    end
    app.error(Asker::Left) { halt_with(408, "nobody_waits", "Nobody waited for it; nothing was changed.") }
    app.get("/api/jobs/:token/events") do
      halt_with(404, "unknown_work", "There is no such work.") unless asked!(:token).match?(Asker::TOKEN)
      hijacked(asked!(:token), { revision: 0 })
    end
    app.delete("/api/jobs/:token") { json("cancelled" => settings.long_work.cancel(asked!(:token))) }
  end
end
