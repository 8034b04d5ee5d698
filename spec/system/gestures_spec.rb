# frozen_string_literal: true

# How many gestures the commonest things take: one is a press, a drag, a key, or an entry that is typed.
RSpec.describe "Gestures" do
  include Hands

  let(:id) { plant }
  let(:resonance) { "rope-bass/synth/resonance" }

  def moves_of(clip_id) = snapshot(id).song.clip(clip_id).envelopes
  def plus(address) = page.find("[data-testid='knob-#{address}'] .embed", visible: :all)
  def shown(address) = page.find("[data-shows='#{address}']", match: :first)

  # Each does one and counts it.
  def press(node, **more) = place_of(node).then { |x, y| one { mouse.click(x:, y:, **more) } }
  def pull(from, to) = one { drag(from, (to[0] - from[0]).round, (to[1] - from[1]).round) }
  def enter(text) = one { page.driver.browser.keyboard.type(text, :Enter) }

  def one
    @made = (@made || 0) + 1
    yield
  end

  def made = @made || 0

  it "one: an envelope for a knob in a clip, by its + dragged onto the region, and in view; none where it cannot be" do
    open_song(id)
    show_knob(resonance)
    pull(place_of(plus(resonance)), name_row("region-11"))
    eventually(id) { moves_of("mooring").map { |one| one.target.to_s }.include?(resonance) }
    expect(page).to have_css("[data-testid='at-hand'] h2", text: "Resonance of Rope Bass")
    expect(page).to have_css("[data-testid^='point-#{moves_of('mooring').last.id}-']", visible: :all)
    expect(made).to eq 1
    count = snapshot(id).song.directory.envelopes.size
    pull(place_of(plus("rope-bass/synth/attack")), name_row("region-2"))
    expect(page).to have_text("Crates does not move this Attack.").or have_text("Crates does not move this attack.")
    mouse.move(x: (from = place_of(plus("rope-bass/synth/attack")))[0], y: from[1]).down
    mouse.move(x: from[0], y: from[1] - 200)
    expect(page).to have_css("[data-testid='carry']")
    page.driver.browser.keyboard.type(:Escape)
    mouse.up
    expect([page.has_no_css?("[data-testid='carry']"), snapshot(id).song.directory.envelopes.size]).to eq [true, count]
  end

  it "one: a lane, by the + dragged onto empty ground of its own track" do
    open_song(id)
    show_knob("rope-bass/synth/attack")
    region = snapshot(id).song.track("rope-bass").regions.map(&:start_tick).min
    expect(region).to be > 0
    page.find_button("Rope Bass", exact: true).click
    pull(place_of(plus("rope-bass/synth/attack")), middle("lane-rope-bass"))
    eventually(id) { |song| song.track("rope-bass").lanes.any? { |lane| lane.target.to_s == "rope-bass/synth/attack" } }
    expect(made).to eq 1
  end

  it "one: a fade at the edge of a region, of any length, heard in no other" do
    open_song(id)
    before = moves_of("fog")
    corner = middle("fade-in-of-region-22")
    pull(corner, [corner[0] + 60, corner[1] + 4])
    eventually(id) { |song| song.directory.region("region-22").region.clip_id != "fog" }
    expect([made, moves_of("fog")]).to eq [1, before]
  end

  it "two: an exact value; one: at rest for a listen; two: all moves of a clip gone" do
    open_song(id)
    one { place_of(shown("rope-bass/channel/pan")).then { |x, y| mouse.click(x:, y:, count: 2) } }
    page.find("[role=dialog] input")
    enter("L20")
    eventually(id) { |song| song.parameter(KindSatchel::Address.parse("rope-bass/channel/pan")).text(song.knob(KindSatchel::Address.parse("rope-bass/channel/pan"))) == "L20" }
    expect(page).to have_no_css("[role=dialog]")
    expect(made).to eq 2
    press(page.find("[data-testid='region-11'] .rest-mark", visible: :all))
    eventually(id) { Server.listened_to.of(id).resting == ["clip/mooring"] }
    expect(made).to eq 3
    name_row("region-11").then { |x, y| one { mouse.click(x:, y:, button: :right) } }
    item = page.find("[role=menuitem]", text: "Remove its moves")
    page.execute_script("arguments[0].scrollIntoView({ block: 'nearest' })", item)
    press(item)
    eventually(id) { moves_of("mooring").empty? }
    expect(made).to eq 5
  end
end
