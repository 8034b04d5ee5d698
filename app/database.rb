# frozen_string_literal: true

# The SQLite database: write-ahead log and full synchronisation, so that what was acknowledged survives a kill.
module Database
  MIGRATIONS = File.expand_path("../db/migrate", __dir__)

  module_function

  # Connects, and brings the tables up to date.
  # @param path [String] file; made when missing
  def connect(path)
    ActiveRecord::Base.establish_connection(
      adapter: "sqlite3", database: path, pool: 16, timeout: 5000,
      pragmas: { journal_mode: "wal", synchronous: "full", foreign_keys: true }
    )
    %w[journal_mode=wal synchronous=full].each { |pragma| ActiveRecord::Base.connection.execute("PRAGMA #{pragma}") }
    ActiveRecord::Migration.verbose = false
    ActiveRecord::MigrationContext.new(MIGRATIONS).migrate
  end
end
