# frozen_string_literal: true

# What a page keeps of a song for when the server is away.
RSpec.describe "A song kept for offline" do
  let(:id) { plant }
  let(:block) { 8 * 3840 }

  def copy(ticks = block) = get_json("/api/songs/#{id}/offline?block_ticks=#{ticks}")

  it "is what the server answers block by block, and track by track" do
    kept = copy
    length = snapshot(id).song.length_ticks
    expect(kept["stretches"].size).to eq length.fdiv(block).ceil
    kept["stretches"].each_with_index do |stretch, i|
      expect(stretch).to eq get_json("/api/songs/#{id}/playback?from_tick=#{i * block}&to_tick=#{(i + 1) * block}")
    end
    expect(kept["clock"]).to eq get_json("/api/songs/#{id}/clock")
    expect(kept["drawing"]).to eq get_json("/api/songs/#{id}/drawing?tracks=#{snapshot(id).song.tracks.map(&:id).join(',')}")
    moved = snapshot(id).song.automated | snapshot(id).song.sounded
    expect(kept["heard"]).to eq get_json("/api/songs/#{id}/heard?addresses=#{moved.join(',')}")
    expect(kept["revision"]).to eq revision(id)
  end

  it "comes the same out of a worker, where long songs are made" do
    here = copy
    stub_const("LongWork::LONG_BYTES", 1)
    expect(copy).to eq here
  end

  it "is refused in blocks too short or too many, or larger than a page keeps" do
    expect(copy(1)["faults"].first).to include("code" => "out_of_range", "path" => "/block_ticks")
    expect(copy("x")["faults"].first["path"]).to eq "/block_ticks"
    stub_const("OfflineCopy::LARGEST", 100_000)
    expect(copy["faults"].first).to include("code" => "too_large_to_keep", "message" => /comes to 1 MB; up to 1 MB is kept/)
  end
end
