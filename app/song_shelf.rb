# frozen_string_literal: true

# The list of songs: makes, copies, takes away and brings back whole songs.
class SongShelf
  def initialize(open_songs)
    @open_songs = open_songs
  end

  def list = Database.guarded { SongRow.on_shelf.order(updated_at: :desc, id: :desc).map { |row| entry(row) } }

  # @param song [KindSatchel::Song]
  # @param places [Array<KindSatchel::Upgrade::Place>] that sound different from what an older version did
  # @return [Hash] the new entry
  def add(song, places: [])
    told = places.empty? ? nil : JSON.generate(places.map { |place| place.to_record(song) })
    Database.write do
      row = SongRow.create!(name: song.name, format: KindSatchel::Document::VERSION, places: told)
      SongRows.insert(row.id, song)
      entry(row)
    end
  end

  def duplicate(id)
    song = @open_songs.fetch(id).song
    add(song.with(name: "#{song.name[0, KindSatchel::Song::MOST_NAME - 5]} copy"))
  end

  # Takes a song off the shelf, for edits and reads alike; {#restore} brings it back.
  def remove(id)
    Database.write do
      found = SongRow.on_shelf.find_by(id:) or raise OpenSongs::Missing
      found.update!(deleted_at: Time.now)
    end
    @open_songs.forget(id)
  end

  def restore(id)
    Database.write do
      found = SongRow.where.not(deleted_at: nil).find_by(id:) or raise OpenSongs::Missing
      found.update!(deleted_at: nil)
      entry(found)
    end
  end

  # The places that sound different since a song was brought up have been seen.
  def places_seen(id) = Database.write { SongRow.on_shelf.where(id:).update_all(places: nil) }

  private

  def entry(row) = { "id" => row.id, "name" => row.name, "revision" => row.revision, "updated_at" => row.updated_at.iso8601 }
end
