# frozen_string_literal: true

# Changing a song: edit, undo, redo; and trying a change without making it.
module Editing
  # Laying more regions out than these takes long in a large song.
  MANY_REGIONS = 40

  # Helpers for routes.
  module Helpers
    # @return [Integer] of the song that is asked about
    def song_id = asked!(:id)

    # @return [Integer] the revision that the asker knows
    # @raise [KindSatchel::InvalidInput]
    def revision_of(data)
      revision = data["revision"]
      return revision if revision.is_a?(Integer)

      raise KindSatchel::InvalidInput.of("bad_revision", "/revision", "Say which revision of the song this is about.")
    end

    # @return [Hash] which curves and sounds are wanted in the answer
    # @raise [KindSatchel::InvalidInput]
    def wants_of(data)
      heard, sound = data["heard"] || [], data["sound"]
      texts = heard.is_a?(Array) && heard.all?(String)
      if texts
        heard.each_with_index do |text, i|
          KindSatchel::InvalidInput.under("/heard/#{i}") { KindSatchel::Address.parse(text) }
        end
      end
      return { "heard" => heard, "sound" => sound } if texts && (sound.nil? || stretch?(sound))

      raise KindSatchel::InvalidInput.of("bad_request", "/heard",
                                         "heard is a list of addresses, sound a stretch of ticks.")
    end

    def stretch?(data)
      return false unless data.is_a?(Hash)

      from, to = data.values_at("from_tick", "to_tick")
      from.is_a?(Integer) && to.is_a?(Integer) && from.between?(0, to - 1) && to <= KindSatchel::Timing::LAST_TICK
    end

    # The edit named in the request, checked against its schema; its faults are said of /inputs.
    # @raise [KindSatchel::InvalidInput]
    def checked_edit(data)
      name, inputs = data["edit"], data["inputs"]
      unless name.is_a?(String)
        raise KindSatchel::InvalidInput.of("bad_request", "/edit",
                                           "Say which edit by its name.")
      end

      KindSatchel::InvalidInput.under("/edit") { KindSatchel::Edits::ALL.fetch(name) }
      KindSatchel::InvalidInput.under("/inputs") { Schemas.check_edit!(name, inputs) }
      [name, inputs]
    end

    # @return [Hash] inputs with what the app knows put in: takes, kept moves, sounds
    def filled(snapshot, name, inputs) = Filling.of(song_id, snapshot.song, name, inputs, settings.sounds)

    # Laying much of a large song out, and mending all of a kind in it, is left to a worker.
    def long_edit?(name, inputs)
      return false unless %w[lay_out mend_ends].include?(name) && long?(song_id)

      name == "mend_ends" || inputs["track_id"] || inputs.fetch("region_ids", []).size > MANY_REGIONS
    end

    # Many steps are gone over by a worker.
    def go_to(place, revision)
      return settings.edit_log.go_to(song_id, revision, place) unless EditLog.far?(song_id, place)

      settings.edit_log.go_to(song_id, revision, place) do
        settings.long_work.run("history", { id: song_id, place: }, asker:)["patch"]
      end
    end

    # The change is stored by now: what fails from here on must not say that nothing was changed.
    # @raise [Faults::Made]
    def answer_change(change, data)
      told_change(change, data)
    rescue StandardError => e
      raise e if change.patch.empty?

      raise Faults::Made, change.after.revision
    end

    # @param change [EditLog::Change]
    # @return [Hash] the answer to an edit: the parts that changed, and what is heard differently
    def told_change(change, data)
      after = change.after
      listening = settings.listened_to.of(song_id)
      told = after.revision != change.before.revision && settings.listeners.any?(song_id)
      settings.listeners.tell(song_id, "changed", News.of(change, data["tab"], listening)) if told
      answer = Answer.new(change.before.song, after.song, change.patch, change.side, wants_of(data), listening:)
      json("revision" => after.revision, "undo" => after.undo, "redo" => after.redo, "words" => change.words,
           "notices" => change.notices.map(&:to_record), **answer.listened, **answer.change)
    end
  end

  def self.registered(app)
    app.helpers Helpers
    app.post("/api/songs/:id/edits") do
      data = body_json
      wants_of(data)
      name, inputs = checked_edit(data)
      revision = revision_of(data)
      change = KindSatchel::InvalidInput.under("/inputs") do
        next settings.edit_log.edit(song_id, revision, name, inputs) unless long_edit?(name, inputs)

        settings.edit_log.worked_out(song_id, revision, name, inputs) do
          settings.long_work.run("edit", { id: song_id, edit: name, inputs: }, asker:)
        end
      end
      answer_change(change, data)
    end

    %w[undo redo].each do |word|
      app.post("/api/songs/:id/#{word}") do
        data = body_json
        wants_of(data)
        answer_change(settings.edit_log.public_send(word, song_id, revision_of(data)), data)
      end
    end

    app.get("/api/songs/:id/history") { json(EditLog.list(song_id)) }
    app.post("/api/songs/:id/history") do
      data = body_json
      wants_of(data)
      answer_change(go_to(data["place"], revision_of(data)), data)
    end

    app.post("/api/songs/:id/preview") do
      data = body_json
      wants = wants_of(data)
      snapshot = settings.open_songs.fetch(song_id)
      raise OpenSongs::Stale, snapshot.revision if revision_of(data) != snapshot.revision

      name, inputs = checked_edit(data)
      result = KindSatchel::InvalidInput.under("/inputs") do
        KindSatchel::Edits.apply(snapshot.song, name, filled(snapshot, name, inputs))
      end
      patch = KindSatchel::Parts.between(snapshot.song, result.song, points: false)
      answer = Answer.new(snapshot.song, result.song, patch, 1, wants, listening: settings.listened_to.of(song_id))
      json("words" => result.words, "notices" => result.notices.map(&:to_record),
           **answer.listened, **answer.preview)
    end
  end
end
