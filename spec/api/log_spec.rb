# frozen_string_literal: true

RSpec.describe "The log of edits" do
  it "costs what changed: one moved note or point is not all of them" do
    notes = Array.new(5000) { |i| KindSatchel::Note.new(tick: i % 3840, length_ticks: 10, pitch: 40, velocity: 90) }
    many = small_song(clip: [envelope(*Array.new(2000) { |i| [i, 0.5] })])
    id = plant(many.with_clip(many.clip("line").with(notes:)))
    edit(id, "shift_points", { envelope_id: "e1", runs: [[1000, 1000]], ticks: 0, value: 0.1 })
    moved = snapshot(id).song
    changed = moved.with_clip(moved.clip("line").with(notes: notes.dup.tap { |list| list[2500] = list[2500].with(pitch: 41) }))
    patch = KindSatchel::Parts.between(moved, changed)
    delta = JSON.parse(JSON.generate(KindSatchel::Deltas.compact(patch)))
    expect([EditRow.find_by(song_id: id).patch.bytesize, JSON.generate(delta).bytesize]).to all be < 1000
    expect(json_of(KindSatchel::Parts.apply(changed, KindSatchel::Deltas.expand(delta, changed, 0), 0))).to eq json_of(moved)
    expect(json_of(KindSatchel::Parts.apply(moved, KindSatchel::Deltas.expand(delta, moved, 1), 1))).to eq json_of(changed)
    post_json("/api/songs/#{id}/undo", { revision: revision(id) })
    expect(json_of(snapshot(id).song)).to eq json_of(moved.with_clip(moved.clip("line").with(envelopes: many.clip("line").envelopes)))
  end
end
