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
    expect([put["aria-disabled"], put.text]).to match ["true", /No bars have been copied yet/]
    expect(items.fetch("Lane for the tempo").text).not_to include "copied"
    items["Mark this place"].click
    eventually(id) { |now| now.markers.size == song.markers.size + 1 }
  end

  it "is called the same in the bar beside the choice, in the panel and in the menu, by finger in words", :long do
    Capybara.current_driver = :phone
    page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
    open_song(id, size: :phone)
    tap(name_row(region.id, 20))
    bar = page.find(".choice-bar")
    common = bar.all("button").map(&:text)
    expect(common).to eq %w[Duplicate Split Join Separate Mute more]
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

  # What the list of keys says: by group, the words of each command and its key.
  def key_list
    page.evaluate_script(<<~JS)
      Object.fromEntries([...document.querySelectorAll("[role=dialog] section")].map((group) => [
        group.querySelector("h3").textContent,
        [...group.querySelectorAll("p")].map((row) => [row.querySelector("span")?.firstChild.textContent.trim(), row.querySelector("button, kbd")?.textContent]),
      ]))
    JS
  end

  it "is told with its key in the list of keys, once in each place; the menu tells the same, and the finder finds it" do
    open_song(id)
    press_keys("?")
    expect(page).to have_css("[role=dialog] h3", text: "Regions")
    groups = key_list.except("Everywhere")
    press_keys(:Escape)
    expect(page).to have_no_css("[role=dialog]")
    studio = groups.values_at("Tools", "Playing", "View").flatten(1).map(&:last)
    expect(studio.size).to be > 25
    ["Points and spans", "Regions", "Notes", "Bars"].each do |group|
      keys = studio + groups.fetch(group).map(&:last)
      expect([group, keys.tally.select { |_, count| count > 1 }]).to eq [group, {}]
    end
    press_right(name_row(region.id))
    inside = items.transform_values { |item| item.text[/\((.+)\)\z/, 1] }.compact
    told = groups.fetch("Regions").to_h.reject { |words, _| inside[words].nil? }
    expect([told.size > 3, told]).to eq [true, inside.slice(*told.keys)]
    press_keys(:Escape)
    show_panel "Finder"
    fill_in "Find a parameter", with: "duplic"
    expect(page).to have_css("[aria-label='Commands found'] li", text: "Duplicate The chosen regions")
  end

  it "is found by what it does, and done from there; what cannot be done says why" do
    open_song(id)
    page.find_button("Rope Bass", exact: true).click
    show_panel "Finder"
    fill_in "Find a parameter", with: "new group"
    page.find("[aria-label='Commands found'] button", text: "Into a new group").click
    eventually(id) { |now| now.track(now.track("rope-bass").output).kind == "group" }
    fill_in "Find a parameter", with: "marker before"
    found = page.find("[aria-label='Commands found'] button", text: "To the marker before")
    expect([found.disabled?, found.text]).to match [true, /There is no marker on that side/]
  end

  it "is in the menu of a track, a knob, a device, a marker, a note and an envelope" do
    open_song(id)
    press_right(place_of(page.find_button("Crate Kit", exact: true)))
    expect(page).to have_css("[role=menu][aria-label='The track']")
    items.fetch("Name").click
    expect(page).to have_css("input#track-name:focus")
    press_keys("Stalls", :Enter)
    eventually(id) { |now| now.track("crate-kit").name == "Stalls" }
    page.find_button("Rope Bass", exact: true).click
    press_right(middle("knob-rope-bass/synth/sweep"))
    expect(page).to have_css("[role=menu][aria-label='The knob']")
    items.fetch("Add a lane").click
    eventually(id) { |now| now.track("rope-bass").lanes.any? { |lane| lane.target.to_s == "rope-bass/synth/sweep" } }
    press_right(place_of(page.find("h3", text: "Mono synth")))
    expect(page).to have_css("[role=menu][aria-label='The device']")
    expect(items.keys).to include "Presets …", "Take out"
    press_keys(:Escape)
    page.find_button("What can be done with the lane of Sweep").click
    expect(items.keys).to include "Switch off", "Pin", "Pack into the clips", "Remove"
    items.fetch("Remove").click
    eventually(id) { |now| now.track("rope-bass").lanes.none? { |lane| lane.target.to_s == "rope-bass/synth/sweep" } }
  end

  it "stands under what is chosen, never on it: its value is typed and slid, in one step of undo each" do
    open_song(id)
    points = -> { snapshot(id).song.directory.envelope(mooring).envelope.points }
    x, y = middle("point-#{mooring}-1")
    mouse.click(x:, y:)
    bar = page.find("[role=group][aria-label='The chosen points']")
    box = page.evaluate_script("(b => [b.x, b.y, b.right, b.bottom])(arguments[0].getBoundingClientRect())", bar)
    strip = page.evaluate_script("document.querySelector('[data-testid=\"#{region.id}\"]').getBoundingClientRect().bottom")
    expect(box[1]).to be >= strip
    bar.find_field("Value of the chosen points").set("-20 %").send_keys(:Enter)
    eventually(id) { (points.call[1].value + 0.2).abs < 1e-6 }
    before = revision(id)
    left, top = place_of(bar.find("input[type=range]"))
    drag([left - 9, top], 20, 0)
    eventually(id) { points.call[1].value > -0.1 }
    expect(revision(id)).to eq before + 1
    press_keys([:control, "z"])
    eventually(id) { (points.call[1].value + 0.2).abs < 1e-6 }
  end

  it "names a clip where its name stands, by F2 or a double press on it; Escape leaves it" do
    open_song(id)
    mouse.click(x: name_row(region.id)[0], y: name_row(region.id)[1])
    press_keys(:F2)
    expect(page).to have_css("input#clip-name:focus")
    press_keys("s", "p", :Escape)
    expect(page).to have_no_css("input#clip-name")
    expect(revision(id)).to eq 1
    x, y = name_row(region.id)
    mouse.click(x:, y:, count: 2)
    expect(page).to have_css("input#clip-name:focus")
    press_keys("Hawser", :Enter)
    eventually(id) { |now| now.clip("mooring").name == "Hawser" }
  end
end
