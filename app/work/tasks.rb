# frozen_string_literal: true

require_relative "../midi_file"
require_relative "../hand_over/files"

# What a worker can do. Each task answers what the server passes on.
class Tasks
  NAMES = { "import" => :import, "export" => :export, "playback" => :playback, "offline" => :offline, "edit" => :edit,
            "midi" => :midi,
            "midi_document" => :midi_document, "baking" => :baking,
            "comparison" => :comparison, "history" => :history, "hand_over" => :hand_over }.freeze

  def initialize(arguments)
    @arguments = arguments
  end

  # Reads a document from a file and stores it; with the server's leave, since only one may write.
  def import
    tell(0.05, "reading")
    opened = Schemas.read_song(File.binread(@arguments.fetch("file")))
    tell(0.6, "storing")
    with_leave { SongShelf.new(OpenSongs.new).add(opened.song, places: opened.places) }
  end

  # Makes a song of a MIDI file and stores it.
  def midi
    made, song = midi_song
    tell(0.6, "storing")
    with_leave { SongShelf.new(OpenSongs.new).add(song).merge("left_out" => made.left_out) }
  end

  # Makes a song of a MIDI file, to be taken into another; it is stored nowhere.
  def midi_document
    made, song = midi_song
    tell(0.8, "writing")
    { "document" => KindSatchel::Document.dump(song), "left_out" => made.left_out }
  end

  # Writes a song's document to a file.
  def export
    tell(0.1, "reading")
    record = KindSatchel::Document.dump(song)
    tell(0.5, "writing")
    File.write(@arguments.fetch("file"), JSON.pretty_generate(record))
    nil
  end

  # Writes what plays over a stretch to a file, parameter by parameter.
  def playback
    from, to = @arguments.values_at("from_tick", "to_tick")
    sounding = KindSatchel::AtRest.new(song, @arguments.fetch("resting", [])).song
    play = Playback.new(sounding)
    addresses = sounding.sounded
    ramps = addresses.each_slice([addresses.size / 20, 1].max).with_index.reduce({}) do |all, (slice, i)|
      tell(0.1 + (0.8 * i / 20), "flattening")
      all.merge(play.stretch(from, to, slice)["ramps"])
    end
    File.write(@arguments.fetch("file"),
               JSON.generate(play.stretch(from, to, []).merge("ramps" => ramps, **play.rest(from, to))))
    nil
  end

  # Writes to a file what a page keeps for when the server is away.
  def offline
    copy = OfflineCopy.new(OpenSongs.new.fetch(@arguments.fetch("id")), @arguments.fetch("block_ticks"))
    record = copy.to_record { |share| tell(0.1 + (0.8 * share), "flattening") }
    File.write(@arguments.fetch("file"), OfflineCopy.checked(JSON.generate(record)))
    nil
  end

  # Works an edit out; the server makes it. What differs, as the log has it.
  def edit
    tell(0.1, "reading")
    before = song
    tell(0.4, "working out")
    result = KindSatchel::Edits.apply(before, @arguments.fetch("edit"), @arguments.fetch("inputs"))
    tell(0.9, "comparing")
    patch = KindSatchel::Deltas.compact(KindSatchel::Parts.between(before, result.song))
    { "words" => result.words, "notices" => result.notices.map(&:to_record), "patch" => patch }
  end

  # Goes over many steps of what was done; the server makes it.
  def history
    tell(0.1, "reading")
    row = SongRow.find(@arguments.fetch("id"))
    after = EditLog.gone_over(song, row, @arguments.fetch("place")) do |share|
      tell(0.2 + (0.7 * share), "going over what was done")
    end
    { "patch" => KindSatchel::Deltas.compact(KindSatchel::Parts.between(song, after)) }
  end

  # What limits cost, parameter by parameter.
  def baking
    limits = KindSatchel::HandOver::Limits.read(@arguments.fetch("limits"))
    baked = KindSatchel::HandOver::Bake.new(song, limits).call(Spread.map(lambda { |share|
      tell(0.1 + (0.85 * share), "fitting")
    }))
    { "losses" => baked.losses.map { |loss| loss.to_record(song) } }
  end

  # What differs between a version and the song as it stands, or another version.
  def comparison
    tell(0.1, "reading")
    other = VersionShelf.song(@arguments.fetch("id"), @arguments.fetch("version"))
    now = @arguments["with"] ? VersionShelf.song(@arguments.fetch("id"), @arguments["with"]) : song
    KindSatchel::HandOver::Comparison.new(now, other).to_record { |share| tell(0.2 + (0.8 * share), "comparing") }
  end

  # Writes the files that are handed over into a folder.
  def hand_over
    choices = HandOverChoices.new(song, @arguments.fetch("choices"))
    HandOverFiles.new(choices, @arguments.fetch("folder"), SoundStore.new(@arguments.fetch("sounds"))) do |share, words|
      tell(share, words)
    end.write
  end

  private

  def midi_song
    tell(0.05, "reading")
    MidiFile.song(File.binread(@arguments.fetch("file")), @arguments.fetch("name"), @arguments["controls"])
  end

  def song = @song ||= OpenSongs.new.fetch(@arguments.fetch("id")).song

  def tell(share, words) = puts(JSON.generate("progress" => share, "words" => words))

  def with_leave
    puts JSON.generate("ready" => true)
    $stdin.gets
    yield
  end
end
