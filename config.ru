# frozen_string_literal: true

require_relative "app/server"
require_relative "db/demo_seed"

Database.connect(ENV.fetch("SATCHEL_DB", File.expand_path("db/satchel.sqlite3", __dir__)))
run Server
