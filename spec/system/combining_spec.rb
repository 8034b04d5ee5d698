# frozen_string_literal: true

RSpec.describe "Clip and track together in the studio" do
  let(:id) { plant }
  let(:cutoff) { "rope-bass/synth/cutoff" }

  before { open_song(id) }

  def lane_of(song, text) = song.track(text.split("/").first).lanes.find { |lane| lane.target.to_s == text }
  def spots(bars) = bars.map { |bar| heard(snapshot(id).song, cutoff, ((bar - 1) * BAR) + 700) }

  # Turns a knob by the keyboard.
  def turn(text, *keys)
    show_knob(text)
    page.execute_script("document.querySelector('[data-testid=\"knob-#{text}\"] [role=slider]').focus()")
    press_keys(*keys)
  end

  it "takes a knob over at once, shows it, and hands it back; or all of them" do
    before = spots([1, 6, 20])
    turn(cutoff, :Up)
    eventually(id) { |song| song.held.map(&:to_s) == [cutoff] }
    expect(page).to have_css("[data-testid='held-#{cutoff}']", visible: :all)
    expect(spots([1, 6, 20]).uniq.size).to eq 1
    expect(page).to have_css("[data-testid='track-rope-bass'] header", text: /lane\s+waits/)
    at_hand("Value")
    expect(page).to have_css("[data-testid='sum']", text: "by hand at")
    click_on "Hand Cutoff back", match: :first
    eventually(id) { |song| song.held.empty? }
    expect(page).to have_no_text(/lane\s+waits/)
    expect(spots([1, 6, 20])).to eq before
    turn(cutoff, :Down)
    eventually(id) { |song| song.held.any? }
    click_on "Hand back all 1 held knobs"
    eventually(id) { |song| song.held.empty? }
  end

  it "tells the sum under the pointer, and each step leads to its envelope", :long do
    click_on "at the pointer"
    x = bar_x(9) + 30
    mouse.move(x:, y: middle("heard-#{cutoff}")[1])
    expect(page).to have_css("[data-testid='sum']", text: /heard at 9\.\d/)
    mouse.move(x: bar_x(6), y: middle("heard-#{cutoff}")[1])
    page.find("[data-testid='sum'] button", text: "lane").click
    expect(page).to have_css("[aria-label='Envelope'] h3", text: "lane of Rope Bass")
    page.find("[data-testid='sum'] button", text: "clip Mooring").click
    expect(page).to have_css("[aria-label='Envelope'] h3", text: "in Mooring")
    expect(page).to have_css("[data-testid='#{snapshot(id).song.track('rope-bass').regions.first.id}'][aria-pressed='true']")
  end

  it "lets the fader trim, and raises a whole lane by one drag", :long do
    show_panel("Track")
    within("[aria-label='Fader of Cutoff']") { click_on "fader trims" }
    eventually(id) { |song| lane_of(song, cutoff).fader == "trim" }
    expect(page).to have_text("lane + fader")
    before = spots([1, 20])
    turn(cutoff, :Up)
    eventually(id) { spots([1, 20]).zip(before).all? { |now, was| (now - was - 0.01).abs < 1e-9 } }
    expect(snapshot(id).song.held).to be_empty
    points = lane_of(snapshot(id).song, cutoff).points.map(&:value)
    drag(place_of(page.find_button("Raise or lower all of the lane of Cutoff")), 0, -25)
    song = eventually(id) { |now| lane_of(now, cutoff).points.map(&:value) != points }
    expect(lane_of(song, cutoff).points.map(&:value).zip(points).map { |now, was| (now - was).round(6) }.uniq).to eq [0.1]
  end

  it "shows a lane under the one in focus, pins it, and folds without losing it", :long do
    turn("rope-bass/channel/volume", :Up)
    click_on "Add a lane for Volume", match: :first
    eventually(id) { |song| lane_of(song, "rope-bass/channel/volume") }
    show_parameter("Rope Bass", "Cutoff")
    show_panel("Track")
    click_on "Show the lane of Volume"
    expect(page).to have_css("[data-testid='lane-rope-bass/channel/volume']")
    click_on "Hide the lane of Volume"
    expect(page).to have_no_css("[data-testid='lane-rope-bass/channel/volume']")
    click_on "Pin the lane of Volume"
    click_on "Fold Rope Bass"
    expect(page).to have_css("[data-testid='lane-rope-bass/channel/volume']")
    click_on "Unpin the lane of Volume"
    expect(page).to have_no_css("[data-testid='lane-rope-bass/channel/volume']")
    expect(snapshot(id).song.track("rope-bass").lanes.size).to eq 2
  end

  it "changes a role with the drawing kept" do
    move = snapshot(id).song.clip("mooring").envelopes.first
    at_hand("Envelope")
    page.select("the drawing", from: "What a change of role keeps")
    at_hand("Envelope")
    within("[aria-label='What it does']") { click_on "set" }
    song = eventually(id) { |now| now.clip("mooring").envelopes.first.role == "set" }
    expect(song.clip("mooring").envelopes.first.points.map { |point| point.value.round(9) }).to eq(move.points.map { |point|
      ((point.value / 2) + 0.5).round(9)
    })
  end

  it "makes a carrier clip that moves another track, shows the conflict, and settles it there", :long do
    at_hand("Envelope")
    within("[aria-label='What it does']") { click_on "set" }
    click_on "Go on"
    eventually(id) { |song| song.clip("mooring").envelopes.first.role == "set" }
    click_on "Bars"
    page.find("[role=menuitem]", text: "New carrier clip").click
    eventually(id) { |song| song.tracks.any? { |track| track.kind == "carrier" } }
    show_panel("Finder")
    page.find_by_id("finder").set("rope mono cutoff")
    page.find("button[aria-label^='Embed Cutoff']", match: :first).click
    eventually(id) { |song| song.clips.values.last.envelopes.any? }
    page.find("button[aria-label^='Two set this']", match: :first).click
    expect(page).to have_css("[aria-label='Two set this']", text: "Carrier is heard, Mooring is not")
    click_on "Let Carrier shift", match: :first
    song = eventually(id) { |now| KindSatchel::Checks::Conflicts.of(now, address(cutoff)).empty? }
    expect(song.clips.values.last.envelopes.first.role).to eq "shift"
    expect(page).to have_no_css("[aria-label='Two set this']")
  end

  it "packs a lane into the clips beneath once it is agreed that they are made separate, and undoes it in one step", :long do
    before, heard_before = json_of(snapshot(id).song), spots([5, 6, 9, 12, 20])
    show_panel("Track")
    click_on "Pack"
    expect(page).to have_css(".notice", text: "made separate first")
    expect(json_of(snapshot(id).song)).to eq before
    click_on "Go on"
    eventually(id) { |song| song.clips.size > JSON.parse(before)["clips"].size }
    expect(spots([5, 6, 9, 12, 20]).zip(heard_before).map { |now, was| (now - was).abs }.max).to be < 0.001
    expect(page).to have_css(".notice", text: /difference heard|nothing heard changes/)
    page.find("button[aria-label^='Undo: pack']").click
    eventually(id) { |song| json_of(song) == before }
  end
end
