# frozen_string_literal: true

RSpec.describe "Notes played in" do
  # At 120 BPM a beat of 960 ticks lasts half a second; the clip of a bar is repeated over bars 2 and 3 (seconds 2 to 6) and in bar 6.
  let(:song) { small_song }

  def played(*notes) = notes.map { |start, finish, pitch| { "start_seconds" => start, "end_seconds" => finish, "pitch" => pitch, "velocity" => 90 } }

  def record(some, notes, from: 0, to: 20, **more)
    apply(some, "record_notes", track_id: "bass", from_seconds: from, to_seconds: to, notes: played(*notes), **more)
  end

  def notes(some, id = "line") = some.clip(id).notes.map { |one| [one.tick, one.length_ticks, one.pitch] }
  def regions(some) = some.track("bass").regions.map { |one| [one.clip_id, one.start_tick / BAR.to_f, one.length_ticks / BAR.to_f] }

  it "go into the clip that sounds there, at the place of its material, in every repeat" do
    after = record(song, [[2.5, 2.75, 43], [4.75, 5.0, 45], [10.0, 10.1, 41]])
    expect(notes(after.song)).to eq [[0, 480, 40], [0, 192, 41], [960, 480, 43], [1440, 480, 45]]
    expect([after.words, after.notices]).to eq ["record 3 notes into Line", []]
    expect(regions(after.song)).to eq regions(song)
  end

  it "are cut where the material ends, and shorten what sounded at their pitch" do
    expect(notes(record(song, [[3.75, 9.0, 50]]).song)).to include([3360, 480, 50])
    expect(notes(record(song, [[2.125, 2.3, 40]]).song)).to eq [[0, 240, 40], [240, 336, 40]]
  end

  it "get a clip of whole bars where none lies, in each gap one; in the range that repeats one over all of it" do
    after = record(song, [[0.5, 0.75, 40], [7.0, 8.5, 41]]).song
    expect(regions(after)).to eq [["clip-3", 0, 1], ["line", 1, 2], ["clip-5", 3, 2], ["line", 5, 1]]
    expect([notes(after, "clip-3"), notes(after, "clip-5"), after.clip("clip-5").name]).to eq [[[960, 480, 40]], [[1920, 2880, 41]], "Bass 2"]
    ranged = apply(song, "set_range", on: true, start_tick: 6 * BAR, end_tick: 10 * BAR).song
    lap = record(ranged, [[13.0, 13.25, 40]], from: 12, to: 20, whole: true).song
    expect(regions(lap).last).to eq ["clip-3", 6, 4]
  end

  it "add, or replace what the pass went over and nothing else" do
    full = song.with_clip(song.clip("line").with(notes: [0, 960, 1920, 2880].map do |tick|
      KindSatchel::Note.new(tick:, length_ticks: 240, pitch: 40, velocity: 100)
    end))
    expect(notes(record(full, [[2.6, 2.7, 50]], from: 2.4, to: 3.2).song).size).to eq 5
    expect(notes(record(full, [[2.6, 2.7, 50]], from: 2.4, to: 3.2, replace: true).song).map(&:first)).to eq [0, 1152, 2880]
    expect(notes(record(full, [[2.6, 2.7, 50]], from: 2, to: 12, replace: true).song).map(&:first)).to eq [1152]
  end

  it "come to the grid where that is asked for, counted from the time signature there" do
    expect(notes(record(song, [[2.53, 2.7, 50]], grid_ticks: 240).song).last.first(2)).to eq [960, 326]
    mixed = apply(song, "set_meter", bar: 2, beats: 7, unit: 8).song
    mixed = apply(mixed, "set_meter", bar: 3, beats: 4, unit: 4).song
    late = record(mixed, [[3.8, 3.9, 50]], grid_ticks: 960).song
    expect(mixed.meters.text(BAR + notes(late).last.first)).to eq "3.1.0"
  end

  it "keep to a tempo that moves" do
    ramp = [[0, 60, "straight"], [4 * BAR, 180, "hold"]].map { |tick, bpm, shape| KindSatchel::Timing::TempoPoint.new(tick:, bpm:, shape:) }
    moving = song.with(tempo: KindSatchel::Timing::TempoMap.new(points: ramp))
    at = moving.tempo.seconds_at(BAR + 1000)
    expect(notes(record(moving, [[at, at + 0.1, 60]]).song).last.first).to eq 1000
  end

  it "are refused where they cannot go, and told where they are left out" do
    expect(faults do
      apply(song, "record_notes", track_id: "hall", from_seconds: 0, to_seconds: 1, notes: played([0, 1, 40]))
    end).to eq [["no_notes_here", "/track_id"]]
    expect(faults { record(song, [[2, 1, 40]]) }).to eq [["too_short", "/notes/0/end_seconds"]]
    expect(faults { record(song, [[2, 3, 40]], from: 3, to: 3) }).to eq [["too_short", "/to_seconds"]]
    once = apply(song, "loop_regions", region_ids: [song.track("bass").regions.first.id], looped: false).song
    after = record(once, [[2.5, 2.6, 50], [4.5, 4.6, 51]])
    expect([notes(after.song).map(&:last), after.notices.map(&:text)]).to eq [[40, 50], ["a note past the end of a clip that is not repeated left out"]]
  end

  it "count the beats of a stretch through every signature, for the click" do
    mixed = apply(apply(song, "set_meter", bar: 2, beats: 3, unit: 8).song, "set_meter", bar: 3, beats: 4, unit: 4).song
    expect(mixed.meters.beats(2880, 6000)).to eq [[2880, false], [3840, true], [4320, false], [4800, false], [5280, true]]
    expect(mixed.meters.beats(0, 1)).to eq [[0, true]]
  end
end
