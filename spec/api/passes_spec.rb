# frozen_string_literal: true

# Passes of hands: one step of undo, every lap kept beside the song, written again from what is kept.
RSpec.describe "Passes of hands" do
  let(:id) { plant }
  let(:cutoff) { "rope-bass/synth/cutoff" }

  def samples(from, to, low, high)
    (0..100).flat_map { |i| [from + ((to - from) * i / 100.0), low + ((high - low) * ((i / 100.0) + (0.15 * Math.sin(i * Math::PI / 50))))] }
  end

  def record(lap, low, high, **more)
    moves = [{ address: more.delete(:address) || cutoff, grips: [{ samples: samples(11, 14, low, high), until_seconds: 14 }] }]
    edit(id, "record_moves", { pass: "first", lap:, from_seconds: 10.5, to_seconds: 20, into: "clip", moves:, **more })
  end

  def passes = get_json("/api/songs/#{id}/passes")
  def heard_at(seconds) = snapshot(id).song.then { |song| heard(song, cutoff, song.tempo.tick_at(seconds).round) }
  def undo = post_json("/api/songs/#{id}/undo", { revision: revision(id) })

  it "are one step of undo, whatever laps and notes they have; redo brings all of it back" do
    before = json_of(snapshot(id).song)
    record(0, 0.2, 0.4)
    edit(id, "record_notes", { pass: "first", track_id: "rope-bass", from_seconds: 10.5, to_seconds: 20,
                               notes: [{ start_seconds: 12, end_seconds: 12.4, pitch: 55, velocity: 90 }] })
    answer = record(1, 0.6, 0.8)
    expect(answer["undo"]).to eq "record a pass into Mooring"
    after = json_of(snapshot(id).song)
    expect(undo["undo"]).to be_nil
    expect(json_of(snapshot(id).song)).to eq before
    post_json("/api/songs/#{id}/redo", { revision: revision(id) })
    expect(json_of(snapshot(id).song)).to eq after
    expect(EditRow.where(song_id: id).pluck(:inputs).join).not_to include "samples"
  end

  it "are kept lap by lap, and written again finer, from one lap, or from parts of several" do
    record(0, 0.2, 0.4)
    told = record(1, 0.6, 0.8)["notices"].find { |notice| notice["code"] == "thinned" }["text"]
    found = passes.first
    expect(told).to eq "#{found['points']} points now, from 101 samples"
    expect(found.values_at("pass", "address", "name", "owner", "current")).to eq ["first", cutoff, "Cutoff", "Rope Bass", true]
    expect(found["laps"].map { |lap| [lap["lap"], lap["samples"]] }).to eq [[0, 101], [1, 101]]
    expect(found["places"].map { |place| place.values_at("name", "regions") }).to eq [["Mooring", 4]]
    expect(heard_at(12.5)).to be_within(0.012).of(0.7)
    edit(id, "rewrite_pass", { pass: "first", address: cutoff, parts: [{ lap: 0, from_tick: 0, to_tick: 99_999 }], tolerance: 0.001 })
    expect(heard_at(12.5)).to be_within(0.002).of(0.3)
    expect(passes.first.values_at("current", "tolerance", "parts")).to eq [true, 0.001, [{ "lap" => 0, "from_tick" => 0, "to_tick" => 99_999 }]]
    edit(id, "rewrite_pass", { pass: "first", address: cutoff })
    expect(heard_at(12.5)).to be_within(0.002).of(0.7)
  end

  it "are separated where they were played, and stay with the clip that keeps them" do
    before = snapshot(id).song.clip("mooring")
    record(0, 0.2, 0.4)
    edit(id, "rewrite_pass", { pass: "first", address: cutoff, separate: true })
    expect(snapshot(id).song.clip("mooring")).to eq before
    found = passes.first
    expect([found["current"], found["places"].map { |place| place.values_at("name", "regions") }]).to eq [true, [["Mooring 2", 1]]]
    expect(heard_at(12.5)).to be_within(0.012).of(0.3)
    edit(id, "rewrite_pass", { pass: "first", address: cutoff, tolerance: 0.001 })
    expect([heard_at(12.5), passes.first["current"], snapshot(id).song.clip("mooring")]).to match [be_within(0.002).of(0.3), true, before]
  end

  it "tell how far what is heard lies from all laps that are heard, not from the last one alone" do
    record(0, 0.2, 0.4, latch: true)
    # A further lap touches half of it, and writes into the loop where the first one was played on.
    edit(id, "record_moves", { pass: "first", lap: 1, from_seconds: 10.5, to_seconds: 20, into: "clip",
                               moves: [{ address: cutoff, grips: [{ samples: [15.8, 0.9, 16.0, 0.95], until_seconds: 17 }] }] })
    song = snapshot(id).song
    at = song.tempo.tick_at(16.5).round
    expect(heard(song, cutoff, at)).to be_within(0.012).of(0.95)
    elsewhere = at - 7680
    played = 0.4
    expect(passes.first["difference"]).to be >= (heard(song, cutoff, elsewhere) - played).abs - 0.2
  end

  it "can be tried at another tolerance before that is done" do
    record(0, 0.2, 0.4)
    counts = [0.2, 0.0001].map do |tolerance|
      tried = post_json("/api/songs/#{id}/preview", { revision: revision(id), edit: "rewrite_pass", inputs: { pass: "first", address: cutoff, tolerance: } })
      tried["notices"].find { |notice| notice["code"] == "thinned" }["text"][/\d+|a point/].to_i
    end
    expect(counts[1]).to be > counts[0]
  end

  it "are current until their points are changed by hand, and again after undo" do
    record(0, 0.2, 0.4)
    envelope = passes.first["places"].first["envelope_id"]
    edit(id, "move_points", { envelope_id: envelope, points: [{ index: 1, tick: 700, value: 0.9 }] })
    expect(passes.first["current"]).to be false
    undo
    expect(passes.first["current"]).to be true
  end

  it "make room for the next pass on the parameter; laps that are only kept change nothing heard" do
    record(0, 0.2, 0.4)
    record(1, 0.6, 0.8, kept_only: true)
    expect([passes.first["laps"].size, (heard_at(12.5) - 0.3).abs < 0.012]).to eq [2, true]
    moves = [{ address: cutoff, grips: [{ samples: [11, 0.5] }] }]
    edit(id, "record_moves", { pass: "second", lap: 0, from_seconds: 10, to_seconds: 20, into: "lane", moves: })
    expect(passes.map { |one| one["pass"] }).to eq ["second"]
  end

  it "go on in the carrier they have made" do
    record(0, 0.2, 0.4, into: "carrier")
    record(1, 0.6, 0.8, into: "carrier")
    carriers = snapshot(id).song.clips.each_value.select { |clip| clip.name.start_with?("Played") }
    expect(carriers.map { |clip| clip.envelopes.size }).to eq [1]
    expect(heard_at(12.5)).to be_within(0.012).of(0.7)
  end

  it "go elsewhere afterwards, and leave nothing where they were" do
    clean = snapshot(id).song.clip("mooring").envelopes.size
    record(0, 0.2, 0.4, role: "set")
    %w[carrier lane clip carrier].each do |into|
      edit(id, "rewrite_pass", { pass: "first", address: cutoff, into: })
      expect(passes.first.values_at("into", "current")).to eq [into, true]
      expect(heard_at(12.5)).to be_within(0.012).of(0.3)
    end
    song = snapshot(id).song
    expect([song.clip("mooring").envelopes.size, song.clips.each_value.count { |clip| clip.name.start_with?("Played") }]).to eq [clean, 1]
  end

  it "of more than 20 MB lose the oldest, which is said" do
    record(0, 0.2, 0.4, address: "fog-pad/channel/pan")
    stub_const("PassShelf::MOST_BYTES", 3000)
    noise = Random.new(3)
    answer = edit(id, "record_moves", { pass: "second", lap: 0, from_seconds: 0, to_seconds: 20, into: "lane",
                                        moves: [{ address: cutoff, grips: [{ samples: (0..600).flat_map { |i| [i / 100.0, noise.rand] } }] }] })
    expect(answer["notices"].map { |notice| notice["code"] }).to include "takes_dropped"
    expect(passes.map { |one| one["pass"] }).to eq ["second"]
  end

  it "are read as they were kept before too, packed" do
    record(0, 0.2, 0.4)
    kept = passes
    take = TakeRow.last
    take.update!(strokes: Zlib.deflate(take.strokes))
    expect(passes).to eq kept
  end

  it "say what is wrong with samples and passes that are not there, and nothing is stored" do
    faults = lambda do |name, inputs|
      post_json("/api/songs/#{id}/edits", { revision: 1, edit: name, inputs: })["faults"].map { |fault| fault.values_at("code", "path") }
    end
    base = { pass: "one", lap: 0, from_seconds: 0, to_seconds: 2, into: "lane" }
    played = ->(*samples) { { **base, moves: [{ address: cutoff, grips: [{ samples: }] }] } }
    expect(faults.call("record_moves", played.call(0, 0.5, 1, "x"))).to eq [["out_of_range", "/inputs/moves/0/grips/0/samples/3"]]
    expect(faults.call("record_moves", played.call(0, 0.5, 1))).to eq [["odd", "/inputs/moves/0/grips/0/samples"]]
    expect(faults.call("rewrite_pass", { pass: "none", address: cutoff })).to eq [["no_takes", "/inputs/pass"]]
    expect(passes).to eq []
    expect(get_json("/api/songs/#{id}/passes").size + PassRow.where(song_id: id).count).to eq 0
  end
end
