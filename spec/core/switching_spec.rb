# frozen_string_literal: true

# Envelopes that are switched off and on together.
RSpec.describe "Switching envelopes" do
  let(:song) { DemoSong.build }
  let(:ids) { song.directory.envelopes.values.map(&:envelope).select { |one| one.target.to_s == "rope-bass/synth/cutoff" }.map(&:id) }

  def switch(song, ids, on) = KindSatchel::Edits.apply(song, "switch_envelopes", { envelope_ids: ids, on: })
  def on(song) = song.directory.envelopes.values.map(&:envelope).select(&:on).map(&:id)
  def heard(song) = KindSatchel::Heard::Resolver.new(song, address("rope-bass/synth/cutoff")).at(5 * 3840)

  it "is one step: what they moved rests at its knob, all else goes on, and comes back as it was" do
    off = switch(song, ids, false)
    expect(off.words).to eq "switch all that moves Cutoff off"
    expect(on(off.song)).to match_array on(song) - ids
    expect(heard(off.song)).to eq song.knob(address("rope-bass/synth/cutoff"))
    back = switch(off.song, ids, true)
    expect([back.words, back.song]).to eq ["switch all that moves Cutoff on", song]
  end

  it "counts moves of several parameters, and takes each once" do
    all = on(song)
    off = switch(song, all + all.first(1), false)
    expect([off.words, on(off.song)]).to eq ["switch #{all.size} moves off", []]
  end

  it "takes several away as one step, what moves their settings with them, and none where one is not there" do
    take = ->(some, list) { KindSatchel::Edits.apply(some, "remove_envelopes", { envelope_ids: list }) }
    laned = KindSatchel::Edits.apply(song, "add_lane", { address: "move/#{ids.first}/depth" }).song
    lane = laned.tracks.flat_map(&:lanes).find { |one| one.target.setting? }.id
    gone = take.call(laned, [ids.first, lane])
    expect(gone.words).to eq "remove 2 moves of Rope Bass"
    expect(gone.song.directory.envelopes.keys).to match_array song.directory.envelopes.keys - [ids.first]
    bells = song.clip("bells").envelopes.map(&:id)
    expect([take.call(song, bells).words, take.call(song, bells).song.clip("bells").envelopes]).to eq ["remove 2 moves of Bells", []]
    expect(faults { take.call(song, [bells.first, "none"]) }.map(&:last)).to eq ["/envelope_ids/1/envelope_id"]
  end

  it "switches none where one cannot be, and says which" do
    clip = song.clip("mooring")
    twin = clip.envelopes.find { |one| ids.include?(one.id) }.with(id: "twin", on: false)
    twice = song.with_clip(clip.with(envelopes: [*clip.envelopes, twin]))
    expect(faults { switch(twice, [ids.last, "twin"], true) }).to eq [["second_of_role", "/envelope_ids/1/on"]]
    expect(faults { switch(twice, [ids.last, "none"], false) }.map(&:last)).to eq ["/envelope_ids/1/envelope_id"]
  end
end
