# frozen_string_literal: true

# Moves dropped from the satchel on what is in the song, and kept from it: by mouse, keys and finger.
RSpec.describe "The satchel" do
  include Hands

  let(:id) { plant }
  let(:to_pier) { "gull-chop/channel/send-echo-pier" }

  after { KeptMoveRow.delete_all }

  def song = snapshot(id).song
  def thrown = song.clip("gulls").envelopes.find { |one| one.target == address(to_pier) }
  def card(name) = page.find("[aria-label='Moves'] button", text: /\A#{name}/)

  def open_satchel(hand, size)
    open_song(id, size:)
    feel_for(:finger) if size == :phone
    open_panel(hand, "Satchel")
    expect(page).to have_css("[aria-label='Moves'] button", minimum: 40)
  end

  # Carries a card somewhere and lets go.
  def carry(name, size, to)
    node = card(name)
    page.execute_script("arguments[0].scrollIntoView({ block: 'nearest' })", node)
    sleep 0.2
    from = place_of(node)
    return drag(from, to[0] - from[0], to[1] - from[1]) { expect(page).to have_css("[data-testid='carry']", text: "drop #{name}") } if size == :desk

    touch("touchStart", *from)
    sleep 0.5
    8.times { |i| touch("touchMove", from[0] + ((to[0] - from[0]) * (i + 1) / 8.0), from[1] + ((to[1] - from[1]) * (i + 1) / 8.0)) }
    expect(page).to have_css("[data-testid='carry']", text: "drop #{name}")
    touch("touchEnd")
  end

  Hands::ALL.each do |name, hand|
    it "drops a shipped gate on the gull's send, turned over, by #{name}: in every copy, and undone by one step", long: name == :finger do
      before = thrown
      edit(id, "move_track", { track_id: "gull-chop", place: 1 })
      open_satchel(hand, hand[:size])
      page.execute_script("document.querySelector(\"[data-testid='table']\").scrollLeft = #{(8 * BAR * 0.027) - 30}")
      press_on(hand, page.find("[aria-label='What it is for'] button", text: "gate", visible: :all))
      press_on(hand, card("Plank gate"))
      ["Turned over", "Repeat"].each { |way| press_on(hand, page.find("[aria-label='Move in hand'] button", text: way)) }
      gulls = song.directory.regions_of_clip("gulls").first.region.id
      x, y = name_row(gulls, 30).then { |across, down| [across, down + 6] }
      carry("Plank gate", hand[:size], [x, y])
      eventually(id) { thrown && thrown != before }
      expect(thrown.points.map { |point| [point.tick, point.value] }.first(3)).to eq [[0, 0.0], [480, 1.0], [960, 0.0]]
      expect(page).to have_css("[aria-label^='Undo: drop Plank gate on Send to Echo Pier in Gulls']")
      Server.edit_log.undo(id, revision(id))
      expect(thrown).to eq before
    end

    it "keeps the envelope at hand by #{name}, which drops again the same, and lets it go and come back", long: name == :finger do
      before = song.clip("mooring").envelopes.first
      open_satchel(hand, hand[:size])
      press_on(hand, page.find("[data-testid='point-#{before.id}-0']", match: :first, visible: :all))
      open_panel(hand, "Satchel")
      press_button(hand, "Keep what is at hand")
      page.find_field("Tags of the kept move").set("bass low")
      page.find_field("Keep it as").set("Lapping").send_keys(:enter)
      expect(page).to have_css("[aria-label='Moves'] li:first-child", text: "Lapping")
      kept = Server.moves.list.first.move
      expect([kept.tags, kept.role, kept.length_ticks]).to eq [%w[bass low], "shift", 7680]
      press_button(hand, "Drop on Cutoff in Mooring")
      expect(page).to have_css("[role=status]", text: "Done: drop Lapping on Cutoff in Mooring")
      expect(song.clip("mooring").envelopes.first).to eq before
      press_on(hand, page.find("button[aria-label='Let go of Lapping']"))
      expect(page).to have_no_css("[aria-label='Moves'] button", text: "Lapping")
      press_button(hand, "Put it back")
      expect(page).to have_css("[aria-label='Moves'] li:first-child", text: "Lapping")
    end
  end

  it "takes a chosen stretch that is dragged into the panel, and lets it be renamed", :long do
    before = song.clip("mooring").envelopes.first
    open_satchel(Hands::ALL[:mouse], :desk)
    page.find_button("Span").click
    from, to = [0, 2].map { |i| place_of(page.find("[data-testid='point-#{before.id}-#{i}']", match: :first, visible: :all)) }
    drag([from[0] + 4, from[1] - 30], to[0] - from[0], 0)
    keep = place_of(page.find("button", text: "Keep", exact_text: true))
    drag(keep, 1100 - keep[0], 300 - keep[1]) { expect(page).to have_css("[data-testid='carry']", text: "Keep it in the satchel") }
    expect(page).to have_css("[aria-label='Moves'] li:first-child", text: "From Cutoff")
    expect(Server.moves.list.first.move.role).to eq "shift"
  end

  it "finds by word and by a drawn shape, and drops by a key, between a foot and a top that are typed", :long do
    open_satchel(Hands::ALL[:mouse], :desk)
    fill_in "Find a move", with: "pump gentle"
    expect(page).to have_css("[aria-label='Moves'] button", count: 1, text: "Kick lean")
    fill_in "Find a move", with: ""
    click_on "Find by a shape"
    x, y = middle("shape-pad")
    mouse.move(x: x - 100, y: y + 20).down
    20.times { |i| mouse.move(x: x - 100 + (i * 10), y: y + 20 - (i * 2)) }
    mouse.up
    expect(page).to have_css("[aria-label='Moves'] li:first-child", text: "Slow crossing")
    page.find("[aria-label='Moves'] li:first-child button").click
    page.find_field("Foot at").set("10 %")
    page.find_field("Top at").set("40 %")
    choose_region("mooring")
    page.find("[aria-label='Moves'] li:first-child button").send_keys(:enter)
    changed = eventually(id) { |now| now.clip("mooring").envelopes.first.points.size < 4 }.clip("mooring").envelopes.first
    expect(changed.points.map(&:value).minmax).to eq [0.1, 0.4]
    page.find_field("Foot at").set("soft")
    page.find("[aria-label='Moves'] li:first-child button").send_keys(:enter)
    expect(page).to have_css("[role=alert]", text: "soft")
  end

  def choose_region(clip_id)
    region = song.directory.regions_of_clip(clip_id).first.region.id
    x, y = name_row(region, 30)
    mouse.click(x:, y:)
    expect(page).to have_css("[data-testid='#{region}'][aria-pressed='true']")
  end
end
