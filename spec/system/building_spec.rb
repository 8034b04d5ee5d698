# frozen_string_literal: true

# Tracks and devices of one's own: put in, moved, replaced, taken out, while it plays.
RSpec.describe "Building in the studio" do
  let(:id) { plant }

  before { open_song(id) }

  def song = snapshot(id).song
  def track(name) = song.tracks.find { |one| one.name == name }
  def chain(name) = track(name).devices.map(&:type)

  def from_menu(button, words)
    page.find("[aria-label='#{button}']").click
    page.find("[role=menuitem]", text: words, match: :prefer_exact).click
  end

  def name_of(text) = place_of(page.find_button(text, exact: true))

  it "adds a drum track, puts devices in, moves one by its head, and goes on sounding", :long do
    click_on "Play"
    expect(sounds?).to be true
    from_menu("Add a track", "Drum kit")
    eventually(id) { track("Drum kit") }
    expect(page).to have_css("[aria-label='Knobs of Drum kit']")
    from_menu("Add a device", "Drive")
    eventually(id) { chain("Drum kit") == %w[drum-kit drive channel] }
    from_menu("Add a device", "Filter")
    eventually(id) { chain("Drum kit") == %w[drum-kit drive filter channel] }
    page.execute_script("arguments[0].scrollIntoView({ inline: 'end' })", page.find(".device-card[aria-label='Filter']"))
    heads = %w[Filter Drive].map { |name| place_of(page.find(".device-card[aria-label='#{name}'] h3")) }
    drag(heads[0], heads[1][0] - heads[0][0] - 60, 0)
    eventually(id) { chain("Drum kit") == %w[drum-kit filter drive channel] }
    from_menu("Drum kit of Drum kit", "Pluck in its place")
    eventually(id) { chain("Drum kit").first == "pluck" }
    from_menu("Filter of Drum kit", "Take out")
    eventually(id) { chain("Drum kit") == %w[pluck drive channel] }
    expect([page.has_button?("Stop"), sounds?]).to eq [true, true]
    5.times { press_keys([:control, "z"]) }
    eventually(id) { chain("Drum kit") == %w[drum-kit drive channel] }
    click_on "Stop"
  end

  it "moves a track by its name, told before the drop, into a group and out of it; and by keys" do
    crate, bell = %w[crate-kit bell-buoy].map { |one| song.track(one).name }
    from, to = name_of(bell), name_of(crate)
    drag(from, 0, to[1] - from[1] - 8) { expect(page).to have_css("[data-testid='carry']", text: "move #{bell}") }
    eventually(id) { song.tracks.first.name == bell && song.tracks.first.output == "deck" }
    page.execute_script("arguments[0].focus()", page.find_button(bell, exact: true))
    press_keys(%i[alt Down])
    eventually(id) { song.tracks.map(&:name).first(2) == [crate, bell] }
  end

  it "colours a track, adds a return that every channel sends to, and says before it goes what goes along" do
    show_panel("Track")
    click_on "moss"
    eventually(id) { song.track("rope-bass").hue == "moss" }
    from_menu("Add a track", "Return")
    made = eventually(id) { track("Return") } && track("Return")
    expect(song.parameter?(address("rope-bass/channel/send-#{made.id}"))).not_to be_nil
    page.find_button("Rope Bass", exact: true).click
    click_on "Remove this track"
    expect(page).to have_css(".notice", text: "6 regions and a lane go along")
    expect(track("Rope Bass")).not_to be_nil
    click_on "Go on"
    eventually(id) { track("Rope Bass").nil? }
  end

  it "gives a clip an effect of its own, embeds its sweep, and makes it an effect of the track and back", :long do
    mouse.click(x: name_row("region-11")[0], y: name_row("region-11")[1])
    from_menu("Add an effect to Mooring", "Filter")
    eventually(id) { song.clip("mooring").devices.map(&:type) == ["filter"] }
    own = "clip-mooring/filter/cutoff"
    page.find("[data-testid='knob-#{own}'] [aria-label='Embed Cutoff in Mooring']").click
    eventually(id) { song.clip("mooring").envelopes.any? { |one| one.target.to_s == own } }
    expect([page.has_text?("Cutoff is an effect of Mooring"), page.has_button?("Add a lane for Cutoff")]).to eq [true, false]
    from_menu("Effects of Mooring: more", "Make them effects of Rope Bass")
    eventually(id) { song.track("rope-bass").devices.map(&:id).include?("filter") }
    expect(song.clip("mooring").envelopes.map { |one| one.target.to_s }).to include "rope-bass/filter/cutoff"
    from_menu("Filter of Rope Bass", "Make it an effect of Mooring")
    eventually(id) { song.clip("mooring").devices.map(&:id) == ["filter"] }
    from_menu("Effects of Mooring: more", "Stop tails at the end")
    eventually(id) { song.clip("mooring").tails == "stop" }
    show_panel("Finder")
    page.find_field("Find a parameter").set("clip mooring cutoff")
    expect(page).to have_css("[data-testid='found-#{own}']", text: "Rope Bass, clip Mooring, Filter")
  end

  it "starts a bass from a preset, keeps a device's setting under a name, and uses it on another", :long do
    from_menu("Add a track", "Bass with a bite")
    made = eventually(id) { track("Bass with a bite") } && track("Bass with a bite")
    expect([made.devices.map(&:type), made.device("drive").values.any?]).to eq [%w[mono-synth drive compressor channel], true]
    from_menu("Drive of Bass with a bite", "Presets …")
    type_into "Keep how it stands now as", "Bite"
    expect(page).to have_css("[aria-label='Presets'] .preset", text: "Bite")
    within("[role=dialog]") { click_on "Close" }
    page.find_button("Rope Bass", exact: true).click
    from_menu("Drive of Rope Bass", "Presets …")
    page.find(".preset", text: "Bite").click
    eventually(id) { song.track("rope-bass").device("drive").values == made.device("drive").values }
    expect(page).to have_no_css("[role=dialog]")
    press_keys([:control, "z"])
    eventually(id) { song.track("rope-bass").device("drive").values != made.device("drive").values }
  end

  def address(text) = KindSatchel::Address.parse(text)
end
