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
    parts = first ? KindSatchel::Upgrade.parts(raw) : chained(raw)
    parts = KindSatchel::OldTempo.parts(parts)
    song = KindSatchel::Parts.assemble(parts)
    store(row, song, raw, parts)
    song
  end

  def chained(raw)
    raw.to_h { |(kind, id), record| [[kind, id], KindSatchel::Older.record(kind, record, chains: true)] }
  end

  # What was merged, switched off or shortened is a step of the log; what only has another form now is none, and what
  # waits to be done again goes on waiting.
  def store(row, song, raw, parts)
    first = row.format < 2
    patch = patch(raw, parts)
    SongRows.write(row.id, patch, 1)
    log(row, patch) if first && changed?(raw, parts)
    places = first ? KindSatchel::Upgrade.places(song) : []
    places_record = JSON.generate(places.map { |place| place.to_record(song) }) unless places.empty?
    row.update!(format: KindSatchel::Document::VERSION, places: places_record)
  end

  def changed?(raw, parts)
    reformed = raw.to_h do |(kind, id), record|
      [KindSatchel::Older.key(kind, id), KindSatchel::Older.record(kind, record)]
    end
    patch(reformed, parts).keys.any? do |kind, id|
      %w[envelope region].include?(kind) && id != KindSatchel::TempoLane::ID
    end
  end

  # After what merged, steps that were undone before no longer fit; their going is said.
  def log(row, patch)
    waiting = EditRow.where(song_id: row.id).where("place > ?", row.done_edits).count
    gone = if waiting.zero?
             ""
           else
             "; #{KindSatchel::PlainText.count(waiting,
                                               'step')} undone before can no longer be done again"
           end
    EditLog.record(row, NAME, {}, WORDS + gone, patch)
  end

  def patch(before, after)
    (before.keys | after.keys).to_h { |key| [key, [before[key], after[key]]] }.reject { |_, (old, new)| old == new }
  end
  private_class_method :store, :changed?, :log, :patch
end
