# frozen_string_literal: true

# The list of songs: open, make, duplicate, delete, bring back, delete for good, export, import.
module Shelf
  # A file as the body of an answer, whose name is gone already.
  class FileBody
    PART = 1 << 16

    def initialize(path)
      @file = File.open(path, "rb")
      File.unlink(path)
    end

    # @yieldparam part [String] of the file, in turn
    def each
      while (part = @file.read(PART)) do yield part end
    end

    def close = @file.close
  end

  # Helpers for routes.
  module Helpers
    # Stores a song by its document.
    # @return [Hash] the new entry
    def take_document(text)
      return settings.long_work.with_file("import", {}, asker:, content: text) if text.bytesize > LongWork::LONG_BYTES

      opened = Schemas.read_song(text)
      settings.shelf.add(opened.song, places: opened.places)
    end

    # @return [String] the document of a song
    def document_of(id)
      return settings.long_work.with_file("export", { id: }, asker:) { |path| File.read(path) } if long?(id)

      JSON.pretty_generate(KindSatchel::Document.dump(settings.open_songs.fetch(id).song))
    end

    # What a task makes of the MIDI file that was sent, with the table of controllers that was; a small file needs no
    # worker.
    # @yieldparam made [KindSatchel::Formats::MidiSong], [KindSatchel::Song]
    def of_midi(task)
      controls = asked(:controls)
      KindSatchel::Formats::MidiControls.read(controls)
      name = asked(:name).to_s.strip
      name = name.empty? ? "New song" : name[0, KindSatchel::Song::MOST_NAME]
      bytes = request.body.read
      if bytes.bytesize > MidiFile::SMALL_BYTES
        return settings.long_work.with_file(task, { name:, controls: }.compact, asker:, content: bytes)
      end

      made, song = MidiFile.song(bytes, name, controls)
      yield(song).merge("left_out" => made.left_out)
    end

    # The answer is a file to be kept, by this name.
    def offer(name, ending)
      headers("Content-Disposition" => FileNames.disposition("#{FileNames.stem(name)}#{ending}"))
    end
  end

  def self.registered(app)
    app.helpers Helpers
    app.get("/api/songs") { json(settings.shelf.list) }
    app.get("/api/bin") { json(settings.shelf.bin) }
    app.delete("/api/bin") { json("gone" => settings.shelf.empty_bin) }
    app.delete("/api/bin/:id") { json("gone" => settings.shelf.empty_bin([asked!(:id)])) }

    app.post("/api/songs") do
      status 201
      name, from = body_json.values_at("name", "from")
      raise KindSatchel::InvalidInput.of("bad_name", "/name", "A song's name is a text.") unless name.is_a?(String)

      json(settings.shelf.add(from == "empty" ? StarterSong.empty(name) : StarterSong.build(name)))
    end

    app.post("/api/songs/import") do
      status 201
      json(take_document(request.body.read))
    end

    app.post("/api/songs/import_packed") do
      status 201
      body_as_file do |path|
        pack = PackedSong.new(path, asker:)
        json(pack.with_sounds(settings.sounds) { take_document(pack.document) })
      end
    end

    app.get("/api/songs/:id/packed") do
      song = settings.open_songs.fetch(asked!(:id)).song
      file = Tempfile.create("satchel-pack")
      PackedSong.write(file.path, document_of(asked!(:id)), song.sounds, settings.sounds)
      offer(song.name, ".satchel.zip")
      content_type "application/zip"
      FileBody.new(file.path)
    end

    app.get("/api/songs/:id/missing") { json(settings.sounds.missing(settings.open_songs.fetch(asked!(:id)).song)) }

    app.post("/api/songs/import_midi") do
      status 201
      json(of_midi("midi") { |song| settings.shelf.add(song) })
    end

    app.post("/api/midi") do
      json(of_midi("midi_document") { |song| { "document" => KindSatchel::Document.dump(song) } })
    end

    app.get("/api/songs/:id/extract") do
      song = settings.open_songs.fetch(asked!(:id)).song
      json(KindSatchel::Document.dump(KindSatchel::Transfer::Extract.regions(song, asked(:region_ids) || [])))
    end

    app.get("/api/songs/:id/export") do
      id = asked!(:id)
      offer(settings.open_songs.fetch(id).song.name, ".satchel.json")
      json(document_of(id))
    end

    app.post("/api/songs/:id/duplicate") do
      status 201
      json(settings.shelf.duplicate(asked!(:id)))
    end

    app.delete("/api/songs/:id") do
      settings.shelf.remove(asked!(:id))
      json({})
    end

    app.post("/api/songs/:id/restore") { json(settings.shelf.restore(asked!(:id))) }
  end
end
