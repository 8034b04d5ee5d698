# frozen_string_literal: true

# A macro that drives knobs of several tracks: made, told what to drive by touching it, set and turned; by mouse and by finger.
RSpec.describe "A macro" do
  include Hands

  let(:id) { plant(DemoSong.still) }

  let(:macro) { "rope-bass/macro-strip/macro-1" }
  let(:targets) { %w[rope-bass/synth/resonance fog-pad/synth/spread] }

  def song = snapshot(id).song
  def address(text) = KindSatchel::Address.parse(text)

  def knob(text)
    show_knob(text)
    page.find("[data-testid='knob-#{text}'] [role=slider]").tap do |slider|
      page.execute_script("arguments[0].scrollIntoView({ block: 'nearest', inline: 'center' })", slider)
    end
  end

  def driven = song.directory.driven.map(&:to_s)
  def heard = targets.map { |text| KindSatchel::Heard::Resolver.new(song, address(text)).at(0) }

  def track(hand, name) = press_on(hand, page.find(:button, name, exact: true, match: :first))

  # The large button in the sum; fingers have no other.
  def drive(hand)
    at_hand("Value", hand)
    press_on(hand, page.find("[data-testid='sum'] button[aria-label='Let Macro 1 drive what is touched next']"))
    close_sheet(hand)
  end

  Hands::ALL.each do |name, hand|
    it "drives knobs that are touched, by #{name}, between the values that are typed, and goes back by undo", :long do
      open_song(id, size: hand[:size])
      feel_for(name)
      at_foot(hand, "Knobs") do
        from_menu(hand, "Add a device", "Macros")
        eventually(id) { song.track("rope-bass").macro_strips.any? }
        press_on(hand, knob(macro))
      end
      drive(hand)
      at_foot(hand, "Knobs") { press_on(hand, knob(targets[0])) }
      eventually(id) { driven == targets.first(1) }
      track(hand, "Fog Pad")
      at_foot(hand, "Knobs") { press_on(hand, knob(targets[1])) }
      eventually(id) { driven.sort == targets.sort }
      track(hand, "Rope Bass")
      drive(hand)
      at_hand("Value", hand)
      expect(page).to have_css("[aria-label='What it drives'] li", count: 2)
      page.find("input[aria-label='Spread of Fog Pad at 0 %'], [aria-label='Spread of Fog Pad at 0 %'] input", match: :first)
          .send_keys([:control, "a"], "10 ct", :enter)
      eventually(id) { song.directory.drives_of(address(macro))[1].stops[0][1] == song.parameter(address(targets[1])).scale.parse("10 ct") }
      close_sheet(hand)
      before = heard
      open_panel(hand, "Knobs") if hand[:size] == :phone
      hand[:drag].call(self, place_of(knob(macro)), 0, -60)
      eventually(id) { song.knob(address(macro)) > 0.2 }
      expect(heard.zip(before).map { |now, was| now - was }.min).to be > 0.1
      at_hand("Value", hand)
      press_on(hand, page.find("button[aria-label='Drive Spread of Fog Pad no more']"))
      eventually(id) { driven == targets.first(1) }
      Server.edit_log.undo(id, revision(id))
      expect(driven.sort).to eq targets.sort
    end
  end

  it "is made of what a move moves, and what drives what is listed, each row leading there", :long do
    open_song(id)
    cutoff = song.track("rope-bass").lanes.find { |lane| lane.target.parameter_id == "cutoff" }
    at_hand "Value"
    page.find("[data-testid='sum'] button", text: "lane", match: :first).click
    2.times { page.find("button", text: "Let it move another knob too").click }
    expect(page).to have_css("button[aria-pressed=false]", text: "Let it move another knob too")
    page.find("button", text: "Let it move another knob too").click
    press_on(Hands::ALL[:mouse], knob("rope-bass/synth/decay"))
    eventually(id) { driven.sort == %w[rope-bass/synth/cutoff rope-bass/synth/decay] }
    expect(song.directory.envelope(cutoff.id).envelope.target.to_s).to eq macro
    show_panel "Finder"
    click_on "what drives what"
    fill_in "finder", with: "decay"
    expect(page).to have_css("[aria-label='What drives what'] [role=listitem]", count: 1)
    click_on "by what is driven"
    page.find("[aria-label='What drives what'] button", text: "Decay of Rope Bass").click
    expect(parameter_shown?("Rope Bass", "Decay")).to be true
    press_keys(:escape)
  end

  Hands::ALL.each do |name, hand|
    it "morphs through kept settings by #{name}; a move of a clip varies from loop to loop", :long do
      edit(id, "add_device", { track_id: "rope-bass", type: "macro-strip" })
      open_song(id, size: hand[:size])
      feel_for(name)
      move = song.clip("mooring").envelopes.first
      press_on(hand, page.find("[data-testid='point-#{move.id}-0']", match: :first, visible: :all))
      at_hand("Envelope", hand)
      press_button(hand, "Vary from loop to loop")
      page.find("[aria-label='Every second repeat']").select("backwards")
      press_button(hand, "Vary the points")
      eventually(id) { |now| now.clip("mooring").envelopes.first.clock == "own_length" }
      expect(page).to have_css("[role=status]", text: "vary Cutoff over 4 loops")
      close_sheet(hand)
      at_foot(hand, "Knobs") { press_on(hand, knob(macro)) }
      at_hand("Value", hand)
      press_button(hand, "Morph between settings")
      page.find("[aria-label='Device to morph']").select("Mono synth of Rope Bass")
      page.find("[aria-label='Setting 2']").select("Whistle")
      press_on(hand, page.find("[aria-label='What it drives'] button", text: "Morph", exact_text: true))
      eventually(id) { driven.include?("rope-bass/synth/cutoff") }
      whistle = Server.presets.list.find { |one| one["name"] == "Whistle" }["devices"][0]["values"]
      stops = song.directory.drives_of(address(macro)).find { |one| one.target.parameter_id == "cutoff" }.stops
      expect(stops).to eq [[0.0, song.knob(address("rope-bass/synth/cutoff"))], [1.0, whistle["cutoff"]]]
      Server.edit_log.undo(id, revision(id))
      expect(driven).to eq []
    end
  end
end
