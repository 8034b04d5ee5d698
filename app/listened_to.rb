# frozen_string_literal: true

# Which tracks of each song are muted and soloed for listening, and whose moves rest: kept beside the song, out of its
# document and its log.
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

  # Lets moves rest, or brings them back.
  # @param owner [String] whose, see {KindSatchel::AtRest}
  # @return [Array<String>] addresses that may be heard otherwise for it
  # @raise [OpenSongs::Missing], [KindSatchel::NotFound], [KindSatchel::InvalidInput], [Database::Trouble]
  def rest(id, owner, rests)
    song = @open_songs.fetch(id).song
    before = of(id)
    now = Database.write do
      of(id).with_rest(song, owner, rests).tap do |next_one|
        SongRow.where(id:).update_all(listening: JSON.generate(next_one.to_h))
      end
    end
    KindSatchel::Heard::Changes.between(before.at_rest(song), now.at_rest(song)).addresses.map(&:to_s)
  end

  # @return [KindSatchel::Song] a song as it is heard: with the moves that rest switched off
  def heard(id, song) = of(id).at_rest(song)

  # @return [Array<String>] ids of the tracks of a song that are not heard
  def silent(id, song) = of(id).silent(song)

  # What a tab is told; most songs have nobody muted, soloed or at rest, and then the song itself need not be known.
  # @return [Hash]
  def to_record(id)
    now = of(id)
    song = now == KindSatchel::Listening::ALL ? nil : @open_songs.fetch(id).song
    { "muted" => now.muted, "soloed" => now.soloed, "silent" => song ? now.silent(song) : [],
      "resting" => now.resting, "rested" => song ? now.rested(song) : [] }
  end
end
