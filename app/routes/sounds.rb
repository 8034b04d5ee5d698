# frozen_string_literal: true

# Recorded sounds: read by digest or word, listed, taken in, let go of. The one way in for what is not JSON.
module SoundRoutes
  # A digest never means anything else.
  FOREVER = 365 * 24 * 3600

  # Helpers for routes.
  module Helpers
    # The request's body as a file of its own, while a block runs.
    def body_as_file
      Tempfile.create("satchel-sound", binmode: true) do |file|
        IO.copy_stream(request.body, file)
        file.flush
        yield file.path
      end
    end

    # @return [String] a name for a sound that comes in
    # @raise [KindSatchel::InvalidInput]
    def sound_name
      name = asked(:name).to_s.strip
      return name if name.size.between?(1, SoundStore::LONGEST_NAME)

      raise KindSatchel::InvalidInput.of("bad_name", "/name",
                                         "A sound's name has 1 to #{SoundStore::LONGEST_NAME} characters.")
    end
  end

  def self.registered(app)
    app.helpers Helpers
    app.error(SoundStore::Missing) { halt_with(404, "unknown_sound", "There is no such sound.") }
    app.get("/sounds/:key.wav") do
      row, path = settings.sounds.find(asked!(:key))
      cache_control :public, *(asked!(:key) == row.digest ? [:immutable, { max_age: FOREVER }] : [:no_cache])
      etag row.digest
      send_file path, type: "audio/wav"
    end
    app.get("/api/sounds/:key/outline") { json(settings.sounds.outline(asked!(:key))) }
    app.get("/api/sounds") { json(settings.sounds.list) }
    app.post("/api/sounds") do
      status 201
      name = sound_name
      body_as_file { |path| json(settings.sounds.take(path, name:).entry.merge("used_in" => [])) }
    end
    app.delete("/api/sounds") { json({ "freed" => settings.sounds.free }) }
    app.delete("/api/sounds/:key") do
      settings.sounds.remove(asked!(:key))
      json({})
    end
  end
end
