# frozen_string_literal: true

# Changes to songs: edit, undo and redo, each one transaction that writes the changed rows and the log.
class EditLog
  # What a change brought: the standings before and after, the patch, which side of it holds now, and what to say of it.
  Change = Struct.new(:before, :after, :patch, :side, :words, :tells)

  # @return [Array(String, String)] the words of what undo and redo would do; nil for nothing
  def self.words(row)
    places = [row.done_edits, row.done_edits + 1]
    found = EditRow.where(song_id: row.id, place: places).pluck(:place, :words).to_h
    places.map { |place| found[place] }
  end

  # Logs an edit; what was undone can no longer be redone.
  # @param row [SongRow] saved by the caller
  def self.record(row, name, inputs, words, patch)
    EditRow.where(song_id: row.id).where("place > ?", row.done_edits).delete_all
    row.done_edits += 1
    flat = patch.map { |key, pair| [*key, *pair] }
    EditRow.create!(song_id: row.id, place: row.done_edits, name:, words:, inputs: JSON.generate(inputs), patch: JSON.generate(flat))
  end

  def initialize(open_songs)
    @open_songs = open_songs
  end

  # @raise [OpenSongs::Stale], [KindSatchel::InvalidInput]; nothing is stored then
  def edit(id, revision, name, inputs)
    change(id, revision) do |standing, row|
      result = KindSatchel::Edits.apply(standing.song, name, inputs)
      patch = KindSatchel::Parts.between(standing.song, result.song)
      next [standing.song, {}, 1, result.words, result.tells] if patch.empty?

      EditLog.record(row, name, inputs, result.words, patch)
      [result.song, patch, 1, result.words, result.tells]
    end
  end

  # @raise [KindSatchel::InvalidInput] when nothing is left to undo
  def undo(id, revision) = step(id, revision, 0, "undo")

  # @raise [KindSatchel::InvalidInput] when nothing is left to redo
  def redo(id, revision) = step(id, revision, 1, "redo")

  private

  def change(id, revision)
    @open_songs.alone(id) do
      standing = @open_songs.fetch(id)
      raise OpenSongs::Stale, standing.revision if revision != standing.revision

      after = nil
      song, patch, side, words, tells = SongRow.transaction do
        row = SongRow.find(id)
        yield(standing, row).tap { |result| after = store(row, standing, *result[0..2]) }
      end
      @open_songs.keep(after)
      Change.new(standing, after, patch, side, words, tells || []).tap { raise "lost" unless song.equal?(after.song) }
    end
  end

  def store(row, standing, song, patch, side)
    return standing if patch.empty?

    SongRows.write(row.id, patch, side)
    row.update!(revision: standing.revision + 1, name: song.name)
    OpenSongs::Standing.new(row.id, song, row.revision, *EditLog.words(row))
  end

  def step(id, revision, side, word)
    change(id, revision) do |standing, row|
      entry = EditRow.find_by(song_id: id, place: row.done_edits + side) or
        raise KindSatchel::InvalidInput.of("nothing_to_#{word}", "", "There is nothing to #{word}.")
      patch = JSON.parse(entry.patch).to_h { |kind, part_id, *pair| [[kind, part_id], pair] }
      row.done_edits += side.zero? ? -1 : 1
      [KindSatchel::Parts.apply(standing.song, patch, side), patch, side, entry.words]
    end
  end
end
