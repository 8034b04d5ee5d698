# frozen_string_literal: true

require "bundler/setup"
require "sinatra/base"
require_relative "environment"
require_relative "packed_song"
require_relative "routes/guards"
require_relative "routes/read_only"
require_relative "routes/parameters"
require_relative "routes/faults"
require_relative "routes/shelf"
require_relative "routes/work"
require_relative "routes/editing"
require_relative "routes/listening"
require_relative "routes/reading"
require_relative "routes/sounds"
require_relative "routes/presets"
require_relative "routes/moves"
require_relative "routes/passes"
require_relative "routes/mappings"
require_relative "routes/surfaces"
require_relative "hand_over/files"
require_relative "hand_over/shelf"
require_relative "hand_over/sounds"
require_relative "hand_over/workspaces"
require_relative "routes/hand_overs"
require_relative "routes/versions"
require_relative "guide"
require_relative "routes/pages"

# The web application: every route parses, asks the core or the log, and serialises.
class Server < Sinatra::Base
  ROOT = File.expand_path("..", __dir__)

  set :environment, ENV.fetch("RACK_ENV", "production").to_sym
  set :public_folder, File.join(ROOT, "public")
  set :static_cache_control, [:no_cache]
  # Whether pages keep themselves and the last song in the browser.
  set :installable, true
  # Whether what is served is only shown, see {ReadOnly}.
  set :read_only, false
  set :shipped_sounds, File.join(ROOT, "sounds")
  set :show_exceptions, false
  set :raise_errors, false
  set :dump_errors, false # see Faults
  set :logging, false
  set :open_songs, OpenSongs.new
  set :open_versions, OpenVersions.new
  set :edit_log, EditLog.new(open_songs, -> { sounds })
  set :shelf, SongShelf.new(open_songs)
  set :listened_to, ListenedTo.new(open_songs)
  set :presets, PresetShelf.new(File.join(ROOT, "db/presets.json"))
  set :moves, MoveShelf.new(File.join(ROOT, "db/moves.json"))
  set(:sounds) { SoundStore.new("#{Database.path}-sounds") }
  set :hand_over_shelf, HandOverShelf.new(File.join(ROOT, "db/limits.json"))
  set(:workspaces) { Workspaces.new("#{Database.path}-hand-overs") }
  set :keys, KeyRing.new
  set :listeners, Listeners.new(good: ->(key) { keys.good?(key) })
  set :hub, HandsHub.new(good: ->(key) { keys.good?(key) })
  set(:tls_folder) { "#{Database.path}-tls" }
  set :long_work, LongWork.new(listeners)

  use Gate
  use Rack::Deflater, include: %w[application/json application/javascript text/javascript text/css text/html],
                      sync: false

  # A part of the routes is a module that answers `registered(app)`, which puts them into the app.
  helpers Parameters::Helpers
  register Guards
  register ReadOnly
  register Faults
  register Shelf
  register Work
  register Editing
  register ListeningRoutes
  register Reading
  register SoundRoutes
  register PresetRoutes
  register MoveRoutes
  register PassRoutes
  register MappingRoutes
  register SurfaceRoutes
  register HandOverRoutes
  register VersionRoutes
  register Pages
end
