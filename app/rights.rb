# frozen_string_literal: true

require "mustermann"

# What may be asked for from beyond this machine: one table, with a line for every route of the server. What is not in
# it are files of the page, which any key opens.
#
# - `:anyone` needs no key
# - `:surface` the hand of one song: it looks, turns, plays, records and arms
# - `:studio` works on songs: edits, undo, uploads, files that are handed over
# - `:here` is done on the machine itself, by no key: what takes songs away, and what gives keys out
module Rights
  KINDS = %w[surface studio].freeze

  SURFACE = [
    "GET /songs/:id/surface", "GET /api/songs/:id/hands", "GET /api/songs/:id", "GET /api/songs/:id/events",
    "GET /api/catalogue", "GET /api/help",
    "GET /api/songs/:id/clock", "GET /api/songs/:id/drawing", "GET /api/songs/:id/heard", "GET /api/songs/:id/values",
    "GET /api/songs/:id/at_playhead",
    "GET /api/songs/:id/explanation",
    "GET /api/songs/:id/position", "GET /api/songs/:id/move_settings", "GET /docs/*", "GET /docs/?", "GET /schemas/*"
  ].freeze

  HERE = [
    "DELETE /api/songs/:id", "DELETE /api/bin", "DELETE /api/bin/:id", "GET /api/keys", "POST /api/keys/:id",
    "DELETE /api/keys/:id",
    "POST /api/songs/:id/invitation"
  ].freeze

  ANYONE = ["GET /enter/:key", "POST /enter/:key", "GET /enter/authority.pem"].freeze

  STUDIO = [
    "GET /", "GET /songs/:id", "GET /sounds/:key.wav",
    "GET /api/songs", "POST /api/songs", "POST /api/songs/import", "POST /api/songs/import_midi",
    "POST /api/songs/import_packed", "POST /api/midi",
    "GET /api/bin", "POST /api/songs/:id/restore", "POST /api/songs/:id/duplicate", "POST /api/songs/:id/places_seen",
    "POST /api/songs/:id/edits", "POST /api/songs/:id/preview", "POST /api/songs/:id/undo", "POST /api/songs/:id/redo",
    "GET /api/songs/:id/history", "POST /api/songs/:id/history", "POST /api/songs/:id/listening",
    "GET /api/songs/:id/export", "GET /api/songs/:id/packed", "GET /api/songs/:id/extract",
    "GET /api/songs/:id/missing", "GET /api/songs/:id/snippet",
    "GET /api/songs/:id/stretch", "GET /api/songs/:id/kept_move", "GET /api/songs/:id/moves_table",
    "GET /api/songs/:id/track_counts",
    "GET /api/songs/:id/reading", "GET /api/songs/:id/loose_ends", "GET /api/songs/:id/playback",
    "GET /api/songs/:id/offline",
    "GET /api/songs/:id/passes", "DELETE /api/songs/:id/passes/:pass", "GET /api/songs/:id/mappings",
    "POST /api/songs/:id/mappings",
    "GET /api/songs/:id/versions", "POST /api/songs/:id/versions", "GET /api/songs/:id/versions/:version",
    "DELETE /api/songs/:id/versions/:version",
    "GET /api/songs/:id/versions/:version/comparison", "GET /api/songs/:id/versions/:version/curves",
    "GET /api/songs/:id/hand_over", "POST /api/songs/:id/hand_over", "POST /api/songs/:id/baking",
    "POST /api/songs/:id/baked_curves",
    "POST /api/songs/:id/hand_overs", "POST /api/songs/:id/mixdown", "POST /api/limit_sets",
    "DELETE /api/limit_sets/:id",
    "POST /api/hand_overs/:token/sounds", "POST /api/hand_overs/:token/wrapped", "GET /api/hand_overs/:token/file",
    "GET /api/hand_overs/:token/archive",
    "DELETE /api/hand_overs/:token", "GET /api/jobs/:token/events", "DELETE /api/jobs/:token",
    "GET /api/sounds", "POST /api/sounds", "GET /api/sounds/:key/outline", "DELETE /api/sounds",
    "DELETE /api/sounds/:key",
    "GET /api/presets", "POST /api/presets", "DELETE /api/presets/:id",
    "GET /api/moves", "GET /api/moves/file", "POST /api/moves", "POST /api/moves/take", "POST /api/moves/near",
    "POST /api/moves/:id", "DELETE /api/moves/:id"
  ].freeze

  TABLE = { anyone: ANYONE, surface: SURFACE, studio: STUDIO, here: HERE }.flat_map do |right, list|
    list.map { |route| [route, right] }
  end.to_h.freeze

  # The longest body from a device with a key, in bytes, unless its route takes files.
  LARGEST_BODY = 1024 * 1024

  module_function

  # @param verb [String]
  # @param path [String]
  # @return [Array(Symbol, Hash)] the right it takes, and what its path says; nil of a file of the page
  def asked(verb, path)
    verb = "GET" if verb == "HEAD"
    patterns.fetch(verb, []).each do |pattern, right|
      said = pattern.params(path)
      return [right, said] if said
    end
    nil
  end

  # @param key [KeyRing::Key]
  # @return [Boolean] whether it opens what is asked
  def allow?(key, verb, path)
    right, said = asked(verb, path)
    case right
    when nil, :anyone then true
    when :surface then key.kind == "studio" || said["id"].nil? || said["id"] == key.song_id.to_s
    when :studio then key.kind == "studio"
    else false
    end
  end

  # Fixed words before places, as the routes themselves are looked for.
  def patterns
    @patterns ||= TABLE.group_by { |route, _| route[/\A\w+/] }.transform_values do |list|
      list.sort_by do |route, _|
        [route.count(":*"), route]
      end.map { |route, right| [Mustermann.new(route[/ (.+)/, 1], type: :sinatra), right] }
    end
  end
  private_class_method :patterns
end
