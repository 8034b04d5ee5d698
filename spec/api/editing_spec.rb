# frozen_string_literal: true

RSpec.describe "Editing a song" do
  let(:id) { plant }
  let(:move_id) { snapshot(id).song.clip("mooring").envelopes.first.id }
  let(:move_inputs) { { envelope_id: move_id, points: [{ index: 1, tick: 4000, value: 0.1 }] } }

  # A chain with patches laid over it; corners that stand twice are left out.
  def laid(chain, patches)
    corners = patches.reduce(chain.each_slice(2).to_a) do |list, (from, to, middle)|
      inside = middle.each_slice(2).to_a
      left = list.take_while { |tick, _| tick < from } + list.select { |tick, _| tick == from && from.positive? }.first(1)
      left + inside + list.select { |tick, _| tick == to }.last(1) + list.drop_while { |tick, _| tick <= to }
    end
    once(corners.flatten)
  end

  def once(chain) = chain.each_slice(2).chunk_while { |a, b| a == b }.map(&:first).flatten

  def codes(answer) = answer["faults"].map { |fault| [fault["code"], fault["path"]] }

  it "answers with just what changed" do
    answer = edit(id, "move_points", move_inputs, heard: ["rope-bass/synth/cutoff", "fog-pad/channel/volume"])
    expect(answer["parts"].map { |kind, part_id, _| [kind, part_id] }).to eq [["envelope", move_id]]
    expect(answer["curves"].keys).to eq [move_id]
    expect(answer["patches"]["heard"].keys).to eq ["rope-bass/synth/cutoff"]
    expect(answer.slice("revision", "undo", "redo")).to eq("revision" => 2, "undo" => "move a point of Cutoff", "redo" => nil)
  end

  it "tries an edit without making it" do
    before = json_of(snapshot(id).song)
    before_curves = get_json("/api/songs/#{id}/drawing?tracks=rope-bass")
    tried = post_json("/api/songs/#{id}/preview",
                      { revision: 1, edit: "move_points", inputs: move_inputs, heard: ["rope-bass/synth/cutoff"],
                        sound: { from_tick: 15_360, to_tick: 30_720 } })
    made = edit(id, "move_points", move_inputs, heard: ["rope-bass/synth/cutoff"])
    expect(laid(before_curves["curves"][move_id], tried["patches"]["curves"][move_id])).to eq once(made["curves"][move_id])
    expect(tried["patches"]["heard"].keys).to eq ["rope-bass/synth/cutoff"]
    expect(tried["points"][move_id]).to eq [{ "index" => 1, "tick" => 4000, "value" => 0.1, "text" => "+10 %", "position" => "2.1.160", "shape" => "straight" }]
    expect(tried["sound"]["ramps"].keys).to eq ["rope-bass/synth/cutoff"]
    post_json("/api/songs/#{id}/undo", { revision: 2 })
    expect(json_of(snapshot(id).song)).to eq before
  end

  it "tries edits of notes by just the notes that differ; put into those that stand they are the new ones" do
    notes_before = snapshot(id).song.clip("mooring").notes.map { |note| JSON.parse(JSON.generate(KindSatchel::Records.note(note))) }
    last = notes_before.size - 1
    [["move_notes", { runs: [[2, 2]], ticks: 240, steps: 1 }], ["move_notes", { runs: [[0, last]], ticks: 120 }], ["remove_notes", { runs: [[0, 1]] }],
     ["move_notes", { runs: [[1, 3]], ticks: 960, copy: true }], ["set_velocity", { runs: [[last, last]], velocity: 5 }],
     ["set_clip", { name: "Rope" }]].each do |name, inputs|
      request = { revision: revision(id), edit: name, inputs: { clip_id: "mooring", **inputs }, heard: [] }
      tried = post_json("/api/songs/#{id}/preview", request)
      made = post_json("/api/songs/#{id}/edits", request)["parts"].find { |kind, part_id, _| [kind, part_id] == %w[clip mooring] }.last
      first, gone, came = tried["notes"].fetch("mooring", [0, 0, []])
      part = tried["parts"].find { |kind, _, _| kind == "clip" }.last
      expect(part.merge("notes" => notes_before[0...first] + came + notes_before[(first + gone)..])).to eq made
      post_json("/api/songs/#{id}/undo", { revision: revision(id) })
    end
    tried = post_json("/api/songs/#{id}/preview", { revision: revision(id), edit: "move_notes", inputs: { clip_id: "mooring", runs: [[4, 4]], steps: 1 } })
    expect(tried["notes"]["mooring"].last.size).to be <= 2
    expect(post_json("/api/songs/#{id}/preview", { revision: revision(id), edit: "separate_regions",
                                                   inputs: { region_ids: [snapshot(id).song.track("rope-bass").regions.first.id] } })["parts"]
      .find { |kind, _, _| kind == "clip" }.last["notes"]).to eq notes_before
  end

  it "sends of a drag just the stretches that differ, for every point, and the whole where that is simpler" do
    curve = get_json("/api/songs/#{id}/drawing?tracks=rope-bass")["curves"][move_id]
    4.times do |i|
      [[240, 0.1], [-240, -0.05]].each do |ticks, value|
        request = { revision: revision(id), edit: "shift_points", inputs: { envelope_id: move_id, runs: [[i, i]], ticks:, value: },
heard: ["rope-bass/synth/cutoff"] }
        tried = post_json("/api/songs/#{id}/preview", request)
        made = post_json("/api/songs/#{id}/edits", request)
        post_json("/api/songs/#{id}/undo", { revision: revision(id) })
        expect(laid(curve, tried["patches"]["curves"][move_id])).to eq once(made["curves"][move_id])
        heard = tried["patches"]["heard"]["rope-bass/synth/cutoff"]
        expect([heard.first[0], heard.last[1]]).to all be_between((4 * BAR) - 1, (28 * BAR) + 1)
        expect(heard.sum { |from, to, _| to - from }).to be <= (16 * BAR) + 4
      end
    end
    whole = post_json("/api/songs/#{id}/preview", { revision: revision(id), edit: "set_role", inputs: { envelope_id: move_id, role: "set" } })
    expect([whole["patches"]["curves"], whole["curves"].keys]).to eq [{}, [move_id]]
  end

  it "draws an envelope without points, and draws in it again" do
    cleared = edit(id, "clear_envelope", { envelope_id: move_id }, heard: ["rope-bass/synth/cutoff"])
    expect([last_response.status, cleared["curves"][move_id], cleared["patches"]["heard"].keys]).to eq [200, [], ["rope-bass/synth/cutoff"]]
    edit(id, "add_point", { envelope_id: move_id, tick: 0, value: 0.5 })
    expect(last_response.status).to eq 200
  end

  it "undoes and redoes without limit, by name, across a restart" do
    start = json_of(snapshot(id).song)
    12.times { |i| edit(id, "rename_song", { name: "Take #{i}" }) }
    last = json_of(snapshot(id).song)
    Server.open_songs.forget(id)
    expect(snapshot(id).undo).to eq "rename the song to Take 11"
    12.times { post_json("/api/songs/#{id}/undo", { revision: revision(id) }) }
    expect([json_of(snapshot(id).song), snapshot(id).undo, snapshot(id).redo]).to eq [start, nil, "rename the song to Take 0"]
    expect(codes(post_json("/api/songs/#{id}/undo", { revision: revision(id) }))).to eq [["nothing_to_undo", ""]]
    Server.open_songs.forget(id)
    12.times { post_json("/api/songs/#{id}/redo", { revision: revision(id) }) }
    expect([json_of(snapshot(id).song), snapshot(id).redo]).to eq [last, nil]
  end

  it "forgets what was undone once something new is done" do
    2.times { |i| edit(id, "rename_song", { name: "Take #{i}" }) }
    post_json("/api/songs/#{id}/undo", { revision: revision(id) })
    edit(id, "set_tempo", { tick: 0, bpm: 100 })
    expect([snapshot(id).undo, snapshot(id).redo]).to eq ["set the tempo to 100 BPM", nil]
  end

  it "keeps in its rows just what it holds in memory" do
    edit(id, "duplicate_regions", { region_ids: [snapshot(id).song.track("rope-bass").regions[0].id] })
    edit(id, "separate_regions", { region_ids: [snapshot(id).song.track("rope-bass").regions[1].id] })
    post_json("/api/songs/#{id}/undo", { revision: revision(id) })
    expect(json_of(SongRows.read(id))).to eq json_of(snapshot(id).song)
    snapshot = get_json("/api/songs/#{id}")
    expect(snapshot["parts"].size).to eq KindSatchel::Parts.all(snapshot(id).song).size
  end

  it "writes only the rows that changed" do
    inputs, written = move_inputs, []
    watch = ActiveSupport::Notifications.subscribe("sql.active_record") do |*, payload|
      written << payload[:sql] if payload[:sql].match?(/\A(INSERT|UPDATE|DELETE)/)
    end
    edit(id, "move_points", inputs)
    ActiveSupport::Notifications.unsubscribe(watch)
    expect(written.grep(/INTO "parts"/).size).to eq 1
    expect(PartRow.where(song_id: id, kind: "envelope", part_id: move_id).pick(:record)).to include "4000"
  end

  it "refuses an edit on a revision that has passed, and says which is the newest" do
    edit(id, "rename_song", { name: "Take" })
    answer = post_json("/api/songs/#{id}/edits", { revision: 1, edit: "rename_song", inputs: { name: "Other" } })
    expect([last_response.status, answer["revision"], codes(answer), snapshot(id).song.name]).to eq [409, 2, [["stale", ""]], "Take"]
    post_json("/api/songs/#{id}/preview", { revision: 1, edit: "rename_song", inputs: { name: "Other" } })
    expect(last_response.status).to eq 409
  end

  it "keeps one of two edits that race for the same revision" do
    race = lambda do |i|
      Server.edit_log.edit(id, 1, "rename_song", { "name" => "Take #{i}" })
    rescue OpenSongs::Stale => e
      e
    end
    answers = Array.new(6) { |i| Thread.new { race.call(i) } }.map(&:value)
    expect(answers.map(&:class).tally).to eq(EditLog::Change => 1, OpenSongs::Stale => 5)
  end

  it "says every fault of an input at once, where it is, and stores nothing" do
    answer = edit(id, "move_points", { envelope_id: 3, points: [{ index: 0, tick: "soon", value: 7 }, { index: -1, tick: 0 }] })
    expect(last_response.status).to eq 422
    expect(codes(answer)).to contain_exactly(
      ["schema_string", "/inputs/envelope_id"], ["schema_integer", "/inputs/points/0/tick"], ["schema_maximum", "/inputs/points/0/value"],
      ["schema_minimum", "/inputs/points/1/index"], ["schema_required", "/inputs/points/1"]
    )
    expect(revision(id)).to eq 1
  end

  {
    ["paint_it", {}] => [404, ["unknown_edit", "/edit"]],
    ["add_lane", { address: "rope-bass/synth/nose" }] => [404, ["unknown_parameter", "/inputs/address"]],
    ["add_lane", { address: "nonsense" }] => [422, ["bad_address", "/inputs/address"]],
    ["remove_envelope", { envelope_id: "gone" }] => [404, ["unknown_envelope", "/inputs/envelope_id"]],
    ["move_regions", { region_ids: ["gone"], ticks: 0 }] => [404, ["unknown_region", "/inputs/region_ids/0"]],
    ["set_role", { envelope_id: "x", role: "twist" }] => [422, ["schema_enum", "/inputs/role"]],
    ["split_region", { region_id: "x", tick: -5 }] => [422, ["schema_minimum", "/inputs/tick"]]
  }.each do |(name, inputs), (status, fault)|
    it "refuses #{name} #{inputs}" do
      expect([codes(edit(id, name, inputs)), last_response.status]).to eq [[fault], status]
    end
  end

  it "refuses requests that are none" do
    expect(codes(post_json("/api/songs/#{id}/edits", "[1]"))).to eq [["bad_json", ""]]
    expect(codes(post_json("/api/songs/#{id}/edits", '{"revision": NaN}'))).to eq [["bad_json", ""]]
    expect(codes(post_json("/api/songs/#{id}/edits", { revision: "one", edit: "rename_song", inputs: { name: "x" } }))).to eq [["bad_value", "/revision"]]
    expect(codes(post_json("/api/songs/#{id}/edits", { revision: 1, edit: "rename_song", inputs: { name: "x" }, heard: 5 }))).to eq [["bad_value", "/heard"]]
    expect(revision(id)).to eq 1
  end

  it "finds no song that is not there" do
    post_json("/api/songs/999999/edits", { revision: 1, edit: "rename_song", inputs: { name: "x" } })
    expect(last_response.status).to eq 404
  end

  it "refuses an edit that makes what could not be played, and stores nothing of it" do
    move = envelope([0, 0.0], [3840, 1.0], target: "bass/channel/volume").then do |one|
      one.with(points: [one.points[0].with(shape: shape("cycle", wave: "sine", cycles: 1, note_ticks: 15)), one.points[1]])
    end
    song = apply(small_song, "make_carrier", start_tick: 0, length_ticks: 3840).song
    carrier = song.clips.each_value.find(&:carrier?)
    id = plant(song.with_clip(carrier.with(envelopes: [move])))
    region = snapshot(id).song.directory.regions_of_clip(carrier.id).first.region
    before = json_of(snapshot(id).song)
    inputs = { region_id: region.id, start_tick: 0, end_tick: 3840 * 60 }
    answer = edit(id, "fit_carrier", inputs)
    words = "What comes of it could not be played: A segment of 230400 ticks would have more than 8192 cycles of 15 ticks."
    expect([last_response.status, answer["faults"][0].slice("code", "message")]).to eq [422, { "code" => "cannot_be_played", "message" => words }]
    made = KindSatchel::Edits.apply(snapshot(id).song, "fit_carrier", inputs)
    patch = KindSatchel::Deltas.compact(KindSatchel::Parts.between(snapshot(id).song, made.song))
    far = -> { app.settings.edit_log.worked_out(id, revision(id), "fit_carrier", inputs) { { "words" => made.words, "notices" => [], "patch" => patch } } }
    expect(faults(&far)).to eq [["cannot_be_played", ""]]
    expect([json_of(snapshot(id).song), json_of(SongRows.read(id)), EditRow.where(song_id: id).count]).to eq [before, before, 0]
  end

  it "refuses an edit whose loose ends could not be told, but not where they could not be told before" do
    check = Module.new
    fault = KindSatchel::InvalidInput.of("made", "", "No end of it.")
    check.define_singleton_method(:find) { |song, _| song.name.start_with?("High") ? raise(fault) : [] }
    stub_const("KindSatchel::Checks::LooseEnds::ALL", KindSatchel::Registry.new("check", "made" => check))
    before = json_of(snapshot(id).song)
    expect(edit(id, "rename_song", { name: "High Tide" })["faults"].map { |one| one.values_at("code", "message") })
      .to eq [["cannot_be_played", "What comes of it could not be played: No end of it."]]
    expect(json_of(snapshot(id).song)).to eq before
    high = plant(snapshot(id).song.with(name: "High Tide"))
    expect([edit(high, "rename_song", { name: "Higher" })["faults"], edit(high, "rename_song", { name: "Low" })["faults"]]).to eq [nil, nil]
  end

  it "refuses a wish for what is no address before anything is done" do
    id = plant(small_song)
    answer = edit(id, "rename_song", { name: "Ebb" }, heard: ["bass/synth/cutoff", "nothing at all"])
    expect([last_response.status, answer["faults"][0].slice("code", "path")]).to eq [422, { "code" => "bad_address", "path" => "/heard/1" }]
    expect([snapshot(id).song.name, EditRow.where(song_id: id).count]).to eq ["Small", 0]
  end
end

RSpec.describe "Reading a song" do
  let(:id) { plant }

  it "says where each envelope runs, and what is heard" do
    drawing = get_json("/api/songs/#{id}/drawing?tracks=rope-bass")
    region = snapshot(id).song.track("rope-bass").regions.first
    move = snapshot(id).song.clip("mooring").envelopes.first
    expect(drawing["windows"][region.id][move.id]).to eq [[15_360, 23_040, 0, 1], [23_040, 30_720, 0, 1]]
    heard = get_json("/api/songs/#{id}/heard?addresses=rope-bass/synth/cutoff")["heard"]["rope-bass/synth/cutoff"]
    expect(heard.each_slice(2).map(&:first)).to eq heard.each_slice(2).map(&:first).sort
  end

  it "explains a value" do
    answer = get_json("/api/songs/#{id}/explanation?address=rope-bass/synth/cutoff&tick=19200")
    expect(answer["steps"].map { |step| step["kind"] }).to eq %w[knob lane clip heard]
    expect(get_json("/api/songs/#{id}/explanation?address=rope-bass/synth/cutoff&tick=soon")["faults"].first["path"]).to eq "/tick"
  end

  it "lists what a knob sounds like while it is turned, within 1/10,000 of the travel" do
    catalogue = get_json("/api/catalogue")
    scales = KindSatchel::Devices::TYPES.ids.flat_map { |type| KindSatchel::Devices::TYPES.fetch(type).parameters.values.map { |one| [type, one] } }
    scales.uniq { |_, one| one.scale }.reject { |_, one| one.scale.steps }.each do |type, parameter|
      entry = catalogue["devices"][type]["parameters"].find { |one| one["id"] == parameter.id }
      table = catalogue["scales"][entry["scale"]]["engine"]
      off = (0..997).map do |i|
        (a, low), (b, high) = table.each_slice(2).each_cons(2).find { |_, (to, _)| to >= i / 997.0 }
        sounds = low + ((high - low) * ((i / 997.0) - a) / (b - a))
        back = parameter.scale.gain? ? Math.sqrt(sounds / parameter.scale.peak) : parameter.scale.normalised(sounds / parameter.scale.unit.engine_factor)
        (back - (i / 997.0)).abs
      end
      expect([parameter.id, off.max]).to match [parameter.id, be < 1e-4]
    end
  end

  let(:move_id) { snapshot(id).song.clip("mooring").envelopes.first.id }

  it "reads a place of a curve, an amount and a knob's value as people write them" do
    path = "/api/songs/#{id}/reading"
    envelope = snapshot(id).song.clip("mooring").envelopes.first
    read = get_json("#{path}?envelope_id=#{move_id}&tick=1234")
    expect(read).to eq [envelope.at(1234), "+2.87 %"]
    expect(get_json("#{path}?envelope_id=#{move_id}&value=0.25")).to eq [0.25, "+25 %"]
    expect(get_json("#{path}?address=rope-bass/synth/cutoff&value=0")).to eq [0.0, "30 Hz"]
    %w[value=2 value=x tick=-1 tick=].each do |rest|
      get_json("#{path}?envelope_id=#{move_id}&#{rest}")
      expect(last_response.status).to eq 422
    end
    get_json("#{path}?envelope_id=nobody&tick=0")
    expect(last_response.status).to eq 404
  end

  it "writes every point's value out, in its unit" do
    points = get_json("/api/songs/#{id}/drawing?tracks=rope-bass")["parts"].find { |_, key,| key == move_id }[2]["points"]
    scale = snapshot(id).song.parameter(KindSatchel::Address.parse("rope-bass/synth/cutoff")).scale
    expect(points.map { |point| point["text"] }).to eq(points.map { |point| KindSatchel::Roles::Shift.amount_text(scale, point["value"]) })
  end

  it "refuses a stretch that ends before it starts" do
    expect(get_json("/api/songs/#{id}/playback?from_tick=10&to_tick=10")["faults"].first["code"]).to eq "out_of_range"
  end

  describe "a preview that would take long" do
    # Waves one over the other: each moves the rate of the one before.
    def waves(id, count)
      edit(id, "add_lane", { address: "rope-bass/synth/resonance", role: "shift" })
      lane = ->(target) { snapshot(id).song.tracks.flat_map(&:lanes).find { |one| one.target.to_s == target }.id }
      target = "rope-bass/synth/resonance"
      count.times do |i|
        edit(id, "add_lane", { address: target = "move/#{lane.call(target)}/rate" }) if i.positive?
        edit(id, "set_lfo", { envelope_id: lane.call(target), wave: "sine", cycle_ticks: 320 + (160 * i) })
      end
      lane.call("rope-bass/synth/resonance")
    end

    def tried(id, lane)
      wants = { heard: ["rope-bass/synth/resonance"], sound: { from_tick: 3840, to_tick: 7680 } }
      post_json("/api/songs/#{id}/preview", { revision: revision(id), edit: "set_limits", inputs: { envelope_id: lane, depth: "40 %" }, **wants })
    end

    it "is drawn by its bounds, not played, and says so; nothing of it is worked out" do
      id = plant
      lane = waves(id, 3)
      id = plant(snapshot(id).song.with(name: "Fresh"))
      allow(KindSatchel::Heard::Integral::Quadrature).to receive(:new).and_call_original
      answer = tried(id, lane)
      expect(KindSatchel::Heard::Integral::Quadrature).not_to have_received(:new)
      expect(answer["coarse"]).to eq ["rope-bass/synth/resonance"]
      expect(answer["sound"]["ramps"]).to eq({})
      bounds = answer["heard"]["rope-bass/synth/resonance"] || answer["patches"]["heard"]["rope-bass/synth/resonance"][0][2]
      low, high = bounds.each_slice(2).map(&:last).minmax
      edit(id, "set_limits", { envelope_id: lane, depth: "40 %" })
      resolver = KindSatchel::Heard::Resolver.new(snapshot(id).song, KindSatchel::Address.parse("rope-bass/synth/resonance"))
      expect(resolver.at_each((0...7680).step(13).to_a)).to all(be_between(low - 1e-5, high + 1e-5))
    end

    it "is worked out where there is little of it" do
      id = plant
      lane = waves(id, 1)
      answer = tried(id, lane)
      expect([answer["coarse"], answer["sound"]["ramps"].keys]).to eq [[], ["rope-bass/synth/resonance"]]
    end
  end
end
