# frozen_string_literal: true

# Songs held in memory by revision, so that previews and edits never read a song anew.
class OpenSongs
  MOST = 8

  # A song as it stands: the value, its revision, and the words of what can be undone and redone (nil for nothing).
  Standing = Struct.new(:id, :song, :revision, :undo, :redo)

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

  def initialize
    @standings = {}
    @lock = Mutex.new
    @locks = Hash.new { |locks, id| locks[id] = Monitor.new }
  end

  # @return [Standing] read from the database when it is not in memory
  # @raise [Missing]
  def fetch(id)
    known = @lock.synchronize { touch(id) }
    return known if known

    alone(id) { @lock.synchronize { touch(id) } || keep(read(id)) }
  end

  # Runs a block with nobody else changing this song.
  def alone(id, &) = @lock.synchronize { @locks[id] }.synchronize(&)

  def keep(standing)
    @lock.synchronize do
      @standings.delete(standing.id)
      @standings[standing.id] = standing
      @standings.shift if @standings.size > MOST
    end
    standing
  end

  def forget(id) = @lock.synchronize { @standings.delete(id) }

  private

  # Moves a song to the end of the queue of those that make room.
  def touch(id)
    standing = @standings.delete(id)
    @standings[id] = standing if standing
  end

  def read(id)
    SongRow.transaction do
      row = SongRow.on_shelf.find_by(id:) or raise Missing
      song = SongUpgrade.needed?(row) ? SongUpgrade.bring_up(row) : SongRows.read(id)
      Standing.new(id, song, row.revision, *EditLog.words(row))
    end
  end
end
