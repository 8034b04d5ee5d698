# frozen_string_literal: true

# The phone as surface of the desktop: a key from the page, a knob turned there that sounds and is recorded here.
RSpec.describe "The phone as surface" do
  include Hands

  let(:id) { plant }
  let(:cutoff) { "rope-bass/synth/cutoff" }

  after { KeyRow.delete_all }

  def song = snapshot(id).song
  def passes = get_json("/api/songs/#{id}/passes")
  def on_phone(&) = Capybara.using_session(:far_phone) { Capybara.using_driver(:phone, &) }

  # Opens the song on the desktop, and its surface on the phone by the address that is shown.
  def bring_in_phone
    open_uncounted(id)
    click_on "Rope Bass", exact: true
    click_on "Hands", exact: true
    click_on "Add a phone"
    address = page.find_field("Address for the phone").value
    expect(page).to have_css("img[alt^='QR code of http']")
    on_phone do
      visit address
      click_on "Open it"
      expect(page).to have_css("[data-testid='surface-#{cutoff}']")
    end
    expect(page).to have_css("[aria-label^='Withdraw the key of']")
    page.find("[role=dialog] button", text: "Close").click
  end

  def turn_on_phone(address, pixels)
    x, y = middle("surface-#{address}")
    touch("touchStart", x, y)
    8.times do |i|
      touch("touchMove", x, y - (pixels * (i + 1) / 8.0))
      sleep 0.04
    end
    yield if block_given?
    touch("touchEnd")
  end

  it "turns a knob that sounds on the desktop at once, and lets go there; the key is spent", :long do
    bring_in_phone
    on_phone do
      feel_for(:finger)
      turn_on_phone("rope-bass/synth/sweep", -60) { expect(page).to have_css("[data-testid='surface-rope-bass/synth/sweep'].surface-held") }
    end
    eventually(id) { |now| now.knob(address("rope-bass/synth/sweep")) < 0.6 }
    expect(page).to have_css("[aria-label^='Undo: turn Sweep']")
    on_phone do
      page.execute_script("history.back()")
      expect(page).to have_button("Open it")
      click_on "Open it"
      expect(page).to have_text("This key is wrong, spent, or older than ten minutes")
    end
  end

  Hands::ALL.each do |name, hand|
    it "asks by #{name} what a key may do, and calls keys by names, however long", long: name == :mouse do
      Server.keys.enter(Server.keys.invite(kind: "studio").first, from: "there", device: "Android tablet")
      open_song(id, size: hand[:size])
      feel_for(name)
      name == :mouse ? click_on("Hands", exact: true) : open_panel(hand, "Hands")
      press_button(hand, "Add a phone")
      expect(page).to have_css("[role=radio][aria-checked='true']", text: "Surface")
      press_on(hand, page.find("[role=radio]", text: "Studio"))
      expect(page).to have_css("[role=dialog]", text: "It edits songs too")
      expect(page).to have_css("img[alt^='QR code of http']")
      expect(KeyRow.where(digest: nil).order(:id).last.kind).to eq "studio"
      long = "a-name-of-one-word-that-goes-on-and-on-to-the-very-end-of-it"
      page.find_field("Name of the key of Android tablet").send_keys([:control, "a"], long, :enter)
      expect(page).to have_css("[aria-label='Withdraw the key of #{long}']")
      expect(KeyRow.where.not(digest: nil).pluck(:name)).to eq [long]
      wide = page.evaluate_script("(box => [...box.querySelectorAll('*'), box].filter(one => one.scrollWidth > one.clientWidth + 1 && " \
                                  "getComputedStyle(one).overflowX === 'auto').length)(document.querySelector('[role=dialog]'))")
      expect([wide, page.evaluate_script("document.documentElement.scrollWidth <= innerWidth")]).to eq [0, true]
    end
  end

  it "starts the recording, turns a knob, and stops it: the move is in the clip, on the desktop's song", :long do
    bring_in_phone
    on_phone do
      feel_for(:finger)
      click_on "Record"
      expect(page).to have_css("[aria-label='Stop recording']")
      expect(page).to have_css("[aria-label='Cutoff, armed']")
      sleep 0.5
      turn_on_phone(cutoff, 70) { expect(page).to have_css("[data-testid='surface-#{cutoff}'].surface-written") }
      click_on "Stop recording"
    end
    eventually(id) { passes.any? }
    expect(passes.first.values_at("address", "into")).to eq [cutoff, "clip"]
    expect(passes.first["laps"].first["samples"]).to be >= 6
  end

  it "lets go of what a phone holds that goes away", :long do
    bring_in_phone
    on_phone do
      feel_for(:finger)
      x, y = middle("surface-rope-bass/synth/sweep")
      touch("touchStart", x, y)
      touch("touchMove", x, y + 40)
      sleep 0.2
      visit "about:blank"
    end
    eventually(id) { |now| now.knob(address("rope-bass/synth/sweep")) < 0.74 }
  end

  it "turns the pad, the faders and the sets, and arms tracks", :long do
    bring_in_phone
    page.find("[aria-label='What the pad turns across']").select("Cutoff of Rope Bass")
    on_phone do
      feel_for(:finger)
      click_on "The next eight"
      expect(page).to have_text("2 of 2")
      click_on "Faders"
      turn_on_phone("fog-pad/channel/volume", 40)
      click_on "Tracks"
      click_on "Arm Fog Pad"
      expect(page).to have_css("[aria-label='Arm Fog Pad'][aria-pressed='true']")
      click_on "Pad", exact: true
      expect(page).to have_css("[data-testid='surface-pad']")
    end
    expect(page).to have_css("[aria-label='Arm Fog Pad'][aria-pressed='true']")
    volume = address("fog-pad/channel/volume")
    eventually(id) { |now| now.held.include?(volume) || now.knob(volume) != DemoSong.build.knob(volume) }
  end
end
