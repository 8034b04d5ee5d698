# frozen_string_literal: true

# The list of songs: makes, copies, takes away and brings back whole songs.
class SongShelf
  def initialize(open_songs)
    @open_songs = open_songs
  end

  # @return [Array<Hash>] the songs on the shelf, the one changed last first
  def list = carded(Database.guarded { SongRow.on_shelf.order(updated_at: :desc, id: :desc).to_a })

  # @return [Array<Hash>] what was taken off it, the last one first
  def bin = carded(Database.guarded { SongRow.in_bin.order(deleted_at: :desc, id: :desc).to_a })

  # @param song [KindSatchel::Song]
  # @param places [Array<KindSatchel::Upgrade::Place>] that sound different from what an older version did
  # @return [Hash] the new entry
  def add(song, places: [])
    places_record = places.empty? ? nil : JSON.generate(places.map { |place| place.to_record(song) })
    Database.write do
      row = SongRow.create!(name: song.name, format: KindSatchel::Document::VERSION, places: places_record)
      SongRows.insert(row.id, song)
      entry(row)
    end
  end

  # @return [Integer] the id of the copy
  # @raise [OpenSongs::Missing]
  def duplicate(id)
    song = @open_songs.fetch(id).song
    add(song.with(name: "#{song.name[0, KindSatchel::Song::MOST_NAME - 5]} copy"))
  end

  # Takes a song off the shelf, for edits and reads alike; {#restore} brings it back.
  # @raise [OpenSongs::Missing]
  def remove(id)
    Database.write do
      found = SongRow.on_shelf.find_by(id:) or raise OpenSongs::Missing
      found.update!(deleted_at: Time.now)
    end
    @open_songs.forget(id)
  end

  # Takes a song out of the bin.
  # @raise [OpenSongs::Missing]
  def restore(id)
    Database.write do
      found = SongRow.in_bin.find_by(id:) or raise OpenSongs::Missing
      found.update!(deleted_at: nil)
      entry(found)
    end
  end

  # Deletes songs in the bin for good, with all that is stored of them.
  # @param ids [Array<Integer>, nil] only these; nil for all
  # @return [Integer] how many there were
  # @raise [OpenSongs::Missing]
  def empty_bin(ids = nil)
    Database.write do
      found = SongRow.in_bin
      found = found.where(id: ids) if ids
      gone = found.pluck(:id)
      raise OpenSongs::Missing if ids && gone.size < ids.size

      PassShelf.forget(gone)
      MappingShelf.forget(gone)
      VersionShelf.forget(gone)
      [PartRow, EditRow].each { |rows| rows.where(song_id: gone).delete_all }
      SongRow.where(id: gone).delete_all
    end
  end

  # The places that sound different since a song was brought up have been seen.
  def places_seen(id) = Database.write { SongRow.on_shelf.where(id:).update_all(places: nil) }

  private

  def entry(row)
    { "id" => row.id, "name" => row.name, "revision" => row.revision, "updated_at" => row.updated_at.iso8601,
      **(row.deleted_at ? { "deleted_at" => row.deleted_at.iso8601 } : {}) }
  end

  # With what is shown of each besides its name. It is kept until the song changes; a song that cannot be read has none.
  def carded(rows)
    stale = rows.reject { |row| row.card_revision == row.revision }
    made = stale.to_h { |row| [row, card(row)] }
    keep(made.compact)
    rows.map { |row| entry(row).merge(made[row] || (row.card && JSON.parse(row.card)) || {}) }
  end

  def card(row)
    parts = Database.guarded { PartRow.where(song_id: row.id, kind: %w[song track region]).pluck(:kind, :record) }
    records = parts.group_by(&:first).transform_values { |list| list.map { |_, text| JSON.parse(text) } }
    KindSatchel::Card.of(records.fetch("song").first, records.fetch("track", []), records.fetch("region", []),
                         lanes(row))
  rescue StandardError
    raise unless StoredForm.damage(row.id)

    nil
  end

  # Those for the tempo.
  def lanes(row)
    found = PartRow.where(song_id: row.id, kind: "envelope")
                   .where("json_extract(record, '$.target') = ?", KindSatchel::Address.tempo.to_s)
    Database.guarded do
      found.where("json_extract(record, '$.owner') LIKE 'track/%'").pluck(:record)
    end.map { |text| JSON.parse(text) }
  end

  def keep(made)
    return if made.empty?

    Database.write do
      made.each do |row, card|
        SongRow.where(id: row.id).update_all(card: JSON.generate(card), card_revision: row.revision)
      end
    end
  rescue Database::Trouble
    # The list is there all the same; it is worked out again next time.
  end
end
