# frozen_string_literal: true

# Versions held in memory while they are heard, since each block of playing asks for one; they never change. Songs
# that are being rendered are held likewise, by the token of their hand-over, so that all sounds of it are of one
# state.
class OpenVersions
  # So many of either are held; the one used last stays longest.
  MOST = 3
  # What hand-overs are called, see {Workspaces}.
  TOKEN = /\A[0-9a-f]{32}\z/

  def initialize
    @held = {}
    @rendered = {}
    @lock = Mutex.new
  end

  # @param name [String] a version's id, or a token
  # @return [KindSatchel::Song]
  # @raise [VersionShelf::Missing]
  def song(song_id, name)
    return known(@rendered, [song_id, name]) || raise(VersionShelf::Missing) if TOKEN.match?(name)

    key = [song_id, name.to_i, VersionShelf.kept_at(song_id, name.to_i)]
    known(@held, key) || VersionShelf.song(song_id, name.to_i).tap { |song| keep(@held, key, song) }
  end

  # Holds a song for rendering.
  def hold(song_id, token, song) = keep(@rendered, [song_id, token], song)

  private

  def known(store, key) = @lock.synchronize { store[key] = store.delete(key) if store.key?(key) }

  def keep(store, key, song)
    @lock.synchronize do
      store[key] = song
      store.shift while store.size > MOST
    end
  end
end
