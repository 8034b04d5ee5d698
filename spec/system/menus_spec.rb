# frozen_string_literal: true

# One table of what can be done: the menu of a right or long press, the bar beside the choice, the panel and the keys are drawn from it.
RSpec.describe "What can be done to a thing" do
  include Hands

  let(:id) { plant }
  let!(:song) { snapshot(id).song }
  let(:mooring) { song.clip("mooring").envelopes.first.id }
  let(:region) { song.track("rope-bass").regions.find { |one| one.clip_id == "mooring" } }

  def press_right(place) = mouse.move(x: place[0], y: place[1]).click(x: place[0], y: place[1], button: :right)
  def items = page.find_all("[role=menu] [role=menuitem]").to_h { |item| [item.text.lines.first.chomp, item] }
  def rows(now = snapshot(id).song) = now.track("rope-bass").regions

  it "is in the menu of a right press on a region, with the reason why where it cannot be done; Escape closes it" do
    open_song(id)
    press_right(name_row(region.id))
    expect(page).to have_css("[role=menu][aria-label='The chosen regions']")
    expect(page).to have_css(".region-chosen[data-testid='#{region.id}']")
    expect(items.keys).to include "Duplicate", "Copy", "Paste", "Split", "Join", "Crop", "Separate", "Mute", "Lay out", "Remove"
    expect(items["Paste"].text).to include "No region has been copied yet."
    expect(items["Paste"]["aria-disabled"]).to eq "true"
    press_keys(:Escape)
    expect(page).to have_no_css("[role=menu]")
    expect(snapshot(id).revision).to eq 1
    press_right(name_row(region.id))
    items["Mute"].click
    eventually(id) { |now| rows(now).find { |one| one.id == region.id }.muted }
  end

  it "is for a point under the hand: it is chosen, gets a shape, and a value that is typed" do
    open_song(id)
    points = -> { snapshot(id).song.directory.envelope(mooring).envelope.points }
    press_right(middle("point-#{mooring}-1"))
    expect(page).to have_css("[role=menu][aria-label='The chosen points or span']")
    items["Hold"].click
    eventually(id) { points.call[1].shape.is_a?(KindSatchel::Shapes::Hold) }
    press_right(middle("point-#{mooring}-1"))
    items["Type its value"].click
    expect(page).to have_css("input#exact-value:focus")
    press_keys("+25 %", :Enter)
    eventually(id) { (points.call[1].value - 0.25).abs < 1e-6 }
  end

  it "is for bars on the numbers of bars" do
    open_song(id)
    x, y = middle("ruler")
    press_right([[x, 900].min, y - 6])
    expect(page).to have_css("[role=menu][aria-label='Bars of the song']", text: "Take out bars")
    put = items.fetch("Put bars in")
    expect([put["aria-disabled"], put.text]).to match ["true", /no bars have been copied yet/]
    expect(items.fetch("Lane for the tempo").text).not_to include "copied"
    items["Mark this place"].click
    eventually(id) { |now| now.markers.size == song.markers.size + 1 }
  end

  it "is called the same in the bar beside the choice, in the panel and in the menu, by finger in words" do
    Capybara.current_driver = :phone
    page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
    open_song(id, size: :phone)
    tap(name_row(region.id, 20))
    bar = page.find(".choice-bar")
    common = bar.all("button").map(&:text)
    expect(common).to eq %w[Duplicate Split Join Mute more]
    tap(place_of(bar.find("button", text: "more")))
    expect(page).to have_css("[role=menu][aria-label='The chosen regions']")
    expect(items.keys).to include(*common[0..-2])
    press_keys(:Escape)
    expect(page).to have_no_css("[role=menu]")
    touch("touchStart", *name_row(region.id, 30))
    expect(page).to have_css("[role=menu][aria-label='The chosen regions']")
    touch("touchEnd")
    press_keys(:Escape)
    show_panel("Clip")
    panel = page.find(".sheet").all("button").map(&:text)
    expect(panel).to include(*common[0..-2])
  end
end
