# frozen_string_literal: true

# The SQLite database: write-ahead log and full synchronisation, so that what was acknowledged survives a kill. One
# server to a file, one writer at a time in it; reads go on meanwhile.
module Database
  MIGRATIONS = File.expand_path("../db/migrate", __dir__)
  # How long a write waits for a lock that somebody else holds.
  PATIENCE_SECONDS = 1.5
  PAUSE_SECONDS = 0.01

  # Raised when the file cannot be used, with one sentence for whoever starts the server.
  class Refused < StandardError; end

  # What went wrong with the file or the disk while a request was served.
  class Trouble < StandardError
    attr_reader :status, :code

    def initialize(status, code, message)
      @status = status
      @code = code
      super(message)
    end
  end

  # The causes a person can do something about.
  TROUBLES = {
    SQLite3::BusyException => [503, "busy", "Somebody else is writing to the database; try again."],
    SQLite3::LockedException => [503, "busy", "Somebody else is writing to the database; try again."],
    SQLite3::FullException => [507, "disk_full", "The disk is full; nothing was changed. Make room, then try again."],
    SQLite3::IOException => [507, "disk_fault", "The disk does not take what is written; nothing was changed."],
    SQLite3::ReadOnlyException => [503, "read_only", "The database file may not be written to; nothing was changed."],
    SQLite3::CorruptException => [503, "damaged", "The database file is damaged; nothing was changed."],
    SQLite3::NotADatabaseException => [503, "damaged", "The database file is damaged; nothing was changed."],
    SQLite3::CantOpenException => [503, "no_file", "The database file cannot be opened; nothing was changed."]
  }.freeze

  # Writes begin with the lock in hand; waiting for it lets other threads run.
  module Connection
    # Writers take the lock at once, so that none finds it taken when it has read already.
    def begin_db_transaction
      Database.writing? ? execute("BEGIN IMMEDIATE TRANSACTION", "TRANSACTION") : super
    end

    # A full disk may have ended the transaction already; then there is nothing to go back on.
    def exec_rollback_db_transaction
      super if @raw_connection&.transaction_active?
    end

    private

    def configure_connection
      most = (PATIENCE_SECONDS / PAUSE_SECONDS).ceil
      @raw_connection.busy_handler { |count| count < most && sleep(PAUSE_SECONDS) }
      super
    end
  end

  @writer = Monitor.new

  module_function

  # Connects, and brings the tables up to date.
  # @param path [String] file; made when missing
  # @param alone [Boolean] whether other servers on the file are refused
  # @raise [Refused]
  def connect(path, alone: true)
    @path = File.expand_path(path)
    hold(path) if alone
    ActiveSupport.on_load(:active_record_sqlite3adapter) { prepend Connection }
    ActiveRecord::Base.establish_connection(
      adapter: "sqlite3", database: path, pool: 32,
      pragmas: { journal_mode: "wal", synchronous: "full", foreign_keys: true }
    )
    migrate(path)
  rescue ActiveRecord::ActiveRecordError, SQLite3::Exception => e
    raise Refused, "The database #{path} cannot be used: #{sentence(e)}"
  end

  # @return [String] the file in use
  def path = @path

  # Runs a block while nobody else in this process writes.
  def alone(&) = @writer.synchronize(&)

  # Runs a block as the only writer, in one transaction that has the lock from its start.
  # @raise [Trouble]
  def write(&)
    @writer.synchronize do
      before, Thread.current[:satchel_writing] = Thread.current[:satchel_writing], true
      guarded { SongRow.transaction(&) }
    ensure
      Thread.current[:satchel_writing] = before
    end
  end

  # Runs a block in which several reads see one state of the database.
  # @raise [Trouble]
  def read(&) = guarded { SongRow.transaction(&) }

  def writing? = Thread.current[:satchel_writing]

  # Says what is wrong with the disk or the file in words.
  # @raise [Trouble]
  def guarded
    yield
  rescue ActiveRecord::ActiveRecordError, SQLite3::Exception => e
    found = TROUBLES.find { |kind, _| e.is_a?(kind) || e.cause.is_a?(kind) } or raise
    raise Trouble.new(*found[1])
  end

  # Only one server may use a file: two would not know of each other's edits.
  def hold(path)
    FileUtils.mkdir_p(File.dirname(path))
    @held = File.open("#{path}.lock", File::RDWR | File::CREAT)
    return if @held.flock(File::LOCK_EX | File::LOCK_NB)

    raise Refused, "Another server already uses #{path}; stop it first, or name another file in SATCHEL_DB."
  rescue SystemCallError => e
    raise Refused, "The folder of #{path} cannot be written to (#{e.message.sub(/ @ .*/, '')})."
  end

  def migrate(path)
    ActiveRecord::Migration.verbose = false
    context = ActiveRecord::MigrationContext.new(MIGRATIONS)
    newest = context.migrations.map(&:version).max
    if context.current_version > newest
      raise Refused,
            "The database #{path} was made by a newer version of the program; it is left as it is."
    end

    context.migrate
  end

  def sentence(error)
    found = TROUBLES.find { |kind, _| error.is_a?(kind) || error.cause.is_a?(kind) }
    found ? found[1][2].sub("; nothing was changed", "") : "#{(error.cause || error).message.lines.first.strip}."
  end
  private_class_method :hold, :migrate, :sentence
end
