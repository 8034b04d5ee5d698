# frozen_string_literal: true

RSpec.describe "Moves in the studio" do
  include Hands

  let(:id) { plant }
  let(:move_id) { snapshot(id).song.clip("mooring").envelopes.first.id }
  let(:lane_id) { snapshot(id).song.track("rope-bass").lanes.first.id }
  let(:cutoff) { "rope-bass/synth/cutoff" }

  before { open_song(id) }

  def heard_path = page.find("[data-testid='heard-#{cutoff}'] .heard-edge", visible: :all)[:d]

  it "shows a track unfolded: material, clip envelopes, lane and heard band on one axis" do
    names = %W[material-rope-bass lane-rope-bass heard-#{cutoff}]
    names.each { |name| expect(page).to have_css("[data-testid='#{name}']") }
    clip, lane, heard = names.map do |name|
      page.evaluate_script("document.querySelector('[data-testid=\"#{name}\"]').getBoundingClientRect().toJSON()")
    end
    expect([clip["x"], lane["x"], heard["x"]].uniq.size).to eq 1
    expect([clip["bottom"] <= lane["y"] + 1, lane["bottom"] <= heard["y"] + 1]).to eq [true, true]
    expect(heard_path).to match(/\AM[\d. ]+(L[\d. -]+)+\z/)
    click_on "Fold Rope Bass"
    expect(page).to have_no_css("[data-testid='lane-rope-bass']")
  end

  it "embeds an envelope in the selected clip by one press on the knob, or makes a lane with none selected" do
    focus(snapshot(id).song.track("rope-bass").regions[0].id)
    press_keys(:Enter)
    knob = page.find("[data-testid='knob-rope-bass/synth/sub']")
    x, y = dial("rope-bass/synth/sub")
    mouse.click(x:, y:)
    knob.click_button("Embed Sub in Mooring")
    song = eventually(id) { |now| now.clip("mooring").envelopes.size == 2 }
    expect(song.clip("mooring").envelopes.last.target.to_s).to eq "rope-bass/synth/sub"
    expect(knob).to have_text("clip")
    click_on "Rope Bass"
    knob.click_button("Add a lane for Sub")
    eventually(id) { |now| now.track("rope-bass").lanes.size == 2 }
    expect(knob).to have_text("clip + lane")
  end

  it "says before the press what it will do, adds a point by a press on the line, and removes it by a double-click" do
    x, y = on_line(move_id, 236)
    mouse.move(x:, y:)
    expect(page).to have_css("[data-testid='words']", text: /add a point · \+\d/, visible: :all)
    before = points_of(snapshot(id).song, move_id).size
    mouse.click(x:, y:)
    eventually(id) { |song| points_of(song, move_id).size == before + 1 }
    x, y = middle("point-#{move_id}-1")
    2.times { mouse.click(x:, y:) }
    eventually(id) { |song| points_of(song, move_id).size == before }
  end

  it "moves a point by dragging: value and position shown, heard band redrawn, one edit at the drop, in all shared regions" do
    edges = [heard_path]
    drag(middle("point-#{move_id}-1"), 26, 30) do
      expect(page).to have_css("[data-testid='words']", text: /% · \d+\.\d\.\d+/, visible: :all)
      edges << heard_path
      expect(snapshot(id).revision).to eq 1
    end
    song = eventually(id) { points_of(snapshot(id).song, move_id)[1].tick == 5760 }
    expect(edges.uniq.size).to eq 2
    expect(points_of(song, move_id)[1].value).to be < 0.42
    expect(snapshot(id).revision).to eq 2
    expect(page).to have_button("Undo: move a point of Cutoff")
    expect(page).to have_css("[data-testid='point-#{move_id}-1']", minimum: 4, visible: :all)
  end

  it "drops a drag at Escape" do
    edge = heard_path
    mouse.move(x: middle("point-#{move_id}-1")[0], y: middle("point-#{move_id}-1")[1]).down
    x, y = middle("point-#{move_id}-1")
    mouse.move(x: x + 30, y: y + 40)
    expect(page).to have_css("[data-testid='words']", visible: :all)
    press_keys(:Escape)
    mouse.up
    expect(page).to have_no_css("[data-testid='words']", visible: :all)
    expect([heard_path, snapshot(id).revision]).to eq [edge, 1]
  end

  def shape_of_chosen(words)
    page.find("[role=group][aria-label='The chosen points']").click_button("Shape")
    page.find("[role=menuitem]", text: words).click
  end

  it "bends a segment by the mark in its middle, and shapes it from the bar beside it" do
    drag(middle("bend-#{move_id}-0"), 0, -40)
    eventually(id) { |song| points_of(song, move_id)[0].shape.settings["curve"] != 0.35 }
    page.find_all("[data-testid='point-#{move_id}-0']", minimum: 1, visible: :all)
    shape_of_chosen("Hold")
    eventually(id) { |song| points_of(song, move_id)[0].shape.still? }
    shape_of_chosen("Straight")
    eventually(id) { |song| points_of(song, move_id)[0].shape == shape("straight") }
  end

  it "chooses what the envelope does", :long do
    at_hand("Envelope")
    expect(page).to have_button("shift", class: "btn-secondary")
    before = json_of(snapshot(id).song)
    click_on "set"
    expect(page).to have_css(".notice", text: "largest difference heard")
    expect(json_of(snapshot(id).song)).to eq before
    click_on "Go on"
    eventually(id) { |song| song.clip("mooring").envelopes.first.role == "set" }
    click_on "scale"
    click_on "Go on"
    eventually(id) { |song| song.clip("mooring").envelopes.first.role == "scale" }
    click_on "once, over all"
    eventually(id) { |song| song.clip("mooring").envelopes.first.clock == "once" }
    at_hand("Envelope")
    within("[data-testid='envelope']") { click_on "Switch off" }
    expect(page.find("[data-testid='knob-#{cutoff}']")).to have_text("clip (off) + lane").or have_text("clip + lane")
    eventually(id) { |song| !song.clip("mooring").envelopes.first.on }
  end

  it "does all of it by keyboard: points are walked, nudged, removed; one is added at the playhead" do
    focus("point-#{move_id}-1")
    before = points_of(snapshot(id).song, move_id)[1]
    press_keys(:Up)
    eventually(id) { |song| (points_of(song, move_id)[1].value - before.value - 0.01).abs < 1e-9 }
    press_keys(:Right)
    eventually(id) { |song| points_of(song, move_id)[1].tick == before.tick + 240 }
    press_keys(:Delete)
    eventually(id) { |song| points_of(song, move_id).size == 3 }
    at_hand("Value")
    page.find("[data-testid='sum']").click_button("clip Mooring", match: :first)
    press_keys("p")
    eventually(id) { |song| points_of(song, move_id).size == 4 }
  end

  it "draws on the lane, and reads in the sum what clip and lane make together" do
    x, y = on_line(lane_id, 480)
    drag([x, y], 0, -20)
    eventually(id) { |song| points_of(song, lane_id).size == 6 }
    at_hand("Value")
    within("[data-testid='sum']") do
      expect(page).to have_text("knob").and have_text("lane").and have_text("clip Mooring").and have_text("heard")
      expected = KindSatchel::Heard::Explanation.new(snapshot(id).song, address(cutoff), 15_360).to_record["text"]
      expect(page).to have_css("[data-testid='sum-heard']", text: expected)
    end
  end

  it "shows the value at the playhead on the knobs, also when stopped" do
    press_ruler(411)
    tick = page.find("[data-testid='position']").text
    song = snapshot(id).song
    expected = song.parameter(address(cutoff)).text(heard(song, cutoff, song.meters.parse(tick)))
    expect(page).to have_css("[data-testid='value-#{cutoff}']", text: expected)
  end

  it "turns a knob by dragging and by keys" do
    drag(dial("rope-bass/synth/sub"), 0, -40)
    eventually(id) { |song| song.knob(address("rope-bass/synth/sub")) > 0.6 }
    page.find("[data-testid='knob-rope-bass/synth/sub'] [role=slider]").send_keys(:end)
    eventually(id) { |song| song.knob(address("rope-bass/synth/sub")) == 1.0 }
  end

  it "tells, beside a pointer that dragged a point and stays, what the point is now" do
    drag(middle("point-#{move_id}-1"), 0, 34)
    song = eventually(id) { |now| now.directory.envelope(move_id).envelope != DemoSong.build.directory.envelope(move_id).envelope }
    move = song.directory.envelope(move_id).envelope
    now = move.role_rules.amount_text(song.parameter(address(cutoff)).scale, move.amount(move.points[1].value))
    expect(page).to have_css("[data-testid='words']", text: "move this point · #{now}", visible: :all)
  end

  # How far, in pixels, the middles of the lines of the drawn edge lie from what the core has there, on the strip's own axis. Rows far out
  # of view are not drawn at all: nil, also for one that goes while it is looked at.
  def band_off(text)
    song = snapshot(id).song
    path = page.evaluate_script("document.querySelector(\"[data-testid='heard-#{text}'] .heard-edge\")?.getAttribute('d') ?? null") or return
    return Float::INFINITY unless path.start_with?("M")

    corners = path.scan(/([\d.]+) ([\d.]+)/).map { |x, y| [x.to_f, y.to_f] }
    resolver = KindSatchel::Heard::Resolver.new(song, address(text))
    lines = corners.each_cons(2).select { |(x0, _), (x1, _)| x1 - x0 > 2 }
    rows = lines.map { |(x0, y0), (x1, y1)| [(y0 + y1) / 2, resolver.at(((x0 + x1) / 2 / 0.027).round)] }
    low, high = rows.minmax_by(&:last)
    return 0.0 if high.nil? || high[1] - low[1] < 0.05

    slope = (high[0] - low[0]) / (high[1] - low[1])
    rows.map { |y, value| (low[0] + ((value - low[1]) * slope) - y).abs }.max
  end

  # Of every band on the page.
  def bands_off = told("[data-testid^='heard-']", "data-testid").filter_map { |name| band_off(name.delete_prefix("heard-")) }

  it "keeps the heard band of every unfolded track, and each as the core has it, after edits on any of them" do
    ["Fog Pad", "Bell Buoy"].each { |name| click_on "Unfold #{name}" }
    bands = told("[data-testid^='heard-']", "data-testid").map { |name| name.delete_prefix("heard-") }
    expect(bands.size).to be >= 3
    edited = bands.count do |text|
      home = snapshot(id).song.directory.envelopes.values.find { |one| one.envelope.target.to_s == text && one.envelope.points.size > 1 && one.envelope.on }
      next unless home && page.has_css?("[data-testid='point-#{home.envelope.id}-1']", visible: :all, wait: 2)

      before = revision(id)
      page.execute_script("document.querySelector('[data-testid=\"point-#{home.envelope.id}-1\"]').focus()")
      press_keys(home.envelope.points[1].value > 0.5 ? :Down : :Up)
      eventually(id) { revision(id) > before }
      eventually(id) { bands_off.then { |found| found.any? && found.all? { |off| off < 3 } } }
    end
    expect(edited).to be >= 3
  end

  it "says whose parameter it is, that a macro moves it, and goes with the track that is chosen" do
    song = snapshot(id).song
    driven = song.directory.driven.find { |one| song.directory.envelopes.values.none? { |home| home.envelope.target == one } }.to_s
    track = song.tracks_of(address(driven)).first
    at_hand("Value")
    page.find_all(:button, track.name, exact_text: true).first.click
    show_knob(driven)
    page.find("[data-testid='knob-#{driven}'] [role='slider']").native.node.focus
    expect(page).to have_css("[data-testid='at-hand'] h2", text: " of #{track.name}")
    x, y = dial(driven)
    mouse.click(x:, y:)
    expect(page).to have_css("[data-testid='at-hand']", text: "No envelope moves it; a macro does.")
    click_on "Crate Kit"
    expect(page).to have_css("[data-testid='at-hand'] h2", text: " of Crate Kit")
  end
end
