# frozen_string_literal: true

# The panel that goes with what is chosen or was touched last.
RSpec.describe "At hand" do
  let(:id) { plant }

  def heading_of_panel = "[data-testid='at-hand'] h2"

  it "goes with what was touched last, stays where it is pinned, and lets go of a knob that is gone" do
    edit(id, "add_device", { track_id: "rope-bass", type: "chorus" })
    rate = snapshot(id).song.track("rope-bass").devices.find { |device| device.type == "chorus" }.then { |device| "rope-bass/#{device.id}/rate" }
    move = snapshot(id).song.clip("mooring").envelopes.first.id
    open_song(id)
    expect(page).to have_css(heading_of_panel, text: "Cutoff of Rope Bass")
    show_knob(rate)
    press = -> { dial(rate).then { |x, y| mouse.click(x:, y:) } }
    press.call
    expect(page).to have_css(heading_of_panel, text: "Rate of Rope Bass")
    show_parameter("Rope Bass", "Cutoff")
    place = middle("point-#{move}-1")
    mouse.click(x: place[0], y: place[1])
    expect(page).to have_css("section[aria-label='Points'] [data-testid='edit']", text: "1 point")
    expect(page).to have_no_css("[data-testid='sum']")
    press.call
    click_on "Pin"
    show_parameter("Rope Bass", "Cutoff")
    expect(page).to have_css(heading_of_panel, text: "Rate of Rope Bass")
    edit(id, "remove_device", { track_id: "rope-bass", device_id: rate.split("/")[1] })
    expect(page).to have_text("This knob is gone.")
    click_on "Pinned"
    expect(page).to have_css(heading_of_panel, text: "Cutoff of Rope Bass")
  end
end
