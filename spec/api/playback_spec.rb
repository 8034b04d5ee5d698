# frozen_string_literal: true

# What the sound engine is told of a song.
RSpec.describe "What plays", :app do
  let(:id) { plant(song) }
  let(:song) do
    sweep = envelope([0, 0.0], [BAR, 1.0], target: "bass/macro-strip/macro-1")
    made = apply(small_song(clip: [sweep]), "add_device", track_id: "bass", type: "macro-strip").song
    apply(made, "set_drive", macro: "bass/macro-strip/macro-1", target: CUTOFF, low: 0.2, high: 0.8).song
  end

  def ramps = get_json("/api/songs/#{id}/playback?from_tick=#{BAR}&to_tick=#{2 * BAR}")["ramps"]

  it "holds what macros drive, and neither macros nor settings of moves, which make no sound" do
    cutoff = song.parameter(address(CUTOFF)).scale
    expect(ramps.keys).to eq [CUTOFF]
    seconds, values = ramps[CUTOFF].each_slice(2).to_a.transpose
    expect([seconds.first, seconds.last]).to eq [2.0, 4.0]
    expect(values.values_at(0, -1)).to match [be_within(1).of(cutoff.engine(0.2)), be_within(20).of(cutoff.engine(0.8))]
  end

  it "is sent along while a macro is turned" do
    inputs = { address: "bass/macro-strip/macro-1", value: 0.5 }
    answer = post_json("/api/songs/#{id}/preview", revision: revision(id), edit: "set_knob", inputs:, heard: [CUTOFF],
                                                   sound: { from_tick: 0, to_tick: BAR })
    expect(answer.dig("sound", "ramps").keys).to eq [CUTOFF]
  end
end
