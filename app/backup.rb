# frozen_string_literal: true

require "digest"
require "fileutils"
require "json"
require "sqlite3"
require "tmpdir"
require "zip"
require_relative "packed_song"

# One archive of the database and its sounds, consistent also while the app serves; checked whole before it is put back.
module Backup
  DATABASE = "satchel.sqlite3"
  CONTENTS = "backup.json"
  FORMAT = "kind-satchel-backup"
  VERSION = 1
  SOUND = %r{\Asounds/([0-9a-f]{64})\.wav\z}
  # Pages that are copied at once, so that writers need not wait long.
  PAGES = 2000

  # Raised for what cannot be backed up or put back, with one sentence.
  class Refused < StandardError; end

  module_function

  # Copies the database as it stands at one moment (SQLite's own online backup), then the sounds it knows, which never
  # change.
  # @param database [String] file
  # @param goal [String] of a new archive
  # @return [Hash] "sounds" and "missing", how many
  # @raise [Refused]
  def write(database, goal)
    raise Refused, "There is no database at #{database}." unless File.exist?(database)
    raise Refused, "#{goal} is there already." if File.exist?(goal)

    part = "#{goal}.#{Process.pid}.part"
    Dir.mktmpdir("satchel-backup") do |folder|
      copy = File.join(folder, DATABASE)
      copied(database, copy)
      found, missing = digests(copy).partition { |digest| whole?(sound(database, digest), digest) }
      pack(part, copy, found.to_h { |digest| [digest, sound(database, digest)] }, missing)
      File.rename(part, goal)
      { "sounds" => found.size, "missing" => missing.size }
    end
  rescue SystemCallError, SQLite3::Exception => e
    raise Refused, "The backup cannot be written (#{e.message.sub(/ @ .*/, '')})."
  ensure
    FileUtils.rm_f(part) if part
  end

  # Checks an archive, and puts it in the place of what there is, which is kept beside it.
  # @param archive [String]
  # @param database [String] file
  # @return [Hash] "sounds", how many; "before", where the old database lies now (nil for none)
  # @raise [Refused] for a broken archive, or a server that uses the database; nothing is changed then
  def restore(archive, database)
    FileUtils.mkdir_p(File.dirname(database))
    alone(database) do
      Dir.mktmpdir("satchel-restore", File.dirname(database)) do |folder|
        sounds = unpacked(archive, folder)
        before = moved_aside(database)
        FileUtils.mkdir_p("#{database}-sounds")
        sounds.each { |digest, file| place(file, sound(database, digest)) }
        File.rename(File.join(folder, DATABASE), database)
        { "sounds" => sounds.size, "before" => before }
      end
    end
  rescue SystemCallError => e
    raise Refused, "The backup cannot be put back (#{e.message.sub(/ @ .*/, '')})."
  end

  def whole?(file, digest) = File.exist?(file) && Digest::SHA256.file(file).hexdigest == digest

  def copied(database, copy)
    from, to = SQLite3::Database.new(database, readonly: true), SQLite3::Database.new(copy)
    from.busy_timeout = 5000
    backup = SQLite3::Backup.new(to, "main", from, "main")
    nil until backup.step(PAGES) == SQLite3::Constants::ErrorCode::DONE
    backup.finish
  ensure
    [from, to].compact.each(&:close)
  end

  def digests(copy)
    base = SQLite3::Database.new(copy, readonly: true)
    base.execute("SELECT digest FROM sounds ORDER BY digest").flatten
  ensure
    base&.close
  end

  def pack(part, copy, sounds, missing)
    contents = { "format" => FORMAT, "version" => VERSION, "made_at" => Time.now.utc.strftime("%FT%TZ"),
                 "database" => Digest::SHA256.file(copy).hexdigest,
                 "sounds" => sounds.keys, "missing" => missing }
    Zip::OutputStream.open(part) do |zip|
      zip.put_next_entry(CONTENTS)
      zip.write(JSON.pretty_generate(contents))
      zip.put_next_entry(DATABASE)
      File.open(copy, "rb") { |from| IO.copy_stream(from, zip) }
      sounds.each do |digest, file|
        zip.put_next_entry("sounds/#{digest}.wav", nil, nil, Zip::Entry::STORED)
        File.open(file, "rb") { |from| IO.copy_stream(from, zip) }
      end
    end
  end

  # @return [Hash{String=>String}] files by digest, each what its name says
  def unpacked(archive, folder)
    Zip::File.open(archive) do |zip|
      contents = contents(zip)
      file = extract(zip, DATABASE, folder)
      unless Digest::SHA256.file(file).hexdigest == contents["database"]
        raise Refused,
              "The database in #{archive} is not the one that was backed up."
      end

      check_database(file)
      contents["sounds"].to_h { |digest| [digest, checked_sound(zip, digest, folder)] }
    end
  rescue *PackedSong::BROKEN
    raise Refused, "#{archive} is no backup: the archive cannot be read."
  end

  def contents(zip)
    data = JSON.parse(zip.read(CONTENTS))
    unless data.is_a?(Hash) && data["format"] == FORMAT && data["sounds"].is_a?(Array)
      raise Refused,
            "This is no backup of Kind Satchel."
    end
    unless data["version"] == VERSION
      raise Refused,
            "This backup is of version #{data['version']}; version #{VERSION} is read."
    end

    data
  rescue Errno::ENOENT, JSON::ParserError
    raise Refused, "This is no backup of Kind Satchel."
  end

  def extract(zip, name, folder)
    goal = File.join(folder, File.basename(name))
    zip.find_entry(name)&.extract(goal) or raise Refused, "#{name} is missing in the backup."
    goal
  end

  def check_database(file)
    base = SQLite3::Database.new(file, readonly: true)
    raise Refused, "The database in the backup is damaged." unless base.execute("PRAGMA integrity_check") == [["ok"]]
  rescue SQLite3::Exception
    raise Refused, "The database in the backup is damaged."
  ensure
    base&.close
  end

  def checked_sound(zip, digest, folder)
    raise Refused, "The backup names a sound #{digest.inspect}." unless SOUND.match?("sounds/#{digest}.wav")

    file = extract(zip, "sounds/#{digest}.wav", folder)
    if Digest::SHA256.file(file).hexdigest == digest
      file
    else
      raise(Refused,
            "The sound #{digest} in the backup is damaged.")
    end
  end

  # While no server uses it.
  def alone(database)
    File.open("#{database}.lock", File::RDWR | File::CREAT) do |lock|
      raise Refused, "A server uses #{database}; stop it first." unless lock.flock(File::LOCK_EX | File::LOCK_NB)

      yield
    end
  end

  # @return [String, nil] where the old database lies now
  def moved_aside(database)
    return unless File.exist?(database)

    before = "#{database}.before-#{Time.now.utc.strftime('%Y%m%d-%H%M%S')}"
    ["", "-wal", "-shm"].each do |ending|
      File.rename("#{database}#{ending}", "#{before}#{ending}") if File.exist?("#{database}#{ending}")
    end
    before
  end

  def place(file, goal)
    FileUtils.mkdir_p(File.dirname(goal))
    File.exist?(goal) ? nil : FileUtils.mv(file, goal)
  end

  def sound(database, digest) = File.join("#{database}-sounds", digest[0, 2], "#{digest}.wav")
  private_class_method :copied, :digests, :pack, :unpacked, :contents, :extract, :check_database, :checked_sound,
                       :alone, :moved_aside, :place, :sound, :whole?
end
