# frozen_string_literal: true

# Names as they read: the characters of direction and the controls are those of the Unicode Standard (Annex 9, and chapter 23).
RSpec.describe KindSatchel::PlainText do
  it "is one line without controls and without what turns writing around, other scripts and signs untouched" do
    said = { "Low\u0000 Tide" => "Low Tide", "a\r\n\tb" => "a b", "gpj.\u202Eexe" => "gpj.exe", "\u2066x\u2069" => "x", "a\u2028b" => "a b",
             "\e[31mred" => "[31mred",
             "שלום" => "שלום", "emoji 👩‍👩‍👧" => "emoji 👩‍👩‍👧", "déjà" => "déjà" }
    expect(said.keys.map { |text| described_class.line(text) }).to eq said.values
    expect([described_class.line(nil), described_class.line(5)]).to eq [nil, 5]
  end

  it "are the names of songs, tracks, clips and markers, wherever they come from" do
    odd = "Tide\u202E\n\u0007"
    song = small_song.with(name: odd)
    song = song.with_track(song.track("bass").with(name: odd)).with_clip(song.clips.each_value.first.with(name: odd))
    record = JSON.parse(json_of(song)).tap { |data| data["markers"] = [{ "id" => "m1", "tick" => 0, "name" => odd }] }
    read = KindSatchel::Document.load(record)
    expect([song.name, song.track("bass").name, song.clips.each_value.first.name, read.markers[0].name].uniq).to eq ["Tide "].uniq
    expect(apply(song, "rename_song", name: odd).song.name).to eq "Tide "
  end
end
