# frozen_string_literal: true

# Versions of a song: listed, kept, let go of, compared with the song as it stands.
module VersionRoutes
  # Helpers for routes.
  module Helpers
    def comparison = KindSatchel::HandOver::Comparison.new(song, VersionShelf.song(song_id, params[:version].to_i))

    def compared(row)
      loss = KindSatchel::HandOver::Loss.new(address: row.address, points: nil, largest: row.largest, mean: row.mean, tick: row.tick, why: nil)
      moves = row.envelopes.map { |owner, envelope| { "owner" => owner, "envelope" => KindSatchel::Records.envelope(envelope) } }
      loss.to_record(song).merge("moves" => moves)
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
    app.delete("/api/songs/:id/versions/:version") do
      VersionShelf.remove(song_id, params[:version].to_i)
      json({})
    end
    app.get("/api/songs/:id/versions/:version/comparison") do
      found = comparison
      json("rows" => found.rows.map { |row| compared(row) }, "others" => found.others)
    end
    app.get("/api/songs/:id/versions/:version/curves") do
      curves = comparison.courses(KindSatchel::Address.parse(params["address"].to_s))
      json(%w[before after].zip(curves.map(&:flat)).to_h)
    end
  end
end
