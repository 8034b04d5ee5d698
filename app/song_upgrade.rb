# frozen_string_literal: true

# Brings a stored song of an older form up to today's, once; what that merged or switched off is one step of its log.
module SongUpgrade
  NAME = "bring_up"
  WORDS = "bring the song up to one value that is set, then scaled, then shifted"

  module_function

  # @return [Boolean] whether a row still holds an older form
  def needed?(row) = row.format < KindSatchel::Document::VERSION

  # @param row [SongRow] inside a transaction
  # @return [KindSatchel::Song]
  def bring_up(row)
    raw = SongRows.parts(row.id)
    first = row.format < 2
    parts = first ? KindSatchel::Upgrade.parts(raw) : raw.to_h { |(kind, id), record| [[kind, id], KindSatchel::Older.record(kind, record, chains: true)] }
    parts = KindSatchel::OldTempo.parts(parts)
    song = KindSatchel::Parts.assemble(parts)
    store(row, song, patch(raw, parts), first)
    song
  end

  # What version 2 had in another form sounds the same, so only what an older one had is told and can be undone.
  def store(row, song, patch, first)
    SongRows.write(row.id, patch, 1)
    EditLog.record(row, NAME, {}, WORDS, patch) if first && patch.keys.any? { |kind, _| %w[envelope region].include?(kind) }
    places = first ? KindSatchel::Upgrade.places(song) : []
    row.update!(format: KindSatchel::Document::VERSION, places: places.empty? ? nil : JSON.generate(places.map { |place| place.to_record(song) }))
  end

  def patch(before, after)
    (before.keys | after.keys).to_h { |key| [key, [before[key], after[key]]] }.reject { |_, (old, new)| old == new }
  end
  private_class_method :store, :patch
end
