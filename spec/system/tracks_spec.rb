# frozen_string_literal: true

RSpec.describe "Tracks and song time in the studio" do
  let(:id) { plant }

  before do
    open_song(id)
    show_panel("Track")
  end

  def track(text) = snapshot(id).song.tracks.find { |one| one.id == text }
  def names = snapshot(id).song.tracks.map(&:name)

  it "asks whether a duplicate takes the moves along, and shows what each choice brings" do
    click_on "Duplicate this track"
    expect(page).to have_text("6 regions, 1 lane and 3 clip moves come along")
    click_on "Without its moves"
    song = eventually(id) { names[2] == "Rope Bass 2" }
    copy = song.tracks[2]
    expect(copy.lanes + copy.regions.flat_map { |region| song.clip(region.clip_id).envelopes }).to be_empty
    expect(page).to have_css("[data-testid='track-#{copy.id}']")
    page.select("Rope Bass 2", from: "Copy the lanes of Rope Bass to")
    expect(page).to have_css("[aria-label='What matches']", text: "Rope Bass 2: Cutoff")
    click_on "Copy 1 of 1 move"
    eventually(id) { |now| now.track(copy.id).lanes.size == 1 }
  end

  it "plays on through a duplicate, a group, a mute and a solo", :long do
    click_on "Play"
    expect(sounds?).to be true
    page.select("a new group", from: "Sounds into")
    eventually(id) { names.include?("Group") }
    expect(sounds?).to be true
    within("[aria-label='Listening']") { click_on "Solo" }
    eventually(id) { |song| silent(song).include?("fog-pad") }
    expect(page).to have_css("[data-testid='track-fog-pad']", text: "not heard")
    within("[aria-label='Listening']") { click_on "Mute" }
    eventually(id) { |song| silent(song).include?("rope-bass") }
    expect(falls_silent?).to be true
    click_on "Stop"
  end

  it "renames a track, and says what is wrong with a group in a ring" do
    type_into "Name of the track", "Low rope"
    eventually(id) { track("rope-bass").name == "Low rope" }
    page.find("[data-testid='track-deck'] button", text: "Deck").click
    page.select("a new group", from: "Sounds into")
    eventually(id) { names.include?("Group") }
    page.find("[data-testid='track-#{snapshot(id).song.tracks.find { |one| one.name == 'Group' }.id}'] button", text: "Group").click
    page.select("Deck (group)", from: "Sounds into")
    expect(page).to have_css("[role=alert]", text: "would be a ring")
  end

  it "takes bars out, puts them in and opens bars", :long do
    before = json_of(snapshot(id).song)
    length = snapshot(id).song.length_ticks
    act = lambda do |words|
      click_on "Bars"
      page.find("[role=menuitem]", text: words).click
    end
    act.call("Take out bars")
    eventually(id) { |song| song.length_ticks == length - (8 * BAR) }
    press_ruler(bar_x(5) + 1)
    act.call("Put bars in")
    song = eventually(id) { |now| now.length_ticks == length }
    (0..length).step(7777) { |tick| expect(heard(song, "rope-bass/synth/cutoff", tick)).to be_within(1e-6).of(heard(KindSatchel::Document.load(JSON.parse(before)), "rope-bass/synth/cutoff", tick)) }
    act.call("Open bars")
    eventually(id) { |now| now.length_ticks == length + (8 * BAR) }
    4.times { press_keys([:control, "z"]) }
    eventually(id) { |now| json_of(now) == before }
  end

  it "marks places, goes to them by key and repeats between them", :long do
    act = lambda do |words|
      click_on "Bars"
      page.find("[role=menuitem]", text: words).click
    end
    [6, 9].each do |bar|
      press_ruler(bar_x(bar) + 1)
      act.call("Mark this place")
      eventually(id) { |now| now.markers.any? { |marker| marker.tick == (bar - 1) * BAR } }
    end
    press_ruler(bar_x(7) + 1)
    act.call("Repeat between markers")
    eventually(id) { |now| now.range.on && [now.range.start_tick, now.range.end_tick] == [5 * BAR, 8 * BAR] }
    press_keys(",")
    act.call("Mark this place")
    expect(snapshot(id).song.markers.map(&:tick).uniq).to eq [5 * BAR, 8 * BAR]
  end
end
