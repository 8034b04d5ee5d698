# frozen_string_literal: true

# The list of songs: open, make, duplicate, delete, bring back, export, import.
module Shelf
  # Letters and digits of any script stay.
  def self.file_name(name)
    stem = name.downcase.gsub(/[^\p{L}\p{M}\p{N}]+/, "-").gsub(/\A-|-\z/, "")
    stem.empty? ? "song" : stem
  end

  # A file name beyond ASCII goes as RFC 6266 has it.
  def self.disposition(name)
    plain = name.gsub(/[^\x20-\x7e]/, "_")
    "attachment; filename=\"#{plain}\"; filename*=UTF-8''#{URI.encode_www_form_component(name).gsub('+', '%20')}"
  end

  def self.registered(app)
    app.get("/api/songs") { json(settings.shelf.list) }

    app.post("/api/songs") do
      status 201
      name = body_json["name"]
      raise KindSatchel::InvalidInput.of("bad_name", "/name", "A song's name is a text.") unless name.is_a?(String)

      json(settings.shelf.add(StarterSong.build(name)))
    end

    app.post("/api/songs/import") do
      text = request.body.read
      status 201
      next json(settings.long_work.with_file("import", {}, channel:, content: text)) if text.bytesize > LongWork::LONG_BYTES

      opened = Schemas.read_song(text)
      json(settings.shelf.add(opened.song, places: opened.places))
    end

    app.get("/api/songs/:id/export") do
      id = params[:id].to_i
      song = settings.open_songs.fetch(id).song
      headers "Content-Disposition" => Shelf.disposition("#{Shelf.file_name(song.name)}.satchel.json")
      next json(JSON.pretty_generate(KindSatchel::Document.dump(song))) unless long?(id)

      settings.long_work.with_file("export", { id: }, channel:) { |path| json(File.read(path)) }
    end

    app.post("/api/songs/:id/duplicate") do
      status 201
      json(settings.shelf.duplicate(params[:id].to_i))
    end

    app.delete("/api/songs/:id") do
      settings.shelf.remove(params[:id].to_i)
      json({})
    end

    app.post("/api/songs/:id/restore") { json(settings.shelf.restore(params[:id].to_i)) }
  end
end
