# frozen_string_literal: true

# The upper corners of a region drag inwards: a fade of that length.
RSpec.describe "Fades of a region" do
  include Hands

  let(:id) { plant }
  let(:volume) { "fog-pad/channel/volume" }
  let!(:region) { snapshot(id).song.directory.region("region-22").region }

  def level(tick, song = snapshot(id).song)
    address = KindSatchel::Address.parse(volume)
    song.parameter(address).scale.engine(KindSatchel::Heard::Resolver.new(song, address).at(tick))
  end

  def clip_name = snapshot(id).song.then { |song| song.clip(song.directory.region("region-22").region.clip_id).name }

  it "begin at a corner and go as far as the hand, in a clip of its own; undone as one" do
    open_song(id)
    before = snapshot(id).song
    px_per_bar = page.evaluate_script("document.querySelector(\"[data-testid='region-22']\").getBoundingClientRect().width") / 4
    drag(middle("fade-out-of-region-22"), -(px_per_bar * 2).round, 6)
    eventually(id) { |song| level(region.end_tick - 10, song) < 0.01 }
    expect(page).to have_text("Fog 2: fade out over")
    expect(page).to have_text("7 other regions keep Fog")
    start = region.end_tick - (2 * BAR)
    expect(level(start - 480)).to be_within(1e-6).of(level(start - 480, before))
    expect(level(start + BAR)).to be < level(start + BAR, before) / 2
    other = snapshot(id).song.directory.region("region-23").region
    expect(level(other.end_tick - 10)).to eq level(other.end_tick - 10, before)
    page.driver.browser.keyboard.type([:Ctrl, "z"])
    eventually(id) { |song| song.clips.keys == before.clips.keys }
  end

  it "are dragged by a finger once the region is chosen; before that a drag there scrolls", :long do
    open_song(id, size: :phone)
    feel_for(:finger)
    swipe(middle("fade-in-of-region-2"), 60, 4)
    sleep 0.5
    tap(name_row("region-2"))
    expect(page).to have_css("[data-testid='region-2'][aria-pressed='true']")
    expect(snapshot(id).undo).to be_nil
    swipe(middle("fade-in-of-region-2"), 60, 4)
    expect(page).to have_text("fade in over")
    song = snapshot(id).song
    faded = song.clip(song.directory.region("region-2").region.clip_id)
    expect([faded.name, faded.envelopes.find { |one| one.role == "scale" }.points[0].value]).to eq ["Crates 2", 0.0]
  end

  it "are shown while the hand drags, dropped by Escape, and come from the menu too" do
    open_song(id)
    mouse.move(x: (place = middle("fade-in-of-region-22"))[0], y: place[1])
    mouse.down
    20.times { |i| mouse.move(x: place[0] + (i * 4), y: place[1] + 3) }
    expect(page).to have_css(".region-fading")
    expect(page).to have_text("fade in up to")
    expect(page).to have_css("[data-testid='at-hand']")
    page.driver.browser.keyboard.type(:Escape)
    expect(page).to have_no_css(".region-fading")
    mouse.up
    expect(clip_name).to eq "Fog"
    x, y = middle("region-22")
    mouse.click(x:, y:, button: :right)
    page.find("[role=menuitem]", text: "Fade out").click
    eventually(id) { clip_name == "Fog 2" }
    expect(level(region.end_tick - BAR + 1900)).to be < level(region.end_tick - BAR) / 4
  end
end
