# frozen_string_literal: true

# Whatever a request says, it is answered: never by a fault of ours.
RSpec.describe "What requests say" do
  # What is no value of anything, as it is written in an address.
  odd = { "lists" => "[]=1", "tables" => "[a]=1", "tables in lists" => "[][a][]=1", "a NUL" => "=%00", "a huge number" => "=#{'9' * 40}",
            "a number below all" => "=-9223372036854775809", "no number" => "=1e999", "a long text" => "=#{'x' * 5000}", "nothing" => "=" }.freeze
  bodies = [[], {}, [[{ "a" => nil }]], { "a" => { "b" => [] } }, "\0", "x" * 5000, 10**40, -(2**63) - 1, 1.5e300, -1, nil, true].freeze
  # These hold a connection open, or end it.
  lasting = %r{/events\z|/hands\z}

  before(:context) { AppHelpers.start }

  define_method(:routes) { |verb| Server.routes.fetch(verb).map { |pattern,| pattern.to_s }.uniq.grep_v(lasting) }
  def filled(pattern, id) = pattern.gsub(":id", id.to_s).gsub(":version", "1").gsub(/:\w+/, "0" * 32).gsub("*", "guide/README.md").delete("?")

  def answered(verb, path, **more)
    before = last_response.status if @asked
    custom_request(verb, path, {}, { "HTTP_HOST" => "127.0.0.1", "CONTENT_TYPE" => "application/json", input: "{}", **more })
    @asked = true
    [verb, path[0, 200], last_response.status, before].first(3)
  end

  def bad(list) = list.select { |_, _, status| status >= 500 }

  # So that each begins with a song that is there.
  let(:id) { plant(small_song) }

  it "is refused in words where a parameter of an address is no such value, on every route" do
    names = Parameters::ADDRESS.keys - %w[id token key pass splat]
    found = (routes("GET") + ["/enter/:key"]).uniq.flat_map do |pattern|
      path = filled(pattern, id)
      odd.values.flat_map do |value|
        one = names.sample(random: Random.new(value.sum))
        [answered("GET", "#{path}?#{names.map { |name| "#{name}#{value}" }.join('&')}"), answered("GET", "#{path}?#{one}#{value}")]
      end
    end
    expect(bad(found)).to eq []
    expect(found.map(&:last).tally.keys).to include(200, 404, 422, 400)
  end

  it "is refused in words where one parameter alone is none" do
    paths = %w[heard?addresses=bass/synth/cutoff&width_px reading?address=bass/synth/cutoff&amount=0.5&tick
               values?addresses=bass/synth/cutoff&tick position?text explanation?address=bass/synth/cutoff&tick
               playback?from_tick=0&to_tick playback?from_tick=0&to_tick=960&version offline?block_ticks
               kept_move?envelope_id=x&from_tick=0&to_tick moves_table?from_clip_id=a&to_clip_id extract?region_ids versions/1/comparison?with clock?version]
    found = paths.product(odd.values).map { |path, value| answered("GET", "/api/songs/#{id}/#{path}#{value}") }
    found << answered("GET", "/api/songs/#{id}/reading?address=bass/synth/cutoff&amount=0.5")
    expect(bad(found)).to eq []
    expect(get_json("/api/songs/#{id}/heard?addresses[]=bass/synth/cutoff")["faults"]).to eq [{ "code" => "bad_value", "path" => "/addresses",
                                                                                              "message" => "addresses is one text." }]
  end

  it "is read as what it says: lists by their commas" do
    song = DemoSong.build
    demo = plant(song)
    regions = song.track("rope-bass").regions.first(2)
    taken = get_json("/api/songs/#{demo}/extract?region_ids=#{regions.map(&:id).join(',')}")
    expect(taken["tracks"].flat_map { |track| track["regions"].map { |region| region["id"] } }).to match_array regions.map(&:id)
    addresses = %w[rope-bass/synth/cutoff fog-pad/channel/volume]
    expect(get_json("/api/songs/#{demo}/at_playhead?addresses=#{addresses.join(',')}&address=#{addresses[0]}&tick=20000"))
      .to match("values" => get_json("/api/songs/#{demo}/values?addresses=#{addresses.join(',')}&tick=20000"),
                "explanation" => get_json("/api/songs/#{demo}/explanation?address=#{addresses[0]}&tick=20000"))
    one, two = %w[rope-bass rope-bass,fog-pad].map { |tracks| get_json("/api/songs/#{demo}/drawing?tracks=#{tracks}")["curves"].size }
    expect(two).to be > one
    expect(get_json("/api/moves/file?ids=-1,-2")["moves"].size).to eq 2
  end

  it "is refused in words where a place in the path is none" do
    nasty = ["%00", "%2e%2e%2f%2e%2e%2fetc", "-1", "9" * 30, "1e3", "%ff", "a%5Bb%5D", "..", "%F0%9F%8E%B5"]
    found = %w[GET POST DELETE].flat_map do |verb|
      routes(verb).product(nasty).map { |pattern, text| answered(verb, pattern.gsub(/:\w+|\*/, text).delete("?")) }
    end
    expect(bad(found)).to eq []
  end

  it "is refused in words where a field of a body is none, on every route that takes one" do
    names = Parameters::BODY.keys + %w[tags move moves limits device devices song all muted soloed from_tick to_tick]
    found = routes("POST").flat_map do |pattern|
      whole = ->(data) { answered("POST", filled(pattern, SongRow.on_shelf.where(id:).exists? ? id : plant(small_song)), input: JSON.generate(data)) }
      usual = { "revision" => 1, "edit" => "rename_song", "inputs" => { "name" => "Ebb" }, "heard" => [], "name" => "Ebb", "place" => 0 }
      bodies.map { |value| whole.call(names.to_h { |name| [name, value] }) } +
        names.map.with_index { |name, i| whole.call(usual.merge(name => bodies[(i + pattern.size) % bodies.size])) } +
        bodies.map { |value| whole.call(value) }
    end
    expect(bad(found)).to eq []
    expect(found.map(&:last)).to include(422)
  end

  it "is refused in words where it is no JSON, with the place; a byte-order mark is passed over" do
    said = ->(text) { call("POST", "/api/songs", text).fetch("faults")[0].values_at("code", "message") }
    expect(said.call("{\"name\": \"A\",\n \"secret\":}")).to eq ["bad_json", "This is no JSON: it cannot be read at line 2, column 11."]
    expect(said.call("[" * 100)).to eq ["bad_json", "This is no JSON: it goes more than 32 levels deep."]
    expect(said.call("{\"name\": \"A\" \"name\"}")[1]).to match(/line 1, column \d+/)
    expect(call("POST", "/api/songs", "\uFEFF{\"name\": \"Ebb\"}")["name"]).to eq "Ebb"
    form = call("POST", "/api/songs", "--x\r\n", "CONTENT_TYPE" => "multipart/form-data; boundary=#{'x' * 5000}")
    expect([last_response.status, form["faults"][0]["code"]]).to eq [415, "no_form"]
  end

  it "is refused in words where a document is of half a version, or its stored text is damaged" do
    document = JSON.parse(json_of(small_song))
    half = call("POST", "/api/songs/import", JSON.generate(document.merge("version" => 1.5)))
    expect(half["faults"][0].values_at("code", "message")).to eq ["unknown_version", "This is version 1.5 of the format; versions 1 to 4 are read."]
    damaged = plant(small_song)
    Server.open_songs.forget(damaged)
    PartRow.where(song_id: damaged, kind: "track").limit(1).update_all(record: "{\"secret words\": ")
    expect(get_json("/api/songs/#{damaged}/heard?addresses=bass/synth/cutoff")["faults"][0]["message"])
      .to eq "Song #{damaged} cannot be read: what is stored of it is damaged (it is no JSON)."
    expect(last_response.status).to eq 503
  end

  # A quarter note at 120, its tempo event shorter than it has to be.
  it "is refused in words where a MIDI file has events that are too short, with the place" do
    track = ->(body) { "MThd#{[6, 0, 1, 480].pack('Nnnn')}MTrk#{[body.bytesize].pack('N')}".b + body.b }
    short = { "\x00\xFF\x51\x01\x07" => "Before byte 26 stands a tempo of 1 bytes; it has 3.",
              "\x00\xFF\x58\x01\x04" => "Before byte 26 stands a time signature of 1 bytes; it has 4." }
    short.each do |body, words|
      answer = call("POST", "/api/midi?name=A", track.call(body.b + "\x00\xFF\x2F\x00".b), "CONTENT_TYPE" => "audio/midi")
      expect(answer["faults"][0].values_at("code", "message")).to eq ["broken_midi", words]
    end
  end
end
