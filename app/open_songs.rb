# frozen_string_literal: true

# Songs held in memory by revision, so that previews and edits need not read a song again.
class OpenSongs
  # How much text the songs held may be, as they are stored; the one used last stays, however large.
  MOST_BYTES = 96 * 1024 * 1024

  # A song as it stands: the value, its revision, the words of what can be undone and redone (nil for nothing), and
  # how much text it is.
  Snapshot = Struct.new(:id, :song, :revision, :undo, :redo, :bytes)

  # Raised when a change was made on a revision that is no longer the newest.
  class Stale < StandardError
    attr_reader :revision

    def initialize(revision)
      @revision = revision
      super("The song has moved on to revision #{revision}.")
    end
  end

  # Raised for a song that is not on the shelf.
  class Missing < StandardError; end

  # Raised for a song whose stored parts cannot be read.
  class Unreadable < StandardError; end

  def initialize(most_bytes: MOST_BYTES)
    @most_bytes = most_bytes
    @snapshots = {}
    @lock = Mutex.new
    @loading = {}
  end

  # @return [Snapshot] read from the database when it is not in memory
  # @raise [Missing], [Unreadable], [Database::Trouble]
  def fetch(id)
    known(id) || begin
      bring_up(id)
      loading(id) { known(id) || keep(read(id)) }
    end
  end

  # Brings a song of an older form up to today's, in the database.
  def bring_up(id)
    unless Database.guarded { SongRow.on_shelf.where(id:).where("format < ?", KindSatchel::Document::VERSION).exists? }
      return
    end

    readable(id) { Database.write { SongUpgrade.bring_up(SongRow.find(id)) } }
  end

  # Takes over what a song has come to; an older state than the one held is left.
  # @return [Snapshot] the one held now
  def keep(snapshot)
    @lock.synchronize do
      held = @snapshots.delete(snapshot.id)
      snapshot = held if held && held.revision > snapshot.revision
      @snapshots[snapshot.id] = snapshot
      make_room
    end
    snapshot
  end

  # @param id [Integer] of a song that is read again the next time
  def forget(id) = @lock.synchronize { @snapshots.delete(id) }

  # @return [Array<Integer>] ids of the songs held, the one used last at the end
  def held = @lock.synchronize { @snapshots.keys }

  private

  # Moves a song to the end of the queue of those that make room.
  def known(id)
    @lock.synchronize do
      snapshot = @snapshots.delete(id)
      @snapshots[id] = snapshot if snapshot
    end
  end

  def make_room
    sum = @snapshots.each_value.sum(&:bytes)
    sum -= @snapshots.shift[1].bytes while sum > @most_bytes && @snapshots.size > 1
  end

  # One thread reads a song while others wait for it; its lock goes when nobody does.
  def loading(id, &)
    entry = @lock.synchronize { (@loading[id] ||= [Mutex.new, 0]).tap { |one| one[1] += 1 } }
    entry[0].synchronize(&)
  ensure
    @lock.synchronize { @loading.delete(id) if (entry[1] -= 1).zero? }
  end

  def read(id)
    Database.read do
      row = SongRow.on_shelf.find_by(id:) or raise Missing
      texts = SongRows.texts(id)
      song = readable(id) { KindSatchel::Parts.assemble(SongRows.parsed(texts)) }
      Snapshot.new(id, song, row.revision, *EditLog.words(row), texts.sum { |_, _, text| text.bytesize })
    end
  end

  def readable(id)
    yield
  rescue StandardError => e
    # Whatever goes wrong on the way is damage of the song only where what is stored has not the form that it should
    # have.
    raise if e.is_a?(ActiveRecord::ActiveRecordError) || e.is_a?(Database::Trouble) || !(why = StoredForm.damage(id))

    raise Unreadable, "Song #{id} cannot be read: what is stored of it is damaged (#{why})."
  end
end
