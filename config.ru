# frozen_string_literal: true

require_relative "app/server"
require_relative "app/startup"
require_relative "app/doorkeeper"
require_relative "db/demo_seed"

Startup.connect(ENV.fetch("SATCHEL_DB", File.expand_path("db/satchel.sqlite3", __dir__)))
run Server
