# frozen_string_literal: true

# Muting and soloing tracks and letting moves rest, to listen: no edit, and told to every other tab.
module ListeningRoutes
  # Helpers for routes.
  module Helpers
    # Mutes, soloes, or lets moves rest.
    # @return [Hash] for moves the addresses that may be heard otherwise for it
    # @raise [KindSatchel::InvalidInput]
    def listen_to(data)
      return { "touched" => settings.listened_to.rest(song_id, *rest_asked(data)) } if data.key?("rest")

      settings.listened_to.change(song_id, data["track_id"], **listening_asked(data))
      {}
    end

    # Whose moves are to rest, or no more.
    # @raise [KindSatchel::InvalidInput]
    def rest_asked(data)
      owner, rests = data.values_at("rest", "rests")
      return [owner, rests] if owner.is_a?(String) && [true, false].include?(rests)

      raise KindSatchel::InvalidInput.of("bad_request", "/rests", "Say whose moves, and whether they rest.")
    end

    # What is asked of a track: muted or soloed, each true or false.
    # @raise [KindSatchel::InvalidInput]
    def listening_asked(data)
      unless data["track_id"].is_a?(String)
        raise KindSatchel::InvalidInput.of("bad_request", "/track_id", "Say which track by its id.")
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
      touched = listen_to(data)
      record = { **settings.listened_to.to_record(song_id), **touched }
      settings.listeners.tell(song_id, "listening", record.merge("tab" => data["tab"]))
      json(record)
    end
  end
end
