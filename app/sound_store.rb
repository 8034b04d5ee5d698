# frozen_string_literal: true

require "digest"
require "tempfile"
require_relative "wave_head"
require_relative "wave_outline"

# Recorded sounds: each stored once, by the digest of its bytes, in a folder beside the database; listed with what
# uses them, and let go of when nothing does. What ships with the app has a word of its own besides, by which
# documents name it.
class SoundStore
  # The largest file that is taken in, in bytes.
  LARGEST = 200 * 1024 * 1024
  # The longest sound, in seconds.
  LONGEST_SECONDS = 20 * 60
  DIGEST = /\A[0-9a-f]{64}\z/
  WORD = /\A[a-z0-9][a-z0-9-]{0,62}\z/
  LONGEST_NAME = 120

  # Raised for a sound that is not in the store.
  class Missing < StandardError; end

  # @return [String]
  attr_reader :folder

  # @param folder [String] made when missing
  def initialize(folder)
    @folder = folder
  end

  # Takes a WAV file in; what is there already is not stored twice.
  # @param path [String] of a file that stays where it is
  # @param word [String, nil] for what ships with the app
  # @return [SoundRow]
  # @raise [KindSatchel::InvalidInput] for what is no WAV file, too long, or empty
  # @raise [Database::Trouble]
  def take(path, name:, word: nil)
    info, head = info_of(path)
    digest = Digest::SHA256.file(path).hexdigest
    outline = Database.guarded { SoundRow.find_by(digest:) }&.outline || outline_of(path, head, info)
    file(digest).then { |goal| keep(path, goal) unless File.size?(goal) == File.size(path) }
    Database.write do
      SoundRow.where(word:).where.not(digest:).update_all(word: nil) if word
      row = SoundRow.find_or_initialize_by(digest:)
      row.update!(name: row.name || name.strip[0, LONGEST_NAME], word: word || row.word, bytes: File.size(path),
                  outline:, **info)
      row
    end
  end

  # Takes in what ships with the app, once.
  # @param folder [String] of WAV files, each named by its word
  def take_shipped(folder)
    Dir[File.join(folder, "*.wav")].each do |path|
      word = File.basename(path, ".wav")
      row = Database.guarded { SoundRow.find_by(word:) }
      if row&.outline && row.bytes == File.size(path) && row.digest == Digest::SHA256.file(path).hexdigest &&
         File.size?(file(row.digest)) == row.bytes
        next
      end

      take(path, name: word.tr("-", " ").capitalize, word:)
    end
  end

  # @param key [String] a digest, or a word
  # @return [Array(SoundRow, String)] the sound and its file
  # @raise [Missing]
  def find(key)
    row = Database.guarded do
      DIGEST.match?(key) ? SoundRow.find_by(digest: key) : SoundRow.find_by(word: key)
    end or raise Missing
    path = file(row.digest)
    File.size?(path) == row.bytes ? [row, path] : raise(Missing)
  end

  # The same, read through: whether its bytes are still those that were taken in.
  # @raise [Missing]
  def whole(key)
    find(key).tap { |row, path| raise Missing unless Digest::SHA256.file(path).hexdigest == row.digest }
  end

  # Sounds whose file is not what it was: gone, or of another size.
  # @return [Array<SoundRow>]
  def spoilt = Database.guarded { SoundRow.order(:id).to_a }.reject { |row| File.size?(file(row.digest)) == row.bytes }

  # @return [Hash] what is seen of a sound
  # @raise [Missing]
  def outline(key)
    row, found = measured(key)
    found.slice("hop_seconds", "peaks").merge("seconds" => row.seconds)
  end

  # @return [Hash] how loud a sound is: `hop_seconds`, and `energy`, a mean square of each hop
  # @raise [Missing]
  def energy(key) = measured(key).last.slice("hop_seconds", "energy")

  # @return [Array<Hash>] every sound, with the songs that use it
  def list
    rows = Database.guarded { SoundRow.order(:name, :id).to_a }
    used = uses
    rows.map { |row| row.entry.merge("used_in" => used.fetch(row.word, []) | used.fetch(row.digest, [])) }
  end

  # @param key [String] a digest, or a word
  def there?(key)
    find(key) && true
  rescue Missing
    false
  end

  # What a song plays that the store does not have.
  # @param song [KindSatchel::Song]
  # @return [Array<Hash>] each sound, and the names of clips that play it
  def missing(song)
    song.sounds.reject { |key| there?(key) }.map do |sound|
      { "sound" => sound, "clips" => song.clips.each_value.select { |clip| clip.audio&.sound == sound }.map(&:name) }
    end
  end

  # Lets go of a sound that nothing uses.
  # @raise [Missing]
  # @raise [KindSatchel::InvalidInput] for one that is used, or ships with the app
  def remove(key)
    row, = find(key)
    raise KindSatchel::InvalidInput.of("shipped", "", "#{row.name} ships with the app; it stays.") if row.word

    songs = uses.fetch(row.digest, [])
    if songs.any?
      raise KindSatchel::InvalidInput.of("used", "", "#{row.name} is used in #{songs.map do |song|
        song['name']
      end.join(', ')}; it stays.")
    end

    where = remembered(row.digest)
    raise KindSatchel::InvalidInput.of("used", "", "#{row.name} #{where}; it stays.") if where

    drop(row)
  end

  # Lets go of all that nothing uses, not even an undo, a kept version or a preset.
  # @param digests [Array<String>, nil] only of these
  # @return [Integer] how many
  def free(digests = nil)
    used = uses
    rows = Database.guarded { SoundRow.where(word: nil, **(digests ? { digest: digests } : {})).to_a }
    gone = rows.reject { |row| used.key?(row.digest) || remembered(row.digest) }
    gone.each { |row| drop(row) }.size
  end

  private

  # What is kept of how it looks and how loud it is; made now where it was taken in before that was kept.
  def measured(key)
    row, path = find(key)
    unless row.outline
      outline = outline_of(path, *info_of(path).reverse)
      Database.write { row.update!(outline:) }
    end
    [row, JSON.parse(row.outline)]
  end

  # Songs by the sound their clips and samplers play, those taken off the shelf too: they can come back.
  def uses
    pairs = Database.guarded { in_clips + in_devices }.uniq
    names = Database.guarded { SongRow.pluck(:id, :name).to_h }
    pairs.each_with_object({}) do |(key, song_id), found|
      (found[key] ||= []) << { "id" => song_id, "name" => names[song_id] }
    end
  end

  def in_clips
    sound = "json_extract(record, '$.audio.sound')"
    sound_rows(%w[clip]).where("#{sound} IS NOT NULL").distinct.pluck(Arel.sql(sound), :song_id)
  end

  # What is stored of a damaged song may be no JSON; see {#remembered}.
  def sound_rows(kinds)
    PartRow.where(kind: kinds).from("(SELECT * FROM #{PartRow.table_name} WHERE json_valid(record)) AS " \
                                    "#{PartRow.table_name}")
  end

  def in_devices
    sound = "json_extract(device.value, '$.sound')"
    devices = sound_rows(%w[track clip]).joins(", json_each(#{PartRow.table_name}.record, '$.devices') AS device")
    devices.where("#{sound} IS NOT NULL").distinct.pluck(Arel.sql(sound), :song_id)
  end

  # Where a sound is known besides the songs as they stand: the words for it; nil where it is not.
  def remembered(digest)
    known = "%#{digest}%"
    Database.guarded do
      next "would come back with undo in a song" if EditRow.where("patch LIKE ?", known).exists?
      next "is in a kept version of a song" if VersionPartRow.where("record LIKE ?", known).exists?
      next "is in a preset" if PresetRow.where("chain LIKE ?", known).exists?

      "may be in a song that is damaged" if PartRow.where("NOT json_valid(record) AND record LIKE ?", known).exists?
    end
  end

  def drop(row)
    Database.write { row.destroy! }
    FileUtils.rm_f(file(row.digest))
  end

  def file(digest) = File.join(@folder, digest[0, 2], "#{digest}.wav")

  # Whole, or not at all.
  def keep(path, goal)
    FileUtils.mkdir_p(File.dirname(goal))
    part = "#{goal}.#{Process.pid}.#{Thread.current.object_id}.part"
    FileUtils.cp(path, part)
    File.open(part, &:fsync)
    File.rename(part, goal)
  rescue SystemCallError => e
    FileUtils.rm_f(part) if part
    raise Database::Trouble.new(507, "disk_fault",
                                "The disk does not take the sound (#{e.message.sub(/ @ .*/, '')}); nothing was " \
                                "changed.")
  end

  # What is seen and guessed of it, as it is kept.
  def outline_of(path, head, info)
    outline = WaveOutline.new(path, head).to_record
    guess = KindSatchel::Follow::TempoGuess.new(outline["energy"], outline["hop_seconds"],
                                                info[:frames].fdiv(info[:rate]))
    JSON.generate(outline.merge("guess" => { "bpm" => guess.bpm.round(4), "beats" => guess.beats,
                                             "first_seconds" => guess.first_seconds.round(4) }))
  end

  # @return [Array(Hash, WaveHead)]
  def info_of(path)
    head = WaveHead.new(path)
    seconds = head.frames.fdiv(head.rate)
    raise KindSatchel::InvalidInput.of("empty_sound", "", "The sound is empty.") if head.frames.zero?
    if seconds > LONGEST_SECONDS
      raise KindSatchel::InvalidInput.of("too_long", "",
                                         "The sound lasts #{(seconds / 60).round(1)} minutes; at most 20 are taken.")
    end

    [{ frames: head.frames, rate: head.rate, channels: head.format.channels }, head]
  end
end
