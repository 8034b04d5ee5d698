# frozen_string_literal: true

RSpec.describe "Tracks" do
  let(:song) do
    base = small_song(clip: [envelope([0, 0.2], [BAR, 0.9])], lanes: [envelope([0, 0.3], id: "l1", target: "bass/channel/volume")])
    lead = base.track("bass").with(id: "lead", name: "Lead", lanes: [], regions: [])
    base.with(tracks: [base.track("bass"), lead, *base.tracks.drop(1)])
  end

  def rows(some) = some.tracks.map { |track| [track.id, track.output] }

  # A document is read only when every output leads downwards and every id names something.
  def sound!(some) = expect(KindSatchel::Document.load(JSON.parse(json_of(some)))).to eq(some)

  describe "duplicating" do
    it "brings the moves along, turned to the new track" do
      after = apply(song, "duplicate_track", track_id: "bass", moves: true)
      copy = after.song.tracks[1]
      expect([after.words, copy.name, copy.regions.size]).to eq ["duplicate Bass with its moves", "Bass 2", 2]
      [BAR, BAR + 1000, 5 * BAR].each { |tick| expect(heard(after.song, "#{copy.id}/synth/cutoff", tick)).to eq heard(song, CUTOFF, tick) }
      expect(heard(after.song, "#{copy.id}/channel/volume", 0)).to eq 0.3
      sound!(after.song)
    end

    it "leaves the moves behind, and shares clips that have none" do
      after = apply(song, "duplicate_track", track_id: "bass", moves: false).song
      copy = after.tracks[1]
      expect([copy.lanes, after.clip(copy.regions.first.clip_id).envelopes]).to eq [[], []]
      expect(after.clip("line")).to eq song.clip("line")
      bare = song.with_clip(song.clip("line").with(envelopes: []))
      expect(apply(bare, "duplicate_track", track_id: "bass", moves: false).song.tracks[1].regions.map(&:clip_id)).to eq %w[line line]
      expect(faults { apply(song, "duplicate_track", track_id: "hall", moves: true) }).to eq [["no_regions_here", "/track_id"]]
    end

    it "says beforehand what there is to bring" do
      expect(KindSatchel::Transfer::TrackCopy.counts(song, song.track("bass"))).to eq("lanes" => 1, "envelopes" => 1, "clips" => 1, "regions" => 2)
    end
  end

  describe "copying moves" do
    let(:two) { apply(song, "duplicate_track", track_id: "bass", moves: false).song }
    let(:copy) { two.tracks[1] }

    it "shows what matches and what does not, then copies what does" do
      table = KindSatchel::Transfer::MovesTable.new(two, two.track("bass"), copy)
      expect(table.to_record).to eq [{ "envelope_id" => "l1", "name" => "Bass: Volume", "points" => 1, "target" => "#{copy.id}/channel/volume",
                                       "target_name" => "Bass 2: Volume", "replaces" => false }]
      after = apply(two, "copy_moves", from_track_id: "bass", to_track_id: copy.id)
      expect([heard(after.song, "#{copy.id}/channel/volume", 0), after.words]).to eq [0.3, "copy a move of Bass to Bass 2"]
      again = KindSatchel::Transfer::MovesTable.new(after.song, after.song.track("bass"), after.song.track(copy.id))
      expect(again.to_record.map { |row| row["replaces"] }).to eq [true]
    end

    it "copies from clip to clip, and to a carrier without matching" do
      clip_id = copy.regions.first.clip_id
      after = apply(two, "copy_moves", from_clip_id: "line", to_clip_id: clip_id).song
      expect(heard(after, "#{copy.id}/synth/cutoff", BAR + 700)).to eq heard(song, CUTOFF, BAR + 700)
      carrier = apply(two, "make_carrier", start_tick: 0, length_ticks: BAR).song
      id = carrier.clips.keys.last
      expect(apply(carrier, "copy_moves", from_clip_id: "line", to_clip_id: id).song.clip(id).envelopes.map { |one| one.target.to_s }).to eq [CUTOFF]
    end

    it "refuses places that are one, that are of two sorts, and where nothing matches" do
      expect(faults { apply(two, "copy_moves", from_track_id: "bass", to_track_id: "bass") }).to eq [["same_place", ""]]
      expect(faults { apply(two, "copy_moves", from_track_id: "bass", to_clip_id: "line") }).to eq [["bad_request", ""]]
      expect(faults { apply(two, "copy_moves", from_track_id: copy.id, to_track_id: "bass") }).to eq [["nothing_matches", ""]]
    end
  end

  describe "groups" do
    it "take tracks in right under the last of them, and can be moved" do
      after = apply(song, "make_group", track_ids: %w[bass lead], name: "Low").song
      group = after.tracks[2]
      expect([rows(after), group.name]).to eq [[["bass", group.id], ["lead", group.id], [group.id, "master"], %w[hall master], ["master", nil]], "Low"]
      lane = apply(after, "add_lane", address: "#{group.id}/filter/cutoff").song
      expect(lane.track(group.id).lanes.size).to eq 1
      sound!(lane)
    end

    it "take in what stood below, which comes up with its own members, and let it go again" do
      low = apply(song, "make_group", track_ids: ["bass"]).song
      second = apply(low, "make_group", track_ids: ["lead"]).song
      first, inner = second.tracks.select { |track| track.kind == "group" }.map(&:id)
      nested = apply(second, "set_output", track_ids: [inner], output: first).song
      expect(rows(nested).first(4)).to eq [["bass", first], ["lead", inner], [inner, first], [first, "master"]]
      sound!(nested)
      expect(rows(apply(nested, "set_output", track_ids: ["bass"], output: "master").song).first).to eq %w[bass master]
      expect(faults { apply(nested, "set_output", track_ids: [first], output: inner) }).to eq [["bad_output", "/output"]]
      expect(faults { apply(nested, "set_output", track_ids: ["bass"], output: "hall") }).to eq [["bad_output", "/output"]]
      expect(faults { apply(song, "make_group", track_ids: ["master"]) }).to eq [["bad_output", "/track_ids/0"]]
    end

    it "are taken away: their members sound on, what moved them waits and does nothing" do
      low = apply(song, "make_group", track_ids: ["bass"]).song
      carried = apply(low, "make_carrier", start_tick: 0, length_ticks: BAR).song
      group = carried.tracks.find { |track| track.kind == "group" }.id
      carried = apply(carried, "embed_envelope", clip_id: carried.clips.keys.last, address: "#{group}/filter/cutoff").song
      removed = apply(carried, "remove_track", track_id: group)
      gone = removed.song
      expect([gone.track("bass").output, gone.clip(gone.clips.keys.last).envelopes.size]).to eq ["master", 1]
      expect([removed.notices.map(&:code), gone.automated.map(&:owner_id).uniq - ["bass"]]).to eq [["loose"], []]
      expect(KindSatchel::Document.load(JSON.parse(json_of(gone)))).to eq gone
      sound!(gone)
    end
  end

  describe "listening" do
    it "silences what is muted with what sounds into it, and what is not soloed; returns and ways out stay" do
      group = apply(song, "make_group", track_ids: ["bass"]).song
      id = group.tracks[1].id
      heard = KindSatchel::Listening::ALL
      expect(heard.with_track(group, id, muted: true).silent(group)).to match_array ["bass", id]
      solo = heard.with_track(group, "bass", soloed: true)
      expect(solo.silent(group)).to eq ["lead"]
      expect(heard.with_track(group, id, soloed: true).silent(group)).to eq ["lead"]
      expect(solo.with_track(group, "bass", soloed: false)).to eq heard
    end

    it "knows what may be soloed, and that something is asked; a track that has gone silences nothing" do
      heard = KindSatchel::Listening::ALL
      expect(faults { heard.with_track(song, "hall", soloed: true) }).to eq [["no_solo", "/soloed"]]
      expect(faults { heard.with_track(song, "bass") }).to eq [["nothing_asked", ""]]
      expect { heard.with_track(song, "gone", muted: true) }.to raise_error KindSatchel::NotFound
      expect(KindSatchel::Listening.new(muted: [], soloed: ["gone"]).silent(song)).to eq []
    end

    it "is no part of the song: documents of older versions that hold it are read without it" do
      old = JSON.parse(json_of(song))
      old["tracks"].first.merge!("muted" => true, "soloed" => true)
      expect(KindSatchel::Document.load(old)).to eq song
    end
  end

  it "takes another name" do
    expect(apply(song, "rename_track", track_id: "bass", name: " Low end ").song.track("bass").name).to eq "Low end"
    expect(faults { apply(song, "rename_track", track_id: "bass", name: "  ") }).to eq [["bad_name", "/name"]]
  end
end
