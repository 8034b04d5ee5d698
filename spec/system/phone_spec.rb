# frozen_string_literal: true

RSpec.describe "Arranging with a finger" do
  let(:id) { plant }

  before do
    open_song(id, size: :phone)
    page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
  end

  def regions(track = "rope-bass") = snapshot(id).song.track(track).regions
  def chosen = told("[data-testid^='region-'][aria-pressed='true']", "data-testid")

  # Into the middle of the tool bar or sheet that shows it, then a tap.
  def tap_button(words)
    node = page.find(:button, words, match: :first)
    page.execute_script("arguments[0].scrollIntoView({ block: 'center', inline: 'center' })", node)
    sleep 0.15
    tap(place_of(node))
  end

  it "selects by a tap, then drags; a drag over what is not selected scrolls" do
    first = regions.first.id
    swipe(name_row(first), -60, 0)
    expect(regions.first.start_tick).to eq 4 * BAR
    tap(name_row(first))
    expect(page).to have_css("[data-testid='#{first}'][aria-pressed='true']")
    swipe(name_row(first), 104, 0) { expect(page).to have_css("[data-testid='carry']", text: "move Mooring to 6.1.0") }
    eventually(id) { |song| song.directory.region(first).region.start_tick == 5 * BAR }
  end

  it "gathers by taps and by a loop, mutes what is gathered, and lets go" do
    tap_button("Gather")
    tap(name_row(regions.first.id))
    fog = regions("fog-pad")[1].id
    tap(middle(fog))
    expect(page).to have_css("[data-testid^='region-'][aria-pressed='true']", count: 2)
    tap(middle(fog))
    expect(page).to have_css("[data-testid^='region-'][aria-pressed='true']", count: 1)
    y = middle("track-bell-buoy")[1]
    swipe([200, y], 150, middle("track-fog-pad")[1] - y) { expect(page).to have_css("[data-testid='loop']") }
    expect(page).to have_css("[data-testid='#{fog}'][aria-pressed='true']")
    show_panel("Clip")
    within("section[aria-label$='regions']") { click_on "Mute" }
    song = eventually(id) { |now| now.directory.region(fog).region.muted && now.track("rope-bass").regions.first.muted }
    expect(song.track("crate-kit").regions.none?(&:muted)).to be true
  end

  it "drags the end of a move with a length of its own" do
    move = snapshot(id).song.clip("mooring").envelopes.first.id
    at_hand("Envelope")
    tap_button("own length")
    eventually(id) { |song| song.clip("mooring").envelopes.first.clock == "own_length" }
    show_panel("At hand")
    swipe(middle("own-length-#{move}"), -52, 0)
    eventually(id) { |song| song.clip("mooring").envelopes.first.own_length_ticks == 6 * 960 }
    expect(page).to have_css("[data-testid='own-length-#{move}'] title", text: "6 beats", visible: :all)
  end

  it "keeps the song time and the track within reach" do
    show_panel("Song")
    tap_button("Copy bars")
    expect(page).to have_css(".notice", text: "ready to paste")
    show_panel("Track")
    tap_button("Solo")
    eventually(id) { |song| silent(song).include?("fog-pad") }
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
  end
end
