# frozen_string_literal: true

RSpec.describe KindSatchel::Document do
  let(:record) { JSON.parse(json_of(DemoSong.build)) }

  def load_faults(data) = faults { described_class.load(data) }

  it "reads back what it writes, byte for byte" do
    expect(json_of(described_class.load(record))).to eq json_of(DemoSong.build)
  end

  it "reports every broken rule at once, with its place" do
    record["clips"][0]["notes"][0]["length_ticks"] = 0
    record["tracks"][1]["lanes"][0]["points"].reverse!
    record["tracks"][1]["devices"][0]["values"]["cutoff"] = 3
    record["tracks"][1]["regions"][0]["start_tick"] = -5
    record["tracks"][2]["kind"] = "choir"
    found = load_faults(record)
    expect(found.uniq.reject { |code,| code == "unsorted" }).to contain_exactly(
      ["out_of_range", "/clips/0/notes/0/length_ticks"], ["out_of_range", "/tracks/1/devices/0/values/cutoff"],
      ["out_of_range", "/tracks/1/regions/0/start_tick"], ["unknown_kind", "/tracks/2/kind"]
    )
    expect(found).to include(["unsorted", "/tracks/1/lanes/0/points/1/tick"])
  end

  it "finds regions that overlap" do
    record["tracks"][1]["regions"][1]["start_tick"] -= 960
    expect(load_faults(record)).to eq [["overlap", "/tracks/1/regions/1/start_tick"]]
  end

  it "finds ids that name nothing, twice or wrongly" do
    record["tracks"][1]["regions"][0]["clip_id"] = "nothing"
    record["tracks"][2]["lanes"][0]["target"] = "gull-chop/player/backwards"
    record["tracks"][0]["output"] = "rope-bass"
    record["clips"][0]["envelopes"] = [record["tracks"][2]["lanes"][0].merge("target" => "fog-pad/channel/mute", "role" => "shift")]
    expect(load_faults(record)).to contain_exactly(
      ["unknown_clip", "/tracks/1/regions/0/clip_id"], ["not_automatable", "/tracks/2/lanes/0/target"],
      ["bad_output", "/tracks/0/output"], ["set_only", "/clips/0/envelopes/0/target"], ["duplicate_id", ""]
    )
  end

  it "counts new ids on past all that are there, whatever the document says" do
    record["next_id"] = 1
    song = described_class.load(record)
    made = apply(song, "add_lane", address: "bell-buoy/channel/pan").song
    expect([song.next_id, described_class.load(JSON.parse(json_of(made)))]).to eq [DemoSong.build.next_id, made]
  end

  it "wants one master, last" do
    record["tracks"].pop
    expect(load_faults(record)).to include(["no_master", "/tracks"])
  end
end

RSpec.describe KindSatchel::Parts do
  let(:song) { DemoSong.build }

  it "puts a song together from its parts" do
    expect(described_class.assemble(described_class.all(song))).to eq song
  end

  it "names only the parts that changed" do
    after = apply(song, "move_points", envelope_id: song.clip("mooring").envelopes[0].id, points: [{ "index" => 1, "tick" => 4000, "value" => 0.1 }]).song
    expect(described_class.between(song, after).keys).to eq [["envelope", song.clip("mooring").envelopes[0].id]]
    expect(described_class.between(song, song)).to eq({})
  end

  it "takes whole tracks and clips away and brings them back in their place" do
    smaller = song.with(tracks: song.tracks.reject { |track| track.id == "fog-pad" }, clips: song.clips.except("fog"))
    patch = described_class.between(song, smaller)
    expect(described_class.apply(song, patch, 1)).to eq smaller
    expect(json_of(described_class.apply(smaller, patch, 0))).to eq json_of(song)
  end

  it "follows a track to another place" do
    turned = song.with(tracks: [*song.tracks[0..3].rotate, *song.tracks[4..]])
    patch = described_class.between(song, turned)
    expect([described_class.apply(song, patch, 1), described_class.apply(turned, patch, 0)]).to eq [turned, song]
  end
end
