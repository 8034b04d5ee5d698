# frozen_string_literal: true

RSpec.describe "Mappings of controllers" do
  let(:id) { plant }
  let(:mapping) do
    { "device" => "Eight", "control" => "cc/0/74", "target" => { "address" => "rope-bass/synth/cutoff" },
      "kind" => "absolute", "pickup" => "scaled", "low" => 0.2, "high" => 1 }
  end

  def keep(lists) = post_json("/api/songs/#{id}/mappings", lists)
  def faults(answer) = answer["faults"].map { |fault| fault["path"] }

  it "are kept for one song, or for all of them; those of a song go with it" do
    other = plant
    everywhere = mapping.merge("target" => { "slot" => 3 })
    expect(keep("song" => [mapping], "all" => [everywhere])).to eq("song" => [mapping], "all" => [everywhere])
    expect(get_json("/api/songs/#{other}/mappings")).to eq("song" => [], "all" => [everywhere])
    keep("all" => [])
    expect(get_json("/api/songs/#{id}/mappings")).to eq("song" => [mapping], "all" => [])
    Server.shelf.remove(id)
    Server.shelf.empty_bin([id])
    expect(MappingRow.where(song_id: id).count).to eq 0
  end

  it "say what is wrong with them, and nothing is stored" do
    wrong = [mapping.merge("control" => "cc/16/1"), mapping.merge("target" => {}), mapping.merge("low" => 2), mapping.merge("pickup" => "soft")]
    expect(faults(keep("song" => wrong))).to include("/song/0/control", "/song/1/target", "/song/2/low", "/song/3/pickup")
    expect(faults(keep("song" => [mapping.merge("target" => { "address" => "nowhere" })]))).to eq ["/song/0/target/address"]
    expect(get_json("/api/songs/#{id}/mappings")["song"]).to eq []
  end
end
