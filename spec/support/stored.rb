# frozen_string_literal: true

# Databases that older states of the program made, kept as text: each with a song, its log, two steps of it undone, and what that state
# heard after every step: seconds of some ticks, then two parameters there.
class Stored
  FOLDER = File.expand_path("../fixtures/stored", __dir__)
  TICKS = [0, 700, 2500, 5000, 9000, 12_000, 20_000, 29_000].freeze
  ADDRESSES = %w[bass/synth/cutoff bass/channel/volume].freeze

  def self.names = Dir.children(FOLDER).map { |file| File.basename(file, ".sql") }.sort

  def initialize(name) = @text = File.read(File.join(FOLDER, "#{name}.sql"))

  # @return [Hash] by how many steps are in force
  def heard
    last = nil
    @text.scan(/^-- heard (\d+) (.+)$/).to_h { |place, body| [place.to_i, last = body == "same" ? last : JSON.parse(body)] }
  end

  def self.readings(song)
    values = ADDRESSES.map do |text|
      resolver = KindSatchel::Heard::Resolver.new(song, KindSatchel::Address.parse(text))
      TICKS.map { |tick| resolver.at(tick) }
    end
    [TICKS.map { |tick| song.tempo.seconds_at(tick) }, *values]
  end

  # Runs a block on a database of its own that holds this.
  def opened
    Dir.mktmpdir do |folder|
      path = File.join(folder, "old.sqlite3")
      SQLite3::Database.new(path) { |database| database.execute_batch(@text) }
      Database.connect(path, alone: false)
      yield
    ensure
      Database.connect(AppHelpers::DATABASE, alone: false)
    end
  end
end
