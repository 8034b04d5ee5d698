# frozen_string_literal: true

require_relative "app/server"

Database.connect(ENV.fetch("SATCHEL_DB", File.expand_path("db/satchel.sqlite3", __dir__)))
run Server
