# frozen_string_literal: true

RSpec.describe "Markers" do
  let(:song) { [[0, "Dawn"], [4 * BAR, "Stalls"], [8 * BAR, "Dusk"]].reduce(small_song) { |now, (tick, name)| apply(now, "add_marker", tick:, name:).song } }

  def places(some) = some.markers.map { |marker| [marker.tick / BAR.to_f, marker.name] }
  def id(name) = song.markers.find { |marker| marker.name == name }.id

  it "name places, in order; are moved, renamed and taken away; one to a place" do
    expect(places(song)).to eq [[0, "Dawn"], [4, "Stalls"], [8, "Dusk"]]
    expect(places(apply(song, "add_marker", tick: BAR).song)[1]).to eq [1, "Marker"]
    expect(places(apply(song, "add_marker", tick: 0, name: "Night").song)).to eq [[0, "Night"], [4, "Stalls"], [8, "Dusk"]]
    expect(places(apply(song, "set_marker", marker_id: id("Dusk"), tick: 2 * BAR).song)).to eq [[0, "Dawn"], [2, "Dusk"], [4, "Stalls"]]
    expect(places(apply(song, "set_marker", marker_id: id("Dusk"), tick: 4 * BAR).song)).to eq [[0, "Dawn"], [4, "Dusk"]]
    expect(places(apply(song, "set_marker", marker_id: id("Dusk"), name: "Tide").song).last).to eq [8, "Tide"]
    expect(places(apply(song, "remove_marker", marker_id: id("Stalls")).song)).to eq [[0, "Dawn"], [8, "Dusk"]]
    expect(KindSatchel::Document.load(JSON.parse(json_of(song)))).to eq song
  end

  it "go along with song time: deleted, opened, pasted" do
    expect(places(apply(song, "delete_time", from_tick: 2 * BAR, to_tick: 6 * BAR).song)).to eq [[0, "Dawn"], [4, "Dusk"]]
    expect(places(apply(song, "insert_time", tick: 4 * BAR, length_ticks: BAR).song)).to eq [[0, "Dawn"], [5, "Stalls"], [9, "Dusk"]]
    stretch = KindSatchel::Transfer::SongStretch.of(song, 3 * BAR, 5 * BAR)
    record = stretch.to_record
    expect(KindSatchel::Transfer::SongStretch.read(record)).to eq stretch
    pasted = apply(song, "paste_time", tick: 10 * BAR, stretch: record, over: true).song
    expect(places(pasted)).to eq [[0, "Dawn"], [4, "Stalls"], [8, "Dusk"], [11, "Stalls"]]
    inserted = apply(song, "paste_time", tick: 0, stretch: record).song
    expect(places(inserted)).to eq [[1, "Stalls"], [2, "Dawn"], [6, "Stalls"], [10, "Dusk"]]
  end

  it "say beforehand whose place they take" do
    expect(apply(song, "set_marker", marker_id: id("Dusk"), tick: 4 * BAR).notices.map(&:text)).to eq ["takes the place of the marker Stalls"]
    expect(apply(song, "set_marker", marker_id: id("Dusk"), tick: 5 * BAR).notices).to eq []
  end

  it "say what cannot be" do
    expect(faults { apply(song, "set_marker", marker_id: "gone", tick: 0) }).to eq [["unknown_marker", "/marker_id"]]
    expect(faults { apply(song, "set_marker", marker_id: id("Dusk")) }).to eq [["bad_request", ""]]
    expect(faults { apply(song, "set_marker", marker_id: id("Dusk"), name: " ") }).to eq [["bad_name", "/name"]]
    wrong = JSON.parse(json_of(song)).tap { |record| record["markers"].reverse! }
    expect(faults { KindSatchel::Document.load(wrong) }.map(&:first)).to eq ["unsorted"]
  end
end
