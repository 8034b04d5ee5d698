# frozen_string_literal: true

# Values are typed where they stand: under a knob, a fader, the number in At hand.
RSpec.describe "Typed values" do
  include Hands

  let(:id) { plant }
  let(:cutoff) { "rope-bass/synth/cutoff" }
  let(:volume) { "rope-bass/channel/volume" }

  def box(name) = page.find("[role=dialog][aria-label='Type #{name}']")

  def rests(text)
    address = KindSatchel::Address.parse(text)
    snapshot(id).song.then { |song| song.parameter(address).text(song.knob(address)) }
  end

  def held = snapshot(id).song.held.map(&:to_s)

  def twice(hand, node)
    page.execute_script("arguments[0].scrollIntoView({ block: 'nearest', inline: 'center' })", node)
    sleep 0.15
    at = place_of(node)
    return mouse.click(x: at[0], y: at[1], count: 2) if hand[:size] == :desk

    2.times { tap(at) }
  end

  def type_in(name, text, way = nil)
    within(box(name)) { page.choose(way, visible: :all, allow_label_click: true) } if way
    box(name).find("input:not([type=radio])").set(text)
    page.driver.browser.keyboard.type(:Enter)
  end

  def shown(address) = page.find("[data-shows='#{address}']", match: :first)

  Hands::ALL.each do |name, hand|
    it "takes a value under a knob: at rest it turns it, against what moves it it says what it does, by #{name}", long: name == :finger do
      open_song(id, size: hand[:size])
      feel_for(name)
      page.find_button("Rope Bass", exact: true).click if hand[:size] == :desk
      at_foot(hand, "Knobs") do
        twice(hand, shown(volume))
        type_in("Volume", "-9")
        eventually(id) { rests(volume) == "-9.0 dB" }
        expect(page).to have_no_css("[role=dialog]")
        twice(hand, shown(cutoff))
        expect(box("Cutoff")).to have_checked_field("hold it", visible: :all)
        type_in("Cutoff", "9 dB")
        expect(box("Cutoff").find("[role=alert]")).to have_text('"9 dB" is not a value here')
        type_in("Cutoff", "50 %", "its resting value")
        eventually(id) { snapshot(id).song.knob(KindSatchel::Address.parse(cutoff)) == 0.5 }
        expect(held).to eq []
        twice(hand, shown(cutoff))
        type_in("Cutoff", "2 kHz")
        eventually(id) { held == [cutoff] }
      end
    end
  end

  it "is copied and pasted: by value in the same unit, else by its share of the travel" do
    open_song(id)
    page.find_button("Rope Bass", exact: true).click
    edit(id, "set_knob", { address: volume, value: "-12 dB" })
    edit(id, "set_knob", { address: "rope-bass/synth/attack", value: 0.6 })
    expect(page).to have_css("[data-testid='value-rope-bass/synth/attack']")
    text = page.find("[data-testid='value-rope-bass/synth/attack']").text
    from_menu_of("rope-bass/synth/attack", "Copy value")
    expect(page).to have_text("#{text} of attack is ready to paste").or have_text("#{text} of Attack is ready to paste")
    from_menu_of("rope-bass/synth/release", "Paste value")
    eventually(id) { rests("rope-bass/synth/release") == text }
    from_menu_of(volume, "Paste value")
    eventually(id) { |song| song.knob(KindSatchel::Address.parse(volume)).round(9) == 0.6 }
  end

  it "opens at Enter on a knob and at the number in At hand; Escape leaves all as it is; Delete brings the default back" do
    open_song(id)
    page.find_button("Rope Bass", exact: true).click
    shown(cutoff).native.node.focus
    page.driver.browser.keyboard.type(:Enter)
    expect(box("Cutoff").find("input:not([type=radio])").value).to eq page.find("[data-testid='sum-heard']").text
    page.driver.browser.keyboard.type("12", :Escape)
    expect(page).to have_no_css("[role=dialog]")
    expect([page.evaluate_script("document.activeElement.dataset.shows"), held]).to eq [cutoff, []]
    page.find("[data-testid='sum-heard']").click
    type_in("Cutoff", "900")
    eventually(id) { held == [cutoff] }
    expect(page).to have_css("[data-testid='sum-heard']", text: "900 Hz")
    from_menu_of(volume, "Type a value")
    type_in("Volume", "-3 dB")
    eventually(id) { rests(volume) == "-3.0 dB" }
    shown(volume).native.node.focus
    page.driver.browser.keyboard.type(:Delete)
    parameter = snapshot(id).song.parameter(KindSatchel::Address.parse(volume))
    eventually(id) { rests(volume) == parameter.text(parameter.default) }
  end

  def from_menu_of(address, words)
    x, y = place_of(shown(address))
    mouse.click(x:, y:, button: :right)
    page.find("[role=menuitem]", text: words).click
  end
end
