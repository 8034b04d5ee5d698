# frozen_string_literal: true

# Which tracks of each song are muted and soloed for listening: kept beside the song, out of its document and its log.
class ListenedTo
  def initialize(open_songs)
    @open_songs = open_songs
  end

  # @return [KindSatchel::Listening]
  def of(id)
    text = Database.guarded { SongRow.where(id:).pick(:listening) }
    text ? KindSatchel::Listening.new(**JSON.parse(text, symbolize_names: true)) : KindSatchel::Listening::ALL
  end

  # Mutes or soloes a track, or lets it be heard again.
  # @return [KindSatchel::Listening] as it is now
  # @raise [OpenSongs::Missing], [KindSatchel::NotFound], [KindSatchel::InvalidInput], [Database::Trouble]
  def change(id, track_id, **wanted)
    song = @open_songs.fetch(id).song
    Database.write do
      of(id).with_track(song, track_id, **wanted).tap do |now|
        SongRow.where(id:).update_all(listening: JSON.generate(now.to_h))
      end
    end
  end

  # @return [Array<String>] ids of the tracks of a song that are not heard; most songs have nobody muted or soloed,
  #   and then the song itself need not be known
  def silent(id, song = nil)
    now = of(id)
    now == KindSatchel::Listening::ALL ? [] : now.silent(song || @open_songs.fetch(id).song)
  end

  # @return [Hash] what a tab is told
  def to_record(id)
    now = of(id)
    { "muted" => now.muted, "soloed" => now.soloed, "silent" => silent(id) }
  end
end
