# frozen_string_literal: true

# One clip holds, for one parameter, an envelope of each role; the strip shows them over each other, one in hand.
RSpec.describe "Layers", :system do
  let(:id) { plant }
  let(:cutoff) { "rope-bass/synth/cutoff" }
  let(:region) { snapshot(id).song.track("rope-bass").regions.first }

  def moves(now = snapshot(id).song) = now.clip("mooring").envelopes.select { |envelope| envelope.target.to_s == cutoff }

  # The roles of the clip's moves, the one in hand in capitals.
  def layers
    buttons = page.find_all("[aria-label='Layers of Cutoff in the clip'] button")
    buttons.map { |layer| layer["aria-pressed"] == "true" ? layer.text.upcase : layer.text }
  end

  before { open_song(id) }

  it "asks a second envelope for its role, takes it in hand, and turns between the two by press and by key" do
    first = moves.first
    mouse.click(**%i[x y].zip(name_row(region.id)).to_h)
    click_on "Embed another Cutoff in Mooring", match: :first
    expect(page).to have_no_css("[role=menuitem]", text: "One that #{first.role}s", exact_text: true)
    page.find("[role=menuitem]", text: "One that scales").click
    now = eventually(id) { |song| moves(song).size == 2 }
    second = moves(now).last
    expect([second.role, page.has_css?("[data-testid='ground-#{second.id}']")]).to eq ["scale", true]
    expect(page).to have_no_css("[data-testid='ground-#{first.id}']")
    expect(layers).to contain_exactly("SCALE", first.role)
    at_hand("Value")
    expect(page.find("[data-testid='sum']")).to have_css("li", text: "clip Mooring", count: 2)
    page.find("[aria-label='Layers of Cutoff in the clip'] button", text: first.role).click
    expect(page).to have_css("[data-testid='ground-#{first.id}']")
    press_keys("k")
    expect(page).to have_css("[data-testid='ground-#{second.id}']")
    mouse.click(**%i[x y].zip(on_line(second.id, bar_x(6))).to_h)
    eventually(id) { |song| moves(song).last.points.size == 2 }
    expect(moves.first.points).to eq first.points
  end

  it "takes each in hand from the panel, and offers no role twice" do
    at_hand("Envelope")
    within("[data-testid='envelope']") { click_on "More for Cutoff" }
    page.find("[role=menuitem]", text: "Another that scales").click
    eventually(id) { |song| moves(song).size == 2 || song.track("rope-bass").lanes.count { |lane| lane.target.to_s == cutoff } == 2 }
    at_hand("Envelope")
    within("[data-testid='envelope']") do
      expect(page.find("[aria-label='What it does']")).to have_css("button[disabled]", count: 1)
      page.find("[aria-label='Layers'] button[aria-pressed=false]").click
      expect(page.find("[aria-label='Layers']")).to have_css("button[aria-pressed=true]", count: 1)
    end
  end

  it "shows on a track what a carrier clip elsewhere does to it, and leads there" do
    show_bar(19)
    click_on "Unfold Deck"
    show_parameter("Deck", "Cutoff")
    ghost = page.find("[data-testid='track-deck'] .ghost-name", text: "Undertow sets", match: :first)
    expect(page).to have_css("[data-testid='track-deck'] .ghost path", minimum: 1, visible: :all)
    ghost.click
    expect(page).to have_css("[data-testid='track-tideline'] [data-testid^='ground-']", minimum: 1, visible: :all)
    expect(page.find("[data-testid='at-hand'] h2")).to have_text("Cutoff")
  end

  it "hatches what lies past the end of the loop, and says that it is not heard" do
    move = moves.first
    post = snapshot(id).song.clip("mooring").length_ticks + 480
    edit(id, "add_point", { envelope_id: move.id, tick: post, value: 0.9 })
    visit page.current_path
    expect(page).to have_css("[data-testid='point-#{move.id}-0']", minimum: 1, visible: :all)
    expect(page).to have_no_css("[data-testid='past-#{move.id}']", visible: :all)
    x, y = middle("point-#{move.id}-0")
    mouse.click(x:, y:)
    expect(page.find("[data-testid='past-#{move.id}']", visible: :all)).to have_text("1 point lies past the end of the loop: not heard")
  end
end
