# frozen_string_literal: true

# Reading a song: its parts, what to draw, what is heard and why, what to play.
module Reading
  # A longer stretch of a large song is flattened by a worker.
  LONG_TICKS = 64 * 3840

  # So many loose ends are told one by one.
  MOST_ENDS = 300

  # Helpers for routes.
  module Helpers
    def song = settings.open_songs.fetch(params[:id].to_i).song

    # What is to be heard: the song as it stands, or the version that the query names.
    def played = params["version"] ? version(params["version"]) : song

    # A tick from the query.
    def tick_of(name)
      text = params[name].to_s
      unless text.match?(/\A\d{1,9}\z/) && text.to_i <= KindSatchel::Timing::LAST_TICK
        raise KindSatchel::InvalidInput.of("out_of_range", "/#{name}", "#{name} is a whole number of ticks.")
      end

      text.to_i
    end

    # A width of the whole song on the screen, from the query.
    def width_of(name)
      width = params[name].to_s[/\A\d{1,5}\z/].to_i
      raise KindSatchel::InvalidInput.of("out_of_range", "/#{name}", "#{name} is a whole number of pixels, 1 to 99999.") unless width.positive?

      width
    end

    # The song's rows as they stand, read in one transaction.
    def snapshot(id)
      settings.open_songs.bring_up(id)
      Database.read do
        row = SongRow.on_shelf.find_by(id:) or raise OpenSongs::Missing
        undo_words, redo_words = EditLog.words(row)
        head = JSON.generate("id" => row.id, "revision" => row.revision, "undo" => undo_words, "redo" => redo_words,
                             "listening" => settings.listened_to.to_record(id), "places" => row.places ? JSON.parse(row.places) : [])
        "#{head.chop},\"parts\":#{SongRows.json(id)}}"
      end
    end

    # A normalised value from the query, nil for none.
    def value_of(name)
      return unless params[name]

      value = Float(params[name].to_s, exception: false)
      raise KindSatchel::InvalidInput.of("out_of_range", "/#{name}", "#{name} is a number from -1 to 1.") unless value&.between?(-1, 1)

      value
    end

    # What is to be read: an envelope at a tick, an amount of it, or a value of a parameter.
    def place_read
      value, amount = value_of("value"), value_of("amount")
      { "envelope_id" => params["envelope_id"], "address" => params["address"], "value" => value, "amount" => amount,
        "tick" => value || amount ? nil : tick_of("tick") }
    end

    # What is open first; what is set aside after it.
    def loose_ends(standing)
      found = KindSatchel::Checks::LooseEnds.of(standing.song, outside_of(standing))
      aside, open = found.partition { |one| standing.song.aside(one.check, one.key) }
      { "revision" => standing.revision, "count" => open.size, "aside" => aside.size,
        "ends" => (open.first(MOST_ENDS) + aside.first(MOST_ENDS)).map { |one| one.to_record(standing.song) } }
    end

    # What is known besides the song: sounds that are missing, and the peak of a mixdown of the song as it stands.
    def outside_of(standing)
      missing = settings.sounds.missing(standing.song).map { |one| one["sound"] }
      KindSatchel::Checks::LooseEnds::Outside.new(missing, SongRow.peak_db(standing.id, standing.revision))
    end

    # A clip of what is heard, by itself.
    def alone(clip_id)
      KindSatchel::HandOver::OneClip.of(played, clip_id) or
        raise KindSatchel::InvalidInput.of("nowhere", "/clip_id", "#{played.clip(clip_id).name} lies nowhere in the song.")
    end

    # A list from the query.
    def list_of(name) = params[name].to_s.split(",")
  end

  def self.registered(app)
    app.helpers Helpers
    app.get("/api/catalogue") { json(settings.read_only ? Catalogue.to_record.merge("read_only" => true) : Catalogue.json) }
    app.get("/api/songs/:id") { json(snapshot(params[:id].to_i)) }
    app.post("/api/songs/:id/places_seen") do
      settings.shelf.places_seen(params[:id].to_i)
      json({})
    end
    app.get("/api/songs/:id/clock") { json("clock" => Playback.new(played).clock, "length_ticks" => played.length_ticks) }
    app.get("/api/songs/:id/drawing") do
      standing = settings.open_songs.fetch(params[:id].to_i)
      json("revision" => standing.revision, **Drawing.new(standing.song).tracks(list_of(:tracks)))
    end
    app.get("/api/songs/:id/snippet") do
      envelope = song.directory.envelope(params[:envelope_id]).envelope
      json(KindSatchel::Records.snippet(KindSatchel::Snippet.of(envelope, tick_of("from_tick"), tick_of("to_tick"))))
    end
    app.get("/api/songs/:id/loose_ends") do
      standing = settings.open_songs.fetch(params[:id].to_i)
      json(loose_ends(standing))
    end
    app.get("/api/songs/:id/kept_move") do
      envelope = song.directory.envelope(params[:envelope_id]).envelope
      kept = KindSatchel::KeptMove.of(envelope, tick_of("from_tick"), tick_of("to_tick"), name: params["name"].to_s, tags: list_of(:tags))
      json(KindSatchel::Records.kept_move(kept))
    end
    travelling(app)
    app.get("/api/songs/:id/position") { json("tick" => song.meters.parse(params[:text].to_s)) }
    app.get("/api/songs/:id/heard") do
      draw = Drawing.new(song, width_px: params.key?("width_px") ? width_of("width_px") : Drawing::WIDTH_PX)
      json("heard" => draw.heard(list_of(:addresses)), "conflicts" => draw.conflicts(list_of(:addresses)))
    end
    app.get("/api/songs/:id/values") { json(Drawing.new(song).values(list_of(:addresses), tick_of("tick"))) }
    app.get("/api/songs/:id/reading") { json(Drawing.new(song).reading(place_read)) }
    app.get("/api/songs/:id/move_settings") { json(Drawing.new(song).settings(params[:envelope_id].to_s)) }
    app.get("/api/songs/:id/explanation") do
      address = KindSatchel::Address.parse(params[:address])
      json(KindSatchel::Heard::Explanation.new(song, address, tick_of("tick")).to_record)
    end
    playback(app)
    events(app)
  end

  # What would go along: a stretch of the whole song, the moves of a clip or track, a track's own.
  def self.travelling(app)
    app.get("/api/songs/:id/stretch") { json(KindSatchel::Transfer::SongStretch.of(song, tick_of("from_tick"), tick_of("to_tick")).to_record) }
    app.get("/api/songs/:id/moves_table") do
      places = KindSatchel::Edits::CopyMoves.places(song, params.transform_keys(&:to_sym))
      json("rows" => KindSatchel::Transfer::MovesTable.new(song, *places).to_record)
    end
    app.get("/api/songs/:id/track_counts") { json(KindSatchel::Transfer::TrackCopy.counts(song, song.track(params[:track_id].to_s))) }
  end

  def self.playback(app)
    app.get("/api/songs/:id/playback") do
      from, to = tick_of("from_tick"), tick_of("to_tick")
      raise KindSatchel::InvalidInput.of("out_of_range", "/to_tick", "A stretch ends after it starts.") unless to > from

      next json(Playback.new(alone(params["clip_id"])).stretch(from, to)) if params["clip_id"]

      id = params[:id].to_i
      next json(Playback.new(played).stretch(from, to)) unless long?(id) && to - from > LONG_TICKS && !params["version"]

      settings.long_work.with_file("playback", { id:, from_tick: from, to_tick: to }, asker:) { |path| json(File.read(path)) }
    end
    app.get("/api/songs/:id/offline") do
      id, block_ticks = params[:id].to_i, tick_of("block_ticks")
      next json(OfflineCopy.checked(JSON.generate(OfflineCopy.new(settings.open_songs.fetch(id), block_ticks).to_record))) unless long?(id)

      settings.long_work.with_file("offline", { id:, block_ticks: }, asker:) { |path| json(File.read(path)) }
    end
  end

  def self.events(app)
    app.get("/api/songs/:id/events") do
      id = params[:id].to_i
      hijacked(id, { revision: settings.open_songs.fetch(id).revision, listening: settings.listened_to.to_record(id) })
    end
  end
  private_class_method :travelling, :playback, :events
end
