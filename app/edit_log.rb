# frozen_string_literal: true

# Changes to songs: edit, undo and redo, each one transaction that writes the changed rows and the log.
class EditLog
  # What a change brought: `step` (edit, undo or redo), the snapshots before and after, the patch, which side of it
  # holds now, and what to say of it.
  Change = Struct.new(:step, :before, :after, :patch, :side, :words, :notices)

  # @return [Array(String, String)] the words of what undo and redo would do; nil for nothing
  def self.words(row)
    places = [row.done_edits, row.done_edits + 1]
    found = EditRow.where(song_id: row.id, place: places).pluck(:place, :words).to_h
    places.map { |place| found[place] }
  end

  # Edits of one pass, or of one gesture of a hand, while nothing else is done in between, are one step.
  PASSES = %w[record_moves record_notes set_knob].freeze
  # Nudges by keys: so are those of one choice that follow each other.
  NUDGES = %w[shift_points move_regions move_notes stretch_notes set_velocity].freeze

  LONGEST_WORDS = 160

  # Logs an edit; what was undone can no longer be redone.
  # @param row [SongRow] saved by the caller
  def self.record(row, name, inputs, words, patch)
    EditRow.where(song_id: row.id).where("place > ?", row.done_edits).delete_all
    row.done_edits += 1
    EditRow.create!(song_id: row.id, place: row.done_edits, name:, words:, inputs: JSON.generate(brief(name, inputs)),
                    patch: JSON.generate(KindSatchel::Deltas.compact(patch)))
  end

  # What was played is kept elsewhere (see {PassShelf}).
  def self.brief(name, inputs)
    name == "record_moves" ? inputs.merge("moves" => inputs["moves"].map { |move| move["address"] }) : inputs
  end

  # A further lap of the pass, or a further nudge, goes into the step that was logged last, where that is of the same.
  # @param snapshot [OpenSongs::Snapshot] before the edit
  # @param result [KindSatchel::Edits::Result]
  # @return [Boolean] whether there was one
  def self.fold(row, snapshot, name, inputs, result)
    alike = [PASSES, NUDGES].find { |names| names.include?(name) }
    pass = alike && inputs["pass"] or return false
    entry = EditRow.find_by(song_id: row.id, place: row.done_edits)
    return false unless entry && alike.include?(entry.name) && JSON.parse(entry.inputs)["pass"] == pass

    before = KindSatchel::Parts.apply(snapshot.song,
                                      KindSatchel::Deltas.expand(JSON.parse(entry.patch), snapshot.song, 0), 0)
    patch = KindSatchel::Parts.between(before, result.song)
    EditRow.where(song_id: row.id).where("place > ?", row.done_edits).delete_all
    return taken_back(row, entry) if patch.empty?

    words = alike == NUDGES ? result.words : both(entry.words, result.words)
    entry.update!(words:, patch: JSON.generate(KindSatchel::Deltas.compact(patch)))
    true
  end

  # Nothing is left of a step.
  def self.taken_back(row, entry)
    entry.destroy!
    row.done_edits -= 1
    true
  end

  def self.both(one, other)
    return one if one == other

    return "#{one} and #{other.delete_prefix('turn ')}"[0, LONGEST_WORDS] if other.start_with?("turn ")

    goals = [one, other].map { |words| words[/ into .*/] }.uniq
    "record a pass#{goals.first if goals.size == 1}"
  end
  private_class_method :both, :taken_back

  # @param sounds [#call] gives the {SoundStore}
  def initialize(open_songs, sounds)
    @open_songs = open_songs
    @sounds = sounds
  end

  # @raise [OpenSongs::Stale], [OpenSongs::Missing], [KindSatchel::InvalidInput], [Database::Trouble]; nothing is
  #   stored then
  def edit(id, revision, name, inputs)
    change("edit", id, revision) do |snapshot, row|
      result = KindSatchel::Edits.apply(snapshot.song, name, Filling.of(id, snapshot.song, name, inputs, @sounds.call))
      patch = KindSatchel::Parts.between(snapshot.song, result.song)
      KindSatchel::Checks::Trial.check!(snapshot.song, result.song, patch.keys)
      if patch.any? && !EditLog.fold(row, snapshot, name, inputs, result)
        EditLog.record(row, name, inputs, result.words, patch)
      end
      notices = result.notices + PassShelf.keep(id, inputs, result)
      [patch.empty? ? snapshot.song : result.song, patch, 1, result.words, notices]
    end
  end

  # Makes an edit that somebody else works out, while others go on; if the song has moved on meanwhile it is stale.
  # @yieldreturn [Hash] "words", "tells", "patch" as the log has it
  def worked_out(id, revision, name, inputs)
    current(id, revision)
    found = yield
    notices = found["notices"].map { |notice| KindSatchel::Edits::Notice.new(*notice.values_at("code", "ids", "text")) }
    change("edit", id, revision) do |snapshot, row|
      song = KindSatchel::Parts.apply(snapshot.song, KindSatchel::Deltas.expand(found["patch"], snapshot.song, 1), 1)
      patch = KindSatchel::Parts.between(snapshot.song, song)
      KindSatchel::Checks::Trial.check!(snapshot.song, song, patch.keys)
      EditLog.record(row, name, inputs, found["words"], patch) if patch.any?
      [song, patch, 1, found["words"], notices]
    end
  end

  # @raise [KindSatchel::InvalidInput] when nothing is left to undo
  def undo(id, revision) = step(id, revision, 0, "undo")

  # @raise [KindSatchel::InvalidInput] when nothing is left to redo
  def redo(id, revision) = step(id, revision, 1, "redo")

  # So many of the newest edits are told.
  MOST_TOLD = 50_000

  # @return [Hash] "done", how many edits are in force; "entries" by place, those that were undone among them
  # @raise [OpenSongs::Missing]
  def self.list(id)
    Database.read do
      done = SongRow.on_shelf.where(id:).pick(:done_edits) or raise OpenSongs::Missing
      rows = EditRow.where(song_id: id).where("place > ?", done - MOST_TOLD).order(:place).limit(2 * MOST_TOLD).pluck(
        :place, :words, :created_at
      )
      { "done" => done, "entries" => rows.map do |place, words, at|
        { "place" => place, "words" => words, "at" => at.utc.iso8601 }
      end }
    end
  end

  # Going over more steps than these takes long.
  MANY_STEPS = 3000

  # Whether a place is far off, see {MANY_STEPS}.
  def self.far?(id, place)
    place.is_a?(Integer) && (Database.guarded do
      SongRow.on_shelf.where(id:).pick(:done_edits)
    end.to_i - place).abs > MANY_STEPS
  end

  # Goes back, or on again, to where just so many edits are in force.
  # @param place [Integer] 0 is the song as it came
  # @yieldreturn [Array, nil] what differs then, as the log has it, where somebody else worked it out
  # @raise [KindSatchel::InvalidInput] for a place there is none of
  def go_to(id, revision, place)
    current(id, revision)
    patch = yield if block_given?
    change("edit", id, revision) do |snapshot, row|
      steps = KindSatchel::PlainText.count((place.to_i - row.done_edits).abs, "step")
      words = "#{place.to_i < row.done_edits ? 'undo' : 'redo'} #{steps}"
      song = if patch
               KindSatchel::Parts.apply(snapshot.song, KindSatchel::Deltas.expand(patch, snapshot.song, 1), 1)
             else
               EditLog.gone_over(snapshot.song, row, place)
             end
      row.done_edits = place
      [song, KindSatchel::Parts.between(snapshot.song, song), 1, words]
    end
  end

  # A song after all steps on the way to a place: their patches folded into one, and the song put together once.
  # @param row [SongRow]
  # @yieldparam share [Float] of the steps that were gone over
  # @raise [KindSatchel::InvalidInput] for a place there is none of
  def self.gone_over(song, row, place)
    patches, side = between(row, place)
    steps = patches.lazy.with_index.map do |patch, i|
      yield i.fdiv(patches.size) if block_given?
      JSON.parse(patch)
    end
    folded = KindSatchel::Deltas.folded(steps, song, side)
    return KindSatchel::Parts.apply(song, folded, side) if folded

    patches.reduce(song) do |now, patch|
      KindSatchel::Parts.apply(now, KindSatchel::Deltas.expand(JSON.parse(patch), now, side), side)
    end
  end

  # The patches on the way to a place, in the order in which they are gone over, and which side of them comes to hold.
  def self.between(row, place)
    log = EditRow.where(song_id: row.id)
    unless place.is_a?(Integer) && place.between?(0, [row.done_edits, log.maximum(:place).to_i].max)
      raise KindSatchel::InvalidInput.of("out_of_range", "/place", "The history has no such step.")
    end
    if place < row.done_edits
      return [log.where(place: (place + 1)..row.done_edits).order(place: :desc).pluck(:patch),
              0]
    end

    [log.where(place: (row.done_edits + 1)..place).order(:place).pluck(:patch), 1]
  end
  private_class_method :between

  private

  # The song is at hand before anybody is kept waiting; what is stored is compared once more with the lock in hand.
  def change(step, id, revision, &)
    snapshot = current(id, revision)
    Database.write do
      row = SongRow.on_shelf.find_by(id:) or raise OpenSongs::Missing
      snapshot = current(id, row.revision)
      raise OpenSongs::Stale, row.revision if revision != row.revision

      after, rest = changed(snapshot, row, &)
      Change.new(step, snapshot, after, *rest)
    end.tap { |change| @open_songs.keep(change.after) }
  end

  # @raise [OpenSongs::Stale]
  def current(id, revision)
    snapshot = @open_songs.fetch(id)
    return snapshot if snapshot.revision == revision

    stored = SongRow.on_shelf.where(id:).pick(:revision)
    @open_songs.forget(id) if stored != snapshot.revision
    raise OpenSongs::Stale, stored || snapshot.revision
  end

  def changed(snapshot, row)
    song, patch, side, words, notices = yield(snapshot, row)
    [store(row, snapshot, song, patch, side), [patch, side, words, notices || []]]
  end

  def store(row, snapshot, song, patch, side)
    # A step over an entry that changes nothing today still is a step.
    return snapshot if patch.empty? && !row.changed?

    bytes = SongRows.write(row.id, patch, side)
    row.update!(revision: snapshot.revision + 1, name: song.name)
    OpenSongs::Snapshot.new(row.id, song, row.revision, *EditLog.words(row), [snapshot.bytes, bytes].max)
  end

  def step(id, revision, side, word)
    change(word, id, revision) do |snapshot, row|
      entry = EditRow.find_by(song_id: id, place: row.done_edits + side) or
        raise KindSatchel::InvalidInput.of("nothing_to_#{word}", "", "There is nothing to #{word}.")
      row.done_edits += side.zero? ? -1 : 1
      song = KindSatchel::Parts.apply(snapshot.song,
                                      KindSatchel::Deltas.expand(JSON.parse(entry.patch), snapshot.song, side), side)
      [song, KindSatchel::Parts.between(snapshot.song, song), 1, entry.words]
    end
  end
end
