# frozen_string_literal: true

# Versions of a song: listed, kept, let go of, compared with the song as it stands.
module VersionRoutes
  # Helpers for routes.
  module Helpers
    # @param id [String] from the path or the query
    def version(id) = settings.open_versions.song(song_id, id)

    # The song as it stands, or the version the query names, against a version.
    def comparison
      with = asked(:with)&.then { |name| version(name) } || song
      KindSatchel::HandOver::Comparison.new(with, version(asked!(:version)))
    end

    # A version as the page shows and plays it.
    def version_parts
      parts = KindSatchel::Parts.all(version(asked!(:version)))
      { "parts" => parts.map { |(kind, id), record| [kind, id, Wire.slim(kind, record)] } }
    end
  end

  def self.registered(app)
    app.helpers Helpers
    app.error(VersionShelf::Missing) { halt_with(404, "unknown_version", "There is no such version.") }
    app.get("/api/songs/:id/versions") do
      song
      json(VersionShelf.list(song_id))
    end
    app.post("/api/songs/:id/versions") do
      song
      status 201
      json(VersionShelf.keep(song_id, body_json["name"]))
    end
    app.put("/api/songs/:id/versions/:version") do
      json(VersionShelf.rename(song_id, asked!(:version).to_i, body_json["name"]))
    end
    app.delete("/api/songs/:id/versions/:version") do
      VersionShelf.remove(song_id, asked!(:version).to_i)
      json({})
    end
    app.get("/api/songs/:id/versions/:version") { json(version_parts) }
    app.get("/api/songs/:id/versions/:version/comparison") do
      next json(comparison.to_record) unless long?(song_id)

      [asked!(:version), asked(:with)].compact.each { |id| VersionShelf.kept_at(song_id, id.to_i) }
      json(settings.long_work.run("comparison",
                                  { id: song_id, version: asked!(:version).to_i, with: asked(:with)&.to_i }, asker:))
    end
    app.get("/api/songs/:id/versions/:version/curves") do
      curves = comparison.courses(KindSatchel::Address.parse(asked(:address).to_s))
      json(%w[before after].zip(curves.map(&:flat)).to_h)
    end
  end
end
