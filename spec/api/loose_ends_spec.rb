# frozen_string_literal: true

# What points elsewhere, or at nothing, is kept and does nothing; everything else goes on.
RSpec.describe "Envelopes that reach nothing" do
  lost = "bass/synth/nose"
  far = "hall/reverb/mix"
  let(:song) do
    small_song(clip: [envelope([0, 0.9]), envelope([0, 0.8], id: "e2", target: lost), envelope([0, 0.7], id: "e3", target: far)],
               lanes: [envelope([0, 0.6], id: "l1", target: lost)])
  end
  let(:id) { plant(song) }

  it "are kept in documents and rows, and change nothing that is heard" do
    expect(KindSatchel::Document.load(JSON.parse(json_of(song)))).to eq song
    expect([heard(song, CUTOFF, BAR), heard(song, far, BAR)]).to eq [0.9, song.knob(address(far))]
    Server.open_songs.forget(id)
    expect(snapshot(id).song).to eq song
  end

  it "stop neither what is drawn, heard nor played" do
    paths = ["", "/clock", "/values?addresses=#{CUTOFF},#{lost}&tick=0",
             "/drawing?tracks=bass,hall", "/heard?addresses=#{CUTOFF},#{far},#{lost}", "/playback?from_tick=0&to_tick=#{8 * BAR}", "/export",
             "/stretch?from_tick=0&to_tick=#{BAR}", "/track_counts?track_id=bass"]
    expect(paths.map { |path| get_json("/api/songs/#{id}#{path}") && last_response.status }).to all eq 200
    expect(get_json("/api/songs/#{id}/playback?from_tick=0&to_tick=#{8 * BAR}")["ramps"].keys).to match_array [CUTOFF, far]
  end

  it "can be moved, drawn on, switched and taken away, by name" do
    edits = [["move_regions", { region_ids: [song.track("bass").regions.first.id], ticks: 20 * BAR }],
             ["add_point", { envelope_id: "e2", tick: 480, value: 0.1 }],
             ["switch_envelope", { envelope_id: "l1", on: false }], ["duplicate_track", { track_id: "bass", moves: true }], ["lay_out", { track_id: "bass" }],
             ["remove_envelope", { envelope_id: "e2" }]]
    answers = edits.map { |name, inputs| edit(id, name, inputs, heard: [CUTOFF]) }
    expect(answers.map { |answer| answer["faults"] }).to all be_nil
    expect(answers.last["words"]).to eq "remove the Nose (missing) envelope from Line"
    edits.size.times { post_json("/api/songs/#{id}/undo", { revision: revision(id) }) }
    expect(json_of(snapshot(id).song)).to eq json_of(song)
  end

  it "stay what they are when a clip loses its last note: a clip of notes is no carrier" do
    bare = song.with_clip(song.clip("line").with(notes: []))
    expect([bare.clip("line").kind, heard(bare, far, BAR)]).to eq ["notes", bare.knob(address(far))]
    again = KindSatchel::Document.load(JSON.parse(json_of(bare)))
    expect(again.clip("line").kind).to eq "notes"
    expect(faults { apply(bare, "embed_envelope", clip_id: "line", address: "hall/channel/volume") }).to eq [["out_of_reach", "/address"]]
  end
end
