# frozen_string_literal: true

# The commands of bin/satchel that need what the app stores beside its database: sounds, and the satchel.
module StoreCommands
  include KindSatchel

  private

  # Sounds are where the app keeps them: beside the database that SATCHEL_DB names, or its usual one.
  def pack
    text, goal = read(argument("SONG.json")), argument("PACKED.zip")
    found = Schemas.read_song(text).song
    raise InvalidInput.of("in_the_way", "", "#{goal} is there already.") if File.exist?(goal)

    missing = with_store { |store| PackedSong.write(goal, text, found.sounds, store) && store.missing(found) }
    missing.each { |one| @err.puts "#{one['sound']} is not in the store; it is left out." }
  end

  def unpack
    packed = with_store do |store|
      pack = PackedSong.new(argument("PACKED.zip"))
      pack.with_sounds(store) { Schemas.read_song(pack.document).song }
    end
    print_song(packed)
  end

  # Those of a file, or one's own and the shipped ones.
  def moves
    list = @arguments.empty? ? with_store { satchel.list.map(&:move) } : filed_moves
    rows(%w[name tags role beats], list.map do |move|
      [PlainText.cell(move.name), PlainText.cell(move.tags.join(" ")), move.role, move.length_ticks / Timing::PPQ.to_f]
    end)
  end

  def filed_moves
    data = Schemas.parse(read(argument("MOVES.json")))
    Schemas.check!("satchel", data)
    Records.each(data["moves"], "/moves") { |record| Records.read_kept_move(record) }
  end

  def satchel = MoveShelf.new(File.expand_path("../db/moves.json", __dir__))

  def load_app
    require_relative "packages"
    require_relative "environment"
    require_relative "packed_song"
    require_relative "hand_over/files"
  end

  # The app may be running: it goes on with the same store.
  def with_store
    load_app
    path = store_path
    there = File.exist?(path)
    raise InvalidInput.of("no_store", "", "There is no store at #{path}; `bin/demo` makes one.") unless there

    Database.connect(path, alone: false)
    yield SoundStore.new("#{path}-sounds")
  end

  def store_path = ENV.fetch("SATCHEL_DB", File.expand_path("../db/satchel.sqlite3", __dir__))

  # Sounds are looked for where there is a store.
  def outside
    missing = File.exist?(store_path) ? with_store { |store| store.missing(song).map { |one| one["sound"] } } : nil
    Checks::LooseEnds::Outside.new(missing, nil)
  end

  # What is followed has to be heard: of sounds of the app's store.
  def with_levels(current, entry)
    heard = entry["edit"] == "follow_level" && Edits::FollowLevel.sounds(current, entry["inputs"]).any?
    heard ? with_store { |store| Filling.of(nil, current, entry["edit"], entry["inputs"], store) } : entry["inputs"]
  end
end
