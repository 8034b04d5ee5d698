# frozen_string_literal: true

# What controllers turn: read, and put in the place of what there is.
module MappingRoutes
  def self.registered(app)
    app.get("/api/songs/:id/mappings") do
      song
      json(MappingShelf.read(song_id))
    end
    app.post("/api/songs/:id/mappings") do
      song
      data = body_json
      data.slice("song", "all").each do |whose, list|
        KindSatchel::InvalidInput.under("/#{whose}") { MappingShelf.write(whose == "song" ? song_id : nil, list) }
      end
      json(MappingShelf.read(song_id))
    end
  end
end
