# frozen_string_literal: true

# Material carried from one song into another.
RSpec.describe "Taking in from another song" do
  let(:demo) { DemoSong.build }
  let(:song) { small_song }

  def document(some) = JSON.parse(json_of(some))
  def sound!(some) = expect(KindSatchel::Document.load(document(some))).to(eq some)
  def take(into, from, ids, track: "bass", at: 0) = apply(into, "take_regions", document: document(from), region_ids: ids, track_id: track, start_tick: at)
  def first_region(some, track) = some.track(track).regions.first

  it "places a clip with its moves on a track of the same instrument, which then is heard as it was" do
    region = first_region(demo, "rope-bass")
    small = KindSatchel::Transfer::Extract.regions(demo, [region.id])
    made = take(song, small, [region.id], at: 8 * BAR)
    placed = made.song.track("bass").regions.last
    clip = made.song.clip(placed.clip_id)
    expect([made.words, clip.name, placed.start_tick]).to eq ["take Mooring over from Low Tide Market", "Mooring", 8 * BAR]
    expect(clip.notes).to eq demo.clip("mooring").notes
    expect(made.song.tracks.map(&:id)).to eq song.tracks.map(&:id)
    moves = ->(some) { some.envelopes.select(&:on).map { |one| [one.target.to_s.split("/", 2).last, one.points, one.role, one.clock] } }
    expect(moves.call(clip)).to eq(moves.call(demo.clip("mooring")).select { |name, *| name.start_with?("synth/", "channel/volume") })
    expect(moves.call(clip)).not_to be_empty
    sound!(made.song)
  end

  it "takes from the extract what it would take from the whole song" do
    ids = demo.track("rope-bass").regions.first(3).map(&:id)
    small = KindSatchel::Transfer::Extract.regions(demo, ids)
    sound!(small)
    expect([small.clips.keys, small.tracks.map(&:kind).uniq]).to eq [demo.track("rope-bass").regions.first(3).map(&:clip_id).uniq, %w[notes return master]]
    expect(json_of(take(song, small, ids).song)).to eq json_of(take(song, demo, ids).song)
  end

  it "keeps the distances of several regions and the clips they share, over what lies there" do
    ids = demo.track("rope-bass").regions.first(2).map(&:id)
    made = take(song, demo, ids, at: BAR)
    old = demo.track("rope-bass").regions.first(2)
    now = made.song.track("bass").regions.first(2)
    expect([now[0].start_tick, now[1].start_tick - now[0].start_tick]).to eq [BAR, old[1].start_tick - old[0].start_tick]
    expect(now.map(&:clip_id).uniq.size).to eq old.map(&:clip_id).uniq.size
    expect(made.notices.map(&:code)).to include "cut"
  end

  it "switches off what has no place, and says so; a sound goes along by its name" do
    writer = SongWriter.new(name: "Loops", bpm: 100, range: [0, BAR])
    writer.track "loops", "Loops", "audio", "weld", devices: { "player" => ["loop-player", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    region = first_region(demo, "gull-chop")
    made = take(writer.song, demo, [region.id], track: "loops")
    clip = made.song.clip(made.song.track("loops").regions.first.clip_id)
    expect(clip.audio).to eq demo.clip(region.clip_id).audio
    sends = clip.envelopes.select { |one| one.target.parameter_id.start_with?("send-") }
    expect([sends.map(&:on).uniq, made.notices.map(&:code)]).to eq [[false], ["lost"]]
    expect(made.notices.first.text).to include "Echo Pier"
    sound!(made.song)
  end

  it "takes whole tracks in with lanes, sends by the name of the return, and all of it heard as it was" do
    made = apply(demo, "take_tracks", document: document(demo), start_tick: 32 * BAR, track_ids: %w[rope-bass gull-chop])
    song = made.song
    bass = song.tracks.find { |track| track.name == "Rope Bass 2" }
    expect([made.words, made.notices]).to eq ["take in 2 tracks of Low Tide Market", []]
    [0, BAR, (7 * BAR) + 333, 20 * BAR].each do |tick|
      %w[synth/cutoff synth/resonance channel/volume channel/send-boathouse].each do |parameter|
        expect(heard(song, "#{bass.id}/#{parameter}", tick + (32 * BAR))).to be_within(1e-9).of(heard(demo, "rope-bass/#{parameter}", tick))
      end
    end
    expect(demo.tracks - song.tracks).to be_empty
    sound!(song)
  end

  it "says what cannot be" do
    region = first_region(demo, "gull-chop")
    expect(faults { take(song, demo, [region.id]) }).to eq [["wrong_kind", "/track_id"]]
    expect(faults { take(song, demo, [region.id], track: "hall") }).to eq [["no_regions_here", "/track_id"]]
    expect(faults { take(song, demo, ["gone"]) }.map(&:last)).to eq ["/region_ids/0"]
    expect(faults { take(song, demo, [first_region(demo, "rope-bass").id, first_region(demo, "fog-pad").id]) }).to eq [["no_track", "/track_id"]]
    expect(faults { apply(song, "take_tracks", document: document(demo), track_ids: ["master"]) }).to eq [["no_regions_here", "/track_ids"]]
    broken = document(demo).tap { |record| record["tracks"].first["kind"] = "flute" }
    expect(faults { apply(song, "take_tracks", document: broken) }).to eq [["unknown_kind", "/document/tracks/0/kind"]]
  end
end
