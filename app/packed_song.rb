# frozen_string_literal: true

require "tempfile"
require "zip"

# A song and its sounds in one ZIP file: `song.satchel.json`, the document; `sounds/DIGEST.wav`, what it plays and the
# app does not ship; `sounds.json`, their names by digest.
class PackedSong
  DOCUMENT = "song.satchel.json"
  NAMES = "sounds.json"
  SOUND = %r{\Asounds/([0-9a-f]{64})\.wav\z}
  # The largest packed song, in bytes, and the most that may come out of it: also for each byte of it, as sounds that
  # are heard come no smaller.
  LARGEST = 1024 * 1024 * 1024
  LARGEST_OPENED = 2 * 1024 * 1024 * 1024
  MOST_FOR_A_BYTE = 50
  # What is let out of a small one all the same.
  FREE = 32 * 1024 * 1024
  # So much is taken out at a time.
  PART = 1024 * 1024
  MOST_ENTRIES = 2000
  LARGEST_NAMES = 1024 * 1024

  # Writes one.
  # @param path [String] of a new file
  # @param document [String]
  # @param sounds [Array<String>] that the song plays, as the document names them
  # @param store [SoundStore] sounds it does not have are left out
  def self.write(path, document, sounds, store)
    found = sounds.filter_map { |key| whole(store, key) }.reject { |row, _| row.word }
    Zip::OutputStream.open(path) do |zip|
      entry(zip, DOCUMENT, document)
      entry(zip, NAMES, JSON.generate(found.to_h { |row, _| [row.digest, row.name] }))
      found.each do |row, file|
        zip.put_next_entry("sounds/#{row.digest}.wav", nil, nil, Zip::Entry::STORED)
        File.open(file, "rb") { |from| IO.copy_stream(from, zip) }
      end
    end
  end

  # What is no longer what it was is left out, as what is not there.
  def self.whole(store, key)
    store.whole(key)
  rescue SoundStore::Missing
    nil
  end

  def self.entry(zip, name, text)
    zip.put_next_entry(name)
    zip.write(text)
  end
  private_class_method :entry, :whole

  # What the reader of archives raises over damaged ones.
  BROKEN = [Zip::Error, Zlib::Error, ArgumentError, EncodingError, EOFError, NoMethodError, RangeError,
            TypeError].freeze

  # @param path [String] of a file that was sent
  # @param asker [Asker] who sent it; when it leaves, nothing more is taken out
  # @raise [KindSatchel::InvalidInput] for what is no packed song, or more than it may be
  def initialize(path, asker: Asker.new)
    @asker = asker
    @bytes = File.size(path)
    @zip = Zip::File.open(path)
    check
  rescue *BROKEN, SystemCallError
    raise fault("no_pack", "", "This is no packed song: the ZIP file cannot be read.")
  end

  # @return [String] the document
  def document
    @document ||= text(@zip.find_entry(DOCUMENT), Schemas::LARGEST_DOCUMENT).force_encoding("UTF-8")
  end

  # Puts its sounds into the store, each of which has to be what its name says, then does what is left; when anything
  # of that fails, sounds that were not there before go again, unless a song of the shelf was missing them.
  # @param store [SoundStore]
  # @raise [KindSatchel::InvalidInput]
  def with_sounds(store)
    fresh = sounds.map(&:first).reject { |digest| store.there?(digest) }
    sounds.each { |digest, entry| as_file(entry) { |path| take(store, path, digest) } }
    yield
  rescue StandardError
    store.free(fresh) if fresh
    raise
  end

  private

  def fault(code, path, words) = KindSatchel::InvalidInput.of(code, path, words)

  def sounds = @zip.entries.filter_map { |entry| (found = SOUND.match(entry.name)) && [found[1], entry] }

  def check
    raise fault("no_pack", "", "This is no packed song: it has no #{DOCUMENT}.") unless @zip.find_entry(DOCUMENT)
    if @zip.size > MOST_ENTRIES
      raise fault("too_many", "",
                  "The packed song holds #{@zip.size} files; at most #{MOST_ENTRIES} are read.")
    end

    large = @zip.entries.find { |entry| entry.size > largest(entry) }
    raise fault("too_large", "/#{shown(large)}", "It is larger than #{largest(large) / 1024 / 1024} MB.") if large

    opened = @zip.entries.sum(&:size)
    if opened > LARGEST_OPENED
      raise fault("too_large", "",
                  "What the packed song holds is larger than #{LARGEST_OPENED / (1024**3)} GB.")
    end
    return if opened <= FREE + (@bytes * MOST_FOR_A_BYTE)

    raise fault("too_large", "",
                "The packed song holds #{opened / 1024 / 1024} MB in a file of #{(@bytes / 1024.0 / 1024).ceil} MB; " \
                "pack it without squeezing.")
  end

  # What one entry may come to, in bytes.
  def largest(entry)
    case entry.name
    when DOCUMENT then Schemas::LARGEST_DOCUMENT
    when NAMES then LARGEST_NAMES
    else SoundStore::LARGEST
    end
  end

  def shown(entry) = entry.name.dup.force_encoding("UTF-8").scrub("?")[0, 100]

  def take(store, path, digest)
    unless Digest::SHA256.file(path).hexdigest == digest
      raise fault("changed_sound", "/sounds/#{digest}.wav",
                  "The sound is not the one that was packed: its digest differs.")
    end

    store.take(path, name: names.fetch(digest, digest[0, 8]).to_s)
  end

  def names
    @names ||= begin
      entry = @zip.find_entry(NAMES)
      read = entry ? JSON.parse(text(entry, LARGEST_NAMES)) : {}
      read.is_a?(Hash) ? read : {}
    rescue JSON::ParserError
      {}
    end
  end

  def text(entry, most)
    StringIO.new.tap { |text| copy(entry, text, most) }.string
  end

  def as_file(entry)
    Tempfile.create("satchel-sound", binmode: true) do |file|
      copy(entry, file, SoundStore::LARGEST)
      file.flush
      yield file.path
    end
  end

  # Takes an entry out part by part, no further than it says it goes, as long as somebody waits for it.
  def copy(entry, goal, most)
    left = [entry.size, most].min
    entry.get_input_stream do |stream|
      while (part = stream.read(PART))
        @asker.there!
        left -= part.bytesize
        if left.negative?
          raise fault("too_large", "/#{shown(entry)}",
                      "It is larger than it says, or than #{most / 1024 / 1024} MB.")
        end

        goal.write(part)
      end
    end
  rescue *BROKEN
    raise fault("no_pack", "/#{shown(entry)}", "It cannot be read; the packed song is broken.")
  end
end
