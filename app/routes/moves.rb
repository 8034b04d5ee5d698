# frozen_string_literal: true

# The satchel: kept moves listed, kept, named, let go of, found by shape, taken in and out as a file.
module MoveRoutes
  # Helpers for routes.
  module Helpers
    # A move that is sent, of /move.
    def sent_move(data)
      KindSatchel::InvalidInput.under("/move") do
        Schemas.check!("kept_move", data["move"])
        KindSatchel::Records.read_kept_move(data["move"])
      end
    end

    # @return [Array<Integer>, nil]
    def ids_asked_for = asked(:ids)
  end

  def self.registered(app)
    app.helpers Helpers
    app.error(MoveShelf::Missing) { halt_with(404, "unknown_kept_move", "There is no such move in the satchel.") }
    app.get("/api/moves") { json(settings.moves.list.map(&:record)) }
    app.get("/api/moves/file") { json(settings.moves.file(ids_asked_for)) }
    app.post("/api/moves") do
      status 201
      json(settings.moves.keep(sent_move(body_json)).record)
    end
    app.post("/api/moves/take") { json(settings.moves.take(body_json).map(&:record)) }
    app.post("/api/moves/near") { json("ids" => settings.moves.nearest(sent_move(body_json))) }
    app.post("/api/moves/:id") { json(settings.moves.rename(asked!(:id), *body_json.values_at("name", "tags")).record) }
    app.delete("/api/moves/:id") { json(settings.moves.remove(asked!(:id)).record) }
  end
end
