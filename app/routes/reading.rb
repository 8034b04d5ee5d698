# frozen_string_literal: true

# Reading a song: its parts, what to draw, what is heard and why, what to play.
module Reading
  # A longer stretch of a large song is flattened by a worker.
  LONG_TICKS = 64 * 3840

  # So is a stretch that would take about this long to be worked out, in milliseconds.
  LONG_MS = 300.0

  # So many loose ends are told one by one.
  MOST_ENDS = 300

  # Between what moves are copied.
  PLACES = %i[from_clip_id to_clip_id from_track_id to_track_id].freeze

  # Helpers for routes.
  module Helpers
    # @return [KindSatchel::Song] the one that is asked about, as it is now
    def song = settings.open_songs.fetch(asked!(:id)).song

    # What is to be heard: the song as it stands, or the version that the query names.
    def played = asked(:version)&.then { |name| version(name) } || song

    # The song as it is heard, without the moves that rest.
    def heard_song = settings.listened_to.heard(asked!(:id), song)

    # What is played: the same of what is to be heard, where the asker is somebody who listens.
    def sounding = asked(:listened) ? settings.listened_to.heard(asked!(:id), played) : played

    # The song's rows as they stand, read in one transaction.
    # @raise [OpenSongs::Missing]
    def snapshot(id)
      settings.open_songs.bring_up(id)
      Database.read do
        row = SongRow.on_shelf.find_by(id:) or raise OpenSongs::Missing
        undo_words, redo_words = EditLog.words(row)
        head = JSON.generate("id" => row.id, "revision" => row.revision, "undo" => undo_words, "redo" => redo_words,
                             "listening" => settings.listened_to.to_record(id),
                             "places" => row.places ? JSON.parse(row.places) : [])
        "#{head.chop},\"parts\":#{SongRows.json(id)}}"
      end
    end

    # What is to be read: an envelope at a tick, an amount of it, or a value of a parameter.
    def place_read
      value, amount = asked(:value), asked(:amount)
      { "envelope_id" => asked(:envelope_id), "address" => asked(:address), "value" => value, "amount" => amount,
        "tick" => value || (amount && !asked(:address)) ? nil : asked!(:tick) }
    end

    # What is heard of some parameters at a tick, and why of one, where that is asked: in one answer, as a page asks
    # while it plays.
    def at_playhead(tick)
      address = asked(:address)&.then { |text| KindSatchel::Address.parse(text) }
      now = heard_song
      known = address && now.parameter?(address)
      { "values" => Drawing.new(now).values(asked(:addresses) || [], tick),
        "explanation" => known ? KindSatchel::Heard::Explanation.new(now, address, tick).to_record : nil }
    end

    # What is open first; what is set aside after it.
    def loose_ends(snapshot)
      found = KindSatchel::Checks::LooseEnds.of(snapshot.song, outside_of(snapshot))
      aside, open = found.partition { |one| snapshot.song.aside(one.check, one.key) }
      { "revision" => snapshot.revision, "count" => open.size, "aside" => aside.size,
        "ends" => (open.first(MOST_ENDS) + aside.first(MOST_ENDS)).map { |one| one.to_record(snapshot.song) } }
    end

    # What is known besides the song: sounds that are missing, and the peak of a mixdown of the song as it stands.
    def outside_of(snapshot)
      missing = settings.sounds.missing(snapshot.song).map { |one| one["sound"] }
      KindSatchel::Checks::LooseEnds::Outside.new(missing, SongRow.peak_db(snapshot.id, snapshot.revision))
    end

    # About how long all that sounds takes to be worked out, in milliseconds.
    def effort(from, to)
      KindSatchel::Heard::Effort.new(song).then { |effort| song.sounded.sum { |address| effort.of(address, from, to) } }
    end

    # Whether a stretch is to be flattened by a worker.
    def long_stretch?(id, from, to)
      return false if asked(:version)

      (to - from > LONG_TICKS && long?(id)) || effort(from, to) > LONG_MS
    end

    # A clip of what is heard, by itself.
    # @raise [KindSatchel::InvalidInput]
    def alone(clip_id)
      KindSatchel::HandOver::OneClip.of(played, clip_id) or
        raise KindSatchel::InvalidInput.of("nowhere", "/clip_id",
                                           "#{played.clip(clip_id).name} lies nowhere in the song.")
    end
  end

  def self.registered(app)
    app.helpers Helpers
    app.get("/api/catalogue") do
      json(settings.read_only ? Catalogue.to_record.merge("read_only" => true) : Catalogue.json)
    end
    app.get("/api/songs/:id") { json(snapshot(asked!(:id))) }
    app.post("/api/songs/:id/places_seen") do
      settings.shelf.places_seen(asked!(:id))
      json({})
    end
    app.get("/api/songs/:id/clock") do
      json("clock" => Playback.new(played).clock, "length_ticks" => played.length_ticks)
    end
    app.get("/api/songs/:id/drawing") do
      snapshot = settings.open_songs.fetch(asked!(:id))
      json("revision" => snapshot.revision, **Drawing.new(snapshot.song).tracks(asked(:tracks) || []))
    end
    app.get("/api/songs/:id/snippet") do
      envelope = song.directory.envelope(asked!(:envelope_id)).envelope
      json(KindSatchel::Records.snippet(KindSatchel::Snippet.of(envelope, asked!(:from_tick), asked!(:to_tick))))
    end
    app.get("/api/songs/:id/loose_ends") do
      snapshot = settings.open_songs.fetch(asked!(:id))
      json(loose_ends(snapshot))
    end
    app.get("/api/songs/:id/kept_move") do
      envelope = song.directory.envelope(asked!(:envelope_id)).envelope
      named = { name: asked(:name).to_s, tags: asked(:tags) || [] }
      kept = KindSatchel::KeptMove.of(envelope, asked!(:from_tick), asked!(:to_tick), **named)
      json(KindSatchel::Records.kept_move(kept))
    end
    travelling(app)
    app.get("/api/songs/:id/position") { json("tick" => song.meters.parse(asked!(:text))) }
    app.get("/api/songs/:id/heard") do
      draw = Drawing.new(heard_song, width_px: asked(:width_px) || Drawing::WIDTH_PX)
      json("heard" => draw.heard(asked(:addresses) || []), "conflicts" => draw.conflicts(asked(:addresses) || []))
    end
    app.get("/api/songs/:id/values") { json(Drawing.new(heard_song).values(asked(:addresses) || [], asked!(:tick))) }
    app.get("/api/songs/:id/at_playhead") { json(at_playhead(asked!(:tick))) }
    app.get("/api/songs/:id/reading") { json(Drawing.new(song).reading(place_read)) }
    app.get("/api/songs/:id/move_settings") { json(Drawing.new(song).settings(asked!(:envelope_id))) }
    app.get("/api/songs/:id/explanation") do
      address = KindSatchel::Address.parse(asked!(:address))
      json(KindSatchel::Heard::Explanation.new(heard_song, address, asked!(:tick)).to_record)
    end
    playback(app)
    events(app)
  end

  # What would go along: a stretch of the whole song, the moves of a clip or track, a track's own.
  def self.travelling(app)
    app.get("/api/songs/:id/stretch") do
      json(KindSatchel::Transfer::SongStretch.of(song, asked!(:from_tick), asked!(:to_tick)).to_record)
    end
    app.get("/api/songs/:id/moves_table") do
      places = KindSatchel::Edits::CopyMoves.places(song, PLACES.to_h { |name| [name, asked(name)] }.compact)
      json("rows" => KindSatchel::Transfer::MovesTable.new(song, *places).to_record)
    end
    app.get("/api/songs/:id/track_counts") do
      json(KindSatchel::Transfer::TrackCopy.counts(song, song.track(asked!(:track_id))))
    end
  end

  def self.playback(app)
    app.get("/api/songs/:id/playback") do
      from, to = asked!(:from_tick), asked!(:to_tick)
      raise KindSatchel::InvalidInput.of("out_of_range", "/to_tick", "A stretch ends after it starts.") unless to > from

      clip_id = asked(:clip_id)
      next json(Playback.new(alone(clip_id)).stretch(from, to)) if clip_id

      id = asked!(:id)
      next json(Playback.new(sounding).stretch(from, to)) unless long_stretch?(id, from, to)

      resting = asked(:listened) ? settings.listened_to.of(id).resting : []
      settings.long_work.with_file("playback", { id:, from_tick: from, to_tick: to, resting: }, asker:) do |path|
        json(File.read(path))
      end
    end
    app.get("/api/songs/:id/offline") do
      id, block_ticks = asked!(:id), asked!(:block_ticks)
      unless long?(id)
        copy = OfflineCopy.new(settings.open_songs.fetch(id), block_ticks)
        next json(OfflineCopy.checked(JSON.generate(copy.to_record)))
      end

      settings.long_work.with_file("offline", { id:, block_ticks: }, asker:) { |path| json(File.read(path)) }
    end
  end

  def self.events(app)
    app.get("/api/songs/:id/events") do
      id = asked!(:id)
      hijacked(id, { revision: settings.open_songs.fetch(id).revision, listening: settings.listened_to.to_record(id) })
    end
  end
  private_class_method :travelling, :playback, :events
end
