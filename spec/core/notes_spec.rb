# frozen_string_literal: true

RSpec.describe "Edits of notes and clips" do
  note = ->(tick, length, pitch, velocity = 100) { KindSatchel::Note.new(tick:, length_ticks: length, pitch:, velocity:) }
  define_method(:song_of) { |*notes| small_song.then { |song| song.with_clip(song.clip("line").with(notes:)) } }
  let(:song) { song_of(note.call(0, 480, 40), note.call(500, 200, 43, 60), note.call(960, 480, 40), note.call(1900, 100, 47)) }

  def notes(some) = some.clip("line").notes.map { |one| [one.tick, one.length_ticks, one.pitch, one.velocity] }
  def done(name, runs = [[0, 3]], **more) = notes(apply(song, name, clip_id: "line", runs:, **more).song)

  # Some notes, their velocities left out.
  def brief(list) = list.map { |one| one.first(3) }

  it "adds notes; one that begins while another of its pitch sounds ends that one, and takes the place of one that begins with it" do
    added = apply(song, "add_notes", clip_id: "line", notes: [{ "tick" => 240, "length_ticks" => 100, "pitch" => 40, "velocity" => 90 },
                                                              { "tick" => 960, "length_ticks" => 60, "pitch" => 40, "velocity" => 1 }])
    expect([brief(notes(added.song)), added.words])
      .to eq [[[0, 240, 40], [240, 100, 40], [500, 200, 43], [960, 60, 40], [1900, 100, 47]], "add 2 notes to Line"]
  end

  it "moves notes together, as far as the clip's start and the pitches allow; or a copy of them" do
    expect(brief(done("move_notes", [[1, 2]], ticks: -120, steps: 1))).to eq [[0, 480, 40], [380, 200, 44], [840, 480, 41], [1900, 100, 47]]
    expect(brief(done("move_notes", [[1, 3]], ticks: -9000)).map(&:first)).to eq [0, 0, 460, 1400]
    expect(brief(done("move_notes", steps: 100)).map(&:last)).to eq [120, 123, 120, 127]
    expect(brief(done("move_notes", [[0, 0]], ticks: 240, copy: true)).first(2)).to eq [[0, 240, 40], [240, 480, 40]]
  end

  it "stretches ends and starts, never below the shortest note" do
    expect(brief(done("stretch_notes", [[1, 1]], ticks: 60))[1]).to eq [500, 260, 43]
    expect(brief(done("stretch_notes", [[1, 1]], ticks: -900))[1]).to eq [500, 15, 43]
    expect(brief(done("stretch_notes", [[1, 1]], ticks: 60, edge: "start"))[1]).to eq [560, 140, 43]
    expect(brief(done("stretch_notes", [[0, 0]], ticks: 900))[0]).to eq [0, 960, 40]
  end

  it "sets velocities, or adds to them" do
    expect(done("set_velocity", velocity: 64).map(&:last)).to eq [64] * 4
    expect(done("set_velocity", add: 40).map(&:last)).to eq [127, 100, 127, 127]
    expect(faults { done("set_velocity") }).to eq [["bad_request", ""]]
  end

  it "quantises starts, ends or both, part of the way, with swing" do
    expect(brief(done("quantise_notes", grid_ticks: 240))).to eq [[0, 480, 40], [480, 200, 43], [960, 480, 40], [1920, 100, 47]]
    expect(brief(done("quantise_notes", grid_ticks: 240, strength: 0.5))[1]).to eq [490, 200, 43]
    expect(brief(done("quantise_notes", grid_ticks: 240, what: "ends"))[1]).to eq [500, 220, 43]
    expect(brief(done("quantise_notes", grid_ticks: 240, what: "both"))[1]).to eq [480, 240, 43]
    # With a swing of a third every second eighth comes a third of an eighth later: a triplet feel (common practice, no source).
    expect(brief(done("quantise_notes", [[1, 1]], grid_ticks: 480, swing: 1 / 3.0))[1]).to eq [640, 200, 43]
  end

  it "goes twice and half as fast, joins notes, strays the same way for the same seed" do
    expect(brief(done("pace_notes", pace: 2))).to eq [[0, 240, 40], [250, 100, 43], [480, 240, 40], [950, 50, 47]]
    expect(brief(done("pace_notes", [[2, 3]], pace: 0.5)).last(2)).to eq [[960, 960, 40], [2840, 200, 47]]
    expect(brief(done("legato_notes")).map { |one| one[1] }).to eq [500, 460, 940, 100]
    once, again, other = [1, 1, 2].map { |seed| done("humanise_notes", seed:, ticks: 20, velocity: 10) }
    expect([once, other == once]).to eq [again, false]
    expect(once.zip(notes(song)).map { |a, b| (a[0] - b[0]).abs }.max).to be_between(1, 20)
  end

  it "lets no note that was touched overlap another of its pitch, and is written and read back the same" do
    random = Random.new(7)
    40.times do
      places = (0...16).to_a.sample(12, random:).sort
      some = song_of(*places.map { |place| note.call(place * 240, 1 + random.rand(900), 36 + random.rand(4)) })
      made = apply(some, "move_notes", clip_id: "line", runs: [[0, 11]], ticks: random.rand(-900..900), steps: random.rand(-3..3)).song
      made.clip("line").notes.group_by(&:pitch).each_value do |list|
        list.each_cons(2) { |one, other| expect(one.tick + one.length_ticks).to be <= other.tick }
      end
      expect(KindSatchel::Document.load(JSON.parse(json_of(made)))).to eq made
    end
  end

  it "keeps a clip to its most notes, also when it is doubled" do
    many = Array.new(KindSatchel::Notes::MOST - 1) { |i| note.call(i, 1, i % 128) }
    full = song_of(*many).then { |some| some.with_clip(some.clip("line").with(length_ticks: many.size)) }
    expect(faults { apply(full, "double_clip", clip_id: "line") }.map(&:first)).to eq ["too_many_notes"]
    two = [130_000, 131_000].map { |tick| { "tick" => tick, "length_ticks" => 1, "pitch" => 1, "velocity" => 1 } }
    expect(faults { apply(full, "add_notes", clip_id: "line", notes: two) }.map(&:first)).to eq ["too_many_notes"]
  end

  it "says what cannot be" do
    expect(faults { done("remove_notes", [[2, 9]]) }).to eq [["unknown_note", "/runs/0"]]
    audio = apply(song, "make_carrier", start_tick: 0, length_ticks: BAR).song
    expect(faults { apply(audio, "add_notes", clip_id: audio.clips.keys.last, notes: [{ "tick" => 0, "length_ticks" => 1, "pitch" => 1, "velocity" => 1 }]) })
      .to eq [["wrong_kind", "/clip_id"]]
    expect(faults do
      apply(song, "add_notes", clip_id: "line", notes: [{ "tick" => 0, "length_ticks" => 1, "pitch" => 128, "velocity" => 1 }])
    end.map(&:last)).to eq ["/notes/0/pitch"]
  end

  it "makes an empty clip, over what lies there; names, colours, lengthens and doubles it; repeats regions or plays them once" do
    made = apply(song, "make_clip", track_id: "bass", start_tick: 2 * BAR, length_ticks: BAR, name: "Line")
    region = made.song.track("bass").regions[1]
    expect([made.song.clip(region.clip_id).name, made.song.clip(region.clip_id).notes, made.notices.map(&:code)]).to eq ["Line 2", [], ["cut"]]
    named = apply(made.song, "set_clip", clip_id: region.clip_id, name: "Low", hue: "moss", length_ticks: 2 * BAR).song
    expect(named.clip(region.clip_id).then { |clip| [clip.name, clip.hue, clip.length_ticks] }).to eq ["Low", "moss", 2 * BAR]
    moved = apply(song, "embed_envelope", clip_id: "line", address: CUTOFF).song
    doubled = apply(moved, "double_clip", clip_id: "line").song
    expect([doubled.clip("line").length_ticks, notes(doubled).size]).to eq [2 * BAR, 8]
    expect(events(doubled)).to eq events(moved)
    once = apply(song, "loop_regions", region_ids: [song.track("bass").regions.first.id], looped: false).song
    expect(events(once, 2 * BAR, 3 * BAR)).to eq []
    expect(faults { apply(song, "make_clip", track_id: "hall", start_tick: 0, length_ticks: BAR) }).to eq [["no_notes_here", "/track_id"]]
    expect(faults { apply(song, "set_clip", clip_id: "line", name: " ") }).to eq [["bad_name", "/name"]]
    [made.song, named, doubled, once].each { |some| expect(KindSatchel::Document.load(JSON.parse(json_of(some)))).to eq some }
  end

  def events(some, from = 0, to = 8 * BAR) = KindSatchel::Heard::Events.new(some).in_range(from, to).map { |one| one.slice("start_tick", "end_tick", "pitch") }
end
