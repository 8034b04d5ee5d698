# frozen_string_literal: true

RSpec.describe "Finding and showing" do
  let(:id) { plant }
  # Every parameter there is.
  # Those of the largest device.
  let(:many) { KindSatchel::Devices::TYPES.fetch("partial-bank").parameters.size }
  let(:parameters) { snapshot(id).song.then { |now| now.chains.flat_map { |owner| now.parameters_of(owner).map { |_, parameter| parameter.name } } } }
  # The tempo of the song is one too.
  let(:parameter_count) { parameters.size + 1 }
  let(:move_id) { snapshot(id).song.clip("mooring").envelopes.first.id }

  before { open_song(id) }

  def tab(name) = show_panel(name)
  def found = page.has_css?("[data-testid^='found-']") && told("[data-testid^='found-']", "data-testid").map { |id| id.delete_prefix("found-") }
  def search(words) = page.find_field("Find a parameter").set(words)
  def scale = page.evaluate_script("document.querySelector('[data-testid=\"range\"]').getBoundingClientRect().width") / (8.0 * BAR)

  it "finds by parts of names, in turn: touched lately, automated, the rest; and says where each is automated", :long do
    focus("knob-deck/filter/cutoff") if page.has_css?("[data-testid='knob-deck/filter/cutoff']", wait: 0)
    tab "Finder"
    search("cutoff")
    expect(page).to have_text("#{parameters.grep(/cutoff/i).size} of #{parameter_count} parameters")
    expect(found.first).to eq "rope-bass/synth/cutoff"
    expect(page.find("[data-testid='found-rope-bass/synth/cutoff']")).to have_text("clip + lane")
    expect(found.index("fog-pad/filter/cutoff")).to be > found.index("master/filter/cutoff")
    page.find("[data-testid='found-deck/filter/cutoff']").click
    expect(page).to have_css("[data-testid='lane-deck']")
    expect(found.first).to eq "deck/filter/cutoff"
  end

  it "filters by track, by clip and by what is automated", :long do
    tab "Finder"
    within("[aria-label='Finder']") { click_on "automated" }
    song = snapshot(id).song
    expect(page).to have_text("#{(song.automated | song.sounded).size} of #{parameter_count} parameters")
    within("[aria-label='Finder']") { click_on "on this track" }
    expect(page).to have_text("#{song.parameters_of(song.track('rope-bass')).size} of #{parameter_count} parameters")
    focus(song.track("rope-bass").regions.first.id)
    press_keys(:Enter)
    within("[aria-label='Finder']") { click_on "in this clip" }
    expect(found).to eq ["rope-bass/synth/cutoff"]
  end

  it "says why a parameter cannot be automated, and what to do when nothing is found" do
    tab "Finder"
    search("gull chop backwards")
    expect(page).to have_text("Cannot be automated: a loop is turned round as a whole")
    expect(page).to have_no_button("Add a lane for Backwards")
    search("nonsense")
    expect(page).to have_text("Nothing is called that here")
  end

  it "shows only some of a very large device's knobs, and draws only the rows in view" do
    click_on "Bell Buoy"
    expect(page).to have_button("find among #{many}")
    click_on "find among #{many}"
    expect(page).to have_css("#finder:focus")
    search("partial")
    expect(page).to have_text("#{many} of #{parameter_count} parameters")
    expect(page.find_all("[data-testid^='found-']").size).to be < 40
  end

  it "zooms by keys and fits the range into view; the grid may follow" do
    before = scale
    press_keys("+")
    expect(scale).to be > before * 1.2
    press_keys("-")
    expect(scale).to be_within(before * 0.02).of(before)
    press_keys("w")
    expect(scale * 8 * BAR).to be_between(600, 900)
    page.find_field("Grid").select("with the zoom")
    drag(middle("point-#{move_id}-1"), 30, 0)
    eventually(id) { |song| points_of(song, move_id)[1].tick != 4800 && (points_of(song, move_id)[1].tick % 240).zero? }
  end

  it "shows an envelope that is off on its line and on its knob, and clears one" do
    mouse.click(x: middle("point-#{move_id}-1")[0], y: middle("point-#{move_id}-1")[1])
    at_hand "Points"
    within("[data-testid='edit']") { click_on "Switch off" }
    eventually(id) { |song| !song.clip("mooring").envelopes.first.on }
    expect(page).to have_css(".off-line [data-testid='point-#{move_id}-1']", visible: :all)
    within("[data-testid='edit']") { click_on "Clear" }
    eventually(id) { |song| points_of(song, move_id).empty? }
    within(".notice") { click_on "Undo" }
    eventually(id) { |song| points_of(song, move_id).size == 4 }
  end

  it "pastes at the pointer, and ignores the grid for a drag with Alt" do
    focus("point-#{move_id}-0")
    press_keys([:control, "a"])
    press_keys([:control, "c"])
    expect(page).to have_text("4 points copied")
    lane = snapshot(id).song.track("rope-bass").lanes.first.id
    x, y = bar_x(10), middle("lane-rope-bass")[1] + 25
    mouse.move(x:, y:)
    mouse.move(x: x + 1, y:)
    press_keys([:control, :shift, "v"])
    song = eventually(id) { |now| points_of(now, lane).size > 8 }
    expect(points_of(song, lane).map(&:value)).to include(be_within(1e-9).of(0.71))
  end
end
