# frozen_string_literal: true

# What hands played, kept beside a song: listed, let go of. Writing it again is an edit.
module PassRoutes
  def self.registered(app)
    app.get("/api/songs/:id/passes") { json(PassShelf.list(song_id, song)) }
    app.delete("/api/songs/:id/passes/:pass") do
      song
      json("gone" => PassShelf.drop(song_id, asked!(:pass)))
    end
  end
end
