# frozen_string_literal: true

# Versions held in memory while they are heard, since each block of playing asks for one; they never change.
class OpenVersions
  # So many are held; the one used last stays longest.
  MOST = 3

  def initialize
    @held = {}
    @lock = Mutex.new
  end

  # @return [KindSatchel::Song]
  # @raise [VersionShelf::Missing]
  def song(song_id, id)
    key = [song_id, id, VersionShelf.kept_at(song_id, id)]
    known = @lock.synchronize { @held[key] = @held.delete(key) if @held.key?(key) }
    known || VersionShelf.song(song_id, id).tap { |song| keep(key, song) }
  end

  private

  def keep(key, song)
    @lock.synchronize do
      @held[key] = song
      @held.shift while @held.size > MOST
    end
  end
end
