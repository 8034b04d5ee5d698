# frozen_string_literal: true

# Muting and soloing tracks to listen: no edit, and record to every other tab.
module ListeningRoutes
  # Helpers for routes.
  module Helpers
    # What is asked of a track: muted or soloed, each true or false.
    # @raise [KindSatchel::InvalidInput]
    def listening_asked(data)
      unless data["track_id"].is_a?(String)
        raise KindSatchel::InvalidInput.of("bad_request", "/track_id",
                                           "Say which track by its id.")
      end

      wanted = data.slice("muted", "soloed")
      wrong = wanted.find { |_, on| ![true, false].include?(on) }
      raise KindSatchel::InvalidInput.of("bad_request", "/#{wrong[0]}", "#{wrong[0]} is true or false.") if wrong

      wanted.transform_keys(&:to_sym)
    end
  end

  def self.registered(app)
    app.helpers Helpers
    app.post("/api/songs/:id/listening") do
      data = body_json
      settings.listened_to.change(song_id, data["track_id"], **listening_asked(data))
      record = settings.listened_to.to_record(song_id)
      settings.listeners.tell(song_id, "listening", record.merge("tab" => data["tab"]))
      json(record)
    end
  end
end
