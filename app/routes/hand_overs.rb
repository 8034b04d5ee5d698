# frozen_string_literal: true

# Handing over: what is chosen, what it would cost, the files of it, and the archive they go in.
module HandOverRoutes
  # Helpers for routes.
  module Helpers
    # A full disk is told, and what was begun is thrown away.
    def disk_guarded
      yield
    rescue Errno::ENOSPC, Errno::EDQUOT, Errno::EFBIG
      halt_with(507, "disk_full", "The disk is full; nothing was written. Make room, then try again.")
    end

    # Choices of the body that fit the song.
    def choices
      data = body_json
      Schemas.check!("hand_over", data)
      HandOverChoices.new(song, data)
    end

    # What limits cost, worked out by a worker where the song is large.
    def baking(data)
      id = song_id
      return settings.long_work.run("baking", { id:, limits: data }, asker:) if long?(id)

      baked = KindSatchel::HandOver::Bake.new(song, KindSatchel::HandOver::Limits.read(data)).call
      { "losses" => baked.losses.map { |loss| loss.to_record(song) } }
    end

    # Its files in a folder of their own.
    def hand_over(chosen)
      done, data = nil, chosen.data
      token = disk_guarded do
        settings.workspaces.open do |folder|
          done = settings.long_work.run("hand_over",
                                        { id: song_id, choices: data, folder:, sounds: settings.sounds.folder }, asker:)
        end
      end
      settings.open_versions.hold(song_id, token, chosen.song)
      sounds = HandOverSounds.new(chosen, settings.listened_to.silent(song_id, chosen.song)).to_record
      { "token" => token, "files" => settings.workspaces.files(token), "sounds" => sounds, **done }
    end

    # A WAV file as a page made it; it is looked at before it is believed.
    # @raise [KindSatchel::InvalidInput]
    def take_sound
      name = asked(:name).to_s
      unless Workspaces::NAME.match?(name)
        raise KindSatchel::InvalidInput.of("bad_name", "/name",
                                           "A sound is called like mix.wav, stems/bass.wav or loops/line.wav.")
      end

      goal = settings.workspaces.file(asked!(:token), name)
      disk_guarded { store_sound(goal) }
      json({})
    end

    # Whole, or not at all.
    def store_sound(goal)
      FileUtils.mkdir_p(File.dirname(goal))
      File.open(goal, "wb") { |file| IO.copy_stream(request.body, file) }
      ReadBack.sound!(goal, frames: asked!(:frames), rate: asked!(:rate))
    rescue StandardError
      FileUtils.rm_f(goal)
      raise
    end

    # @param name [String, nil] of one file; nil for all of them, as an archive
    def fetch(name)
      path = name ? settings.workspaces.file(asked!(:token), name) : settings.workspaces.archive(asked!(:token))
      headers "Content-Disposition" => FileNames.disposition(asked(:name).to_s), "Cache-Control" => "no-store"
      send_file path, type: File.extname(path) == ".zip" ? "application/zip" : "application/octet-stream"
    end

    # One file goes as it is, more of them in an archive.
    def wrapped(token)
      names = settings.workspaces.files(token)
      raise Workspaces::Missing if names.empty?

      single = names.size == 1
      path = if single
               settings.workspaces.file(token,
                                        names[0])
             else
               disk_guarded do
                 settings.workspaces.zip(token) { |share| told(share) }
               end
             end
      name = single ? File.basename(names[0]) : "#{FileNames.stem(asked(:name).to_s)}-hand-over.zip"
      asked = "name=#{URI.encode_www_form_component(name)}"
      { "path" => "/api/hand_overs/#{token}/#{single ? 'file' : 'archive'}?#{asked}", "name" => name,
        "bytes" => File.size(path) }
    end

    # @param share [Float] 0..1 of the packing, told to whoever asked
    def told(share) = settings.listeners.tell(asker.token, "progress", { "progress" => share, "words" => "packing" })
  end

  def self.registered(app)
    app.helpers Helpers
    app.error(Workspaces::Missing) do
      halt_with(404, "unknown_hand_over", "These files are not there any more; hand over again.")
    end
    app.error(ReadBack::Differs) { |e| halt_with(500, "differs", "#{e.message} Nothing was handed out.") }
    choosing(app)
    making(app)
  end

  def self.choosing(app)
    app.get("/api/songs/:id/hand_over") { json(settings.hand_over_shelf.read(song_id, song)) }
    app.post("/api/songs/:id/hand_over") do
      chosen = choices
      settings.hand_over_shelf.choose(song_id, chosen.data.except("from_tick", "to_tick"))
      json(settings.hand_over_shelf.read(song_id, song))
    end
    app.post("/api/songs/:id/baking") { json(baking(choices.data["limits"] || {})) }
    app.post("/api/songs/:id/baked_curves") do
      data = body_json
      Schemas.check!("hand_over", { "limits" => data["limits"] })
      address = KindSatchel::Address.parse(data["address"].to_s)
      song.parameter(address)
      limits = KindSatchel::HandOver::Limits.read(data["limits"] || {})
      curves = KindSatchel::HandOver::Bake.new(song, limits).courses(address)
      json(%w[before after].zip(curves.map(&:flat)).to_h)
    end
    app.post("/api/limit_sets") do
      status 201
      json(settings.hand_over_shelf.keep(*body_json.values_at("name", "limits")))
    end
    app.delete("/api/limit_sets/:id") do
      settings.hand_over_shelf.remove(asked!(:id))
      json({})
    end
  end

  def self.making(app)
    app.post("/api/songs/:id/hand_overs") do
      status 201
      json(hand_over(choices))
    end
    app.post("/api/hand_overs/:token/sounds") { take_sound }
    app.post("/api/hand_overs/:token/wrapped") { json(wrapped(asked!(:token))) }
    app.post("/api/songs/:id/mixdown") do
      peak, revision = body_json.values_at("peak_db", "revision")
      fit = peak.is_a?(Numeric) && peak.to_f.finite? && revision.is_a?(Integer)
      raise KindSatchel::InvalidInput.of("bad_request", "", "Say the peak in dBFS, and of which revision.") unless fit

      Database.write do
        SongRow.on_shelf.where(id: song_id).update_all(mixdown_peak_db: peak, mixdown_revision: revision)
      end
      json({})
    end
    app.get("/api/hand_overs/:token/file") { fetch(settings.workspaces.files(asked!(:token)).first) }
    app.get("/api/hand_overs/:token/archive") { fetch(nil) }
    app.delete("/api/hand_overs/:token") do
      settings.workspaces.close(asked!(:token))
      json({})
    end
  end
  private_class_method :choosing, :making
end
