# frozen_string_literal: true

# All channels side by side: moved by hand, moving as heard.
RSpec.describe "The mixer" do
  let(:id) { plant }

  def knob(text) = snapshot(id).song.then { |song| song.knob(KindSatchel::Address.parse(text)) }
  def place(address) = page.evaluate_script("document.querySelector('[data-testid=\"slide-#{address}\"] .slide-face').style.getPropertyValue('--at')")

  it "stands at the foot by a key, moves faders, pans and sends by hand and key, and is undone" do
    open_song(id)
    press_keys("y")
    expect(page).to have_css("[aria-label='Mixer'] section", count: snapshot(id).song.tracks.count { |track| track.kind != "carrier" })
    before = knob("rope-bass/channel/volume")
    drag(middle("slide-rope-bass/channel/volume"), 0, 30)
    eventually(id) { knob("rope-bass/channel/volume") < before - 0.1 }
    page.execute_script("document.querySelector('[data-testid=\"slide-rope-bass/channel/send-boathouse\"] [role=slider]').focus()")
    press_keys(:End)
    eventually(id) { knob("rope-bass/channel/send-boathouse") == 1.0 }
    page.execute_script("document.querySelector('[data-testid=\"slide-rope-bass/channel/pan\"] [role=slider]').focus()")
    press_keys(:Left)
    eventually(id) { knob("rope-bass/channel/pan") < 0.5 }
    press_keys([:control, "z"], [:control, "z"], [:control, "z"])
    eventually(id) { knob("rope-bass/channel/volume") == before }
  end

  it "adds a lane by the + of a fader, and moves every fader and meter as heard while it plays", :long do
    open_song(id)
    press_keys("y")
    within("[data-testid='slide-crate-kit/channel/volume']") { click_on "Add a lane for Volume" }
    eventually(id) { |song| song.track("crate-kit").lanes.any? { |lane| lane.target.to_s == "crate-kit/channel/volume" } }
    click_on "Play"
    expect(watch(-> { place("fog-pad/channel/volume") }, ->(seen) { seen.compact.uniq.size > 3 })).to be true
    level = -> { page.evaluate_script("document.querySelector('[aria-label=\"Level of Rope Bass\"]').style.backgroundSize") }
    expect(watch(level, ->(seen) { seen.compact.uniq.size > 3 })).to be true
    click_on "Stop"
  end

  it "is a sheet on the phone, swiped through by a finger" do
    open_song(id, size: :phone)
    page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
    show_panel("Mixer")
    expect(page).to have_css("[aria-label='Mixer'] section")
    before = knob("crate-kit/channel/volume")
    swipe(middle("slide-crate-kit/channel/volume"), 0, 24)
    eventually(id) { knob("crate-kit/channel/volume") < before }
    left = -> { page.evaluate_script("document.querySelector('.mixer').scrollLeft") }
    revision = snapshot(id).revision
    swipe([300, middle("slide-crate-kit/channel/volume")[1]], -160, 0)
    expect(watch(left, ->(seen) { seen.any? && seen.last.to_i > 60 })).to be true
    expect(snapshot(id).revision).to eq revision
    # What lies across is moved across, and swiped past upwards.
    send = "bell-buoy/channel/send-boathouse"
    was = knob(send)
    # A finger that comes down on something that still glides only stops it.
    expect(watch(left, ->(seen) { seen.size > 3 && seen.last(4).uniq.one? })).to be true
    page.execute_script("document.querySelector('[data-testid=\"slide-#{send}\"]').scrollIntoView({ behavior: 'instant', inline: 'center' })")
    swipe(middle("slide-#{send}"), -24, 0)
    eventually(id) { knob(send) < was - 0.1 }
    moved = snapshot(id).revision
    swipe(middle("slide-#{send}"), 0, -60)
    sleep 0.3
    expect(snapshot(id).revision).to eq moved
  end
end
