# frozen_string_literal: true

# The list of songs: open, make, duplicate, delete, bring back, export, import.
module Shelf
  def self.registered(app)
    app.get("/api/songs") { json(settings.shelf.list) }

    app.post("/api/songs") do
      status 201
      json(settings.shelf.add(StarterSong.build(body_json["name"].to_s)))
    end

    app.post("/api/songs/import") do
      opened = Schemas.read_song(request.body.read.force_encoding("UTF-8"))
      status 201
      json(settings.shelf.add(opened.song, places: opened.places))
    end

    app.get("/api/songs/:id/export") do
      song = settings.open_songs.fetch(params[:id].to_i).song
      attachment "#{song.name.downcase.gsub(/[^a-z0-9]+/, '-').gsub(/\A-|-\z/, '')}.satchel.json"
      json(JSON.pretty_generate(KindSatchel::Document.dump(song)))
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
