# frozen_string_literal: true

# What a new user does in the envelope editor: with the mouse, with the keyboard, with a finger.
RSpec.describe "Drawing moves" do
  let(:id) { plant }
  let(:move_id) { clip_envelope("mooring").id }

  def song = snapshot(id).song
  def clip_envelope(clip_id, target = nil, from: song) = from.clip(clip_id).envelopes.find { |one| target.nil? || one.target.to_s == target }
  def master = song.track("master").lanes.find { |lane| lane.target.to_s == "master/channel/volume" }
  def first_region = song.track("rope-bass").regions.first
  def ticks(envelope) = envelope.points.map(&:tick)
  def choice = page.find("[data-testid='choice-span']").text

  def undo_all
    page.find("button[title^='Undo: ']").click while page.has_css?("button[title^='Undo: ']", wait: 0.5)
  end

  # Places on the strip of an envelope, from shares of the window and of the height.
  def place(envelope_id, across, up, nth = 0)
    page.find_all("[data-testid='ground-#{envelope_id}']", minimum: nth + 1, visible: :all)
    x, y, width, height = page.evaluate_script(<<~JS)
      (() => { const box = document.querySelectorAll('[data-testid="ground-#{envelope_id}"]')[#{nth}].getBoundingClientRect();
               return [box.x, box.y, box.width, box.height]; })()
    JS
    [x + (width * across), y + (height * (1 - up))]
  end

  def stroke(*places)
    mouse.move(x: places[0][0], y: places[0][1]).down
    places.each_cons(2) { |(ax, ay), (bx, by)| 4.times { |i| mouse.move(x: ax + ((bx - ax) * (i + 1) / 4.0), y: ay + ((by - ay) * (i + 1) / 4.0)) } }
    yield if block_given?
    mouse.up
  end

  # Presses a button with the keyboard.
  def by_key(button)
    button.evaluate_script("this.focus()")
    press_keys(:Enter)
  end

  def tool(name) = page.find("[role=toolbar]").click_button(name)

  def at_hand_points
    at_hand("Points")
    panel { nil }
  end

  # The panel, all of it unfolded.
  def panel(&)
    within("[data-testid='edit']") do
      page.find_all(".fold[aria-expanded=false]", wait: 0).each(&:click)
      yield
    end
  end

  def embed(parameter, region: first_region)
    focus(region.id)
    press_keys(:Enter)
    words = "Embed #{parameter} in #{song.clip(region.clip_id).name}"
    page.all("[data-testid^='open-']", wait: 1).each(&:click) if page.has_no_button?(words, visible: :all, wait: 1)
    page.find_button(words, visible: :all, match: :first).then { |button| by_key(button) }
  end

  describe "with the mouse" do
    before { open_song(id) }

    it "sweeps a filter open over two bars with a bend" do
      embed("Tone")
      eventually(id) { |now| clip_envelope("mooring", "rope-bass/drive/tone", from: now) }
      sweep = clip_envelope("mooring", "rope-bass/drive/tone").id
      tool "Ramp"
      stroke(place(sweep, 0.01, 0.1), place(sweep, 0.97, 0.95)) { expect(page).to have_css("[data-testid='words']", text: /Hz · /, visible: :all) }
      eventually(id) { |now| points_of(now, sweep).size >= 2 }
      tool "Points"
      bend = points_of(song, sweep).index { |point| point.shape.text == "straight" }
      drag(middle("bend-#{sweep}-#{bend}"), 0, 30)
      eventually(id) { |now| points_of(now, sweep)[bend].shape.text.start_with?("curved") }
      expect(heard(song, "rope-bass/drive/tone", (4 * BAR) + 7000)).to be > heard(song, "rope-bass/drive/tone", (4 * BAR) + 300) + 0.4
    end

    it "makes a choppy stepped gate on the grid, over just what the stroke covers" do
      tool "Steps"
      before = clip_envelope("mooring")
      stroke(*(0..8).map { |i| place(move_id, 0.5 + (i * 0.05), i.odd? ? 0.9 : 0.1) })
      eventually(id) { |now| points_of(now, move_id).count { |point| point.shape.text == "hold" } > 8 }
      expect(points_of(song, move_id).map(&:tick).grep(3840..5000) { |tick| tick % 240 }.uniq).to eq [0]
      expect(clip_envelope("mooring").at(3000)).to be_within(1e-9).of(before.at(3000))
    end

    it "fades the master out over the last four bars, its start exactly level" do
      click_on "Unfold Master"
      show_bar(27)
      tool "Span"
      y = middle("lane-master")[1]
      stroke([bar_x(29), y], [bar_x(33), y])
      at_hand_points
      expect(choice).to include "29.1.0 to 33.1.0"
      panel { click_on "Fade out" }
      eventually(id) { master.points.last.value.zero? && ticks(master).max == 32 * BAR }
      expect([master.at((28 * BAR) - 1), master.at(28 * BAR), master.at(32 * BAR)]).to eq [master.at(0), master.at(0), 0.0]
      expect(page).to have_no_css("[data-testid='uneven']", visible: :all)
    end

    it "flips, stretches and halves a copied move on another clip, and gets back with undo", :long do
      start = json_of(song)
      mouse.click(x: middle("point-#{move_id}-1")[0], y: middle("point-#{move_id}-1")[1])
      at_hand_points
      panel { click_on "All" }
      expect(choice).to include "4 points"
      panel { click_on "Copy" }
      expect(page).to have_text("4 points copied")
      show_bar(13)
      other = clip_envelope("cast-off", "rope-bass/synth/cutoff").id
      mouse.click(x: middle("point-#{other}-0")[0], y: middle("point-#{other}-0")[1])
      panel { click_on "Paste at half length" }
      half = eventually(id) { |now| points_of(now, other).size > 4 }
      expect(points_of(half, other).map(&:value).first(3)).to eq [0.0, 0.42, 0.18]
      panel { click_on "Upside down" }
      eventually(id) { |now| (points_of(now, other)[1].value - -0.08).abs < 1e-9 }
      drag(middle("stretch-end"), -26, 0)
      eventually(id) { |now| points_of(now, other)[1].tick < 2400 }
      drag(middle("scale-top"), 0, 15)
      eventually(id) { |now| points_of(now, other)[0].value < 0.3 }
      undo_all
      expect(json_of(song)).to eq start
    end

    it "chooses by loop, through and singly, says so, and moves just what is chosen" do
      x, y = middle("point-#{move_id}-1")
      stroke([x - 12, y - 20], [x + 60, y - 20], [x + 60, y + 40], [x - 12, y + 40])
      at_hand_points
      expect(choice).to start_with "2 points, 2.2.0 to 2.3.480"
      before = points_of(song, move_id)
      drag(middle("point-#{move_id}-2"), 26, 15)
      moved = eventually(id) { |now| points_of(now, move_id)[2].tick == before[2].tick + 960 }
      now = points_of(moved, move_id)
      expect([now[1].tick - before[1].tick, (now[1].value - before[1].value).round(9), now[0],
              now[3]]).to eq [960, (now[2].value - before[2].value).round(9), before[0], before[3]]
      panel { click_on "None" }
      expect(page).to have_css("[aria-label='Points'] .section-line", text: "4, none chosen")
    end

    it "shapes segments, and sets count and skew by their marks and by typing", :long do
      mouse.click(x: middle("point-#{move_id}-0")[0], y: middle("point-#{move_id}-0")[1])
      page.find("[aria-label='The chosen points']").click_button("Shape")
      page.find("[role=menuitem]", text: "Sine").click
      eventually(id) { |now| points_of(now, move_id)[0].shape.text == "4 cycles of sine" }
      drag(middle("bend-#{move_id}-0"), 70, 0)
      eventually(id) { |now| points_of(now, move_id)[0].shape.cycles == 8 }
      at_hand_points
      type_into "Count", "3"
      eventually(id) { |now| points_of(now, move_id)[0].shape.cycles == 3 }
      drag(middle("skew-#{move_id}-0"), 12, 0)
      eventually(id) { |now| points_of(now, move_id)[0].shape.skew > 0.6 }
      page.find_field("a cycle lasts").select("1/8")
      eventually(id) { |now| points_of(now, move_id)[0].shape.note_ticks == 480 }
      type_into "Count", "none" if page.has_field?("Count", wait: 0)
    end

    it "says at the field what is wrong with a value, a position or an amount, and changes nothing", :long do
      mouse.click(x: middle("point-#{move_id}-1")[0], y: middle("point-#{move_id}-1")[1])
      at_hand_points
      { "Value" => ["900 %", "outside"], "In the clip" => ["9.9", "outside the meter"], "In the song" => ["1.1", "this region goes from"],
        "Raise or lower by" => ["loud", "no amount"], "Grow or shrink to %" => ["much", "is a number"],
        "Stretch from" => ["soon", "not a position"] }.each do |field, (text, words)|
        type_into field, text
        expect(page).to have_css("[role=alert]", text: words)
      end
      expect(snapshot(id).revision).to eq 1
      type_into "Value", "+20"
      type_into "In the song", "6.1.120"
      eventually(id) { |now| points_of(now, move_id)[1].tick == 3960 && (points_of(now, move_id)[1].value - 0.2).abs < 1e-9 }
    end

    it "warns of a fade that does not start level, and levels it at one press" do
      click_on "Unfold Master"
      show_bar(27)
      expect(page).to have_css("[data-testid='uneven']", visible: :all)
      mouse.click(x: middle("point-#{master.id}-1")[0], y: middle("point-#{master.id}-1")[1])
      at_hand_points
      click_on "Make it level"
      eventually(id) { master.points[1].value == master.points[0].value }
      expect(page).to have_no_css("[data-testid='uneven']", visible: :all)
    end

    it "turns between the envelopes shown, rubs out, and pushes what is later along" do
      press_keys("h")
      expect(page).to have_button("Envelopes shown: all to edit")
      press_keys("hh")
      expect(page).to have_button("Envelopes shown: others faintly")
      tool "Push"
      drag(middle("point-#{move_id}-1"), 26, 0)
      eventually(id) { |now| points_of(now, move_id).map(&:tick) == [0, 5760, 7200, 8640] }
      tool "Rub out"
      click_on "Push"
      stroke(place(move_id, 0.3, 0.5), place(move_id, 0.6, 0.5))
      eventually(id) { |now| points_of(now, move_id).any? { |point| point.tick.between?(2000, 2600) } }
    end
  end

  describe "with the keyboard" do
    before { open_song(id) }

    it "finds a parameter by a part of its name and puts it in a clip; sweeps, bends, gates, undoes", :long do
      focus(first_region.id)
      press_keys(:Enter)
      press_keys("/")
      expect(page).to have_css("#finder:focus")
      press_keys(*"drive ton".chars)
      expect(page).to have_text(/\b\d of \d+ parameters/)
      press_keys(:Enter)
      page.find_button("Embed Tone in Mooring", visible: :all, match: :first).then { |button| by_key(button) }
      eventually(id) { |now| clip_envelope("mooring", "rope-bass/drive/tone", from: now) }
      sweep = clip_envelope("mooring", "rope-bass/drive/tone").id
      expect(page).to have_css("[data-testid='point-#{sweep}-0'].chosen", visible: :all, minimum: 1)
      press_keys(:PageDown)
      expect(page).to have_css("[data-testid='position']", text: "6.1.0")
      press_keys("p")
      expect(page).to have_css("[data-testid='point-#{sweep}-1'].chosen", visible: :all, minimum: 1)
      press_keys(:Enter)
      expect(page).to have_css("#exact-value:focus")
      press_keys(*"12 kHz".chars, :Enter)
      eventually(id) { |now| points_of(now, sweep)[1].value > 0.8 }
      focus("point-#{sweep}-1")
      press_keys(%i[shift tab])
      expect(page).to have_css("[data-testid='choice-span']", text: "1 point, 1.1.0")
      panel { page.find_button("curved").then { |button| by_key(button) } }
      eventually(id) { |now| points_of(now, sweep)[0].shape.text == "curved 0.40" }
      panel { page.find_button("square").then { |button| by_key(button) } }
      type_into "Count", "8"
      eventually(id) { |now| points_of(now, sweep)[0].shape.cycles == 8 }
      press_keys([:control, "z"])
      eventually(id) { |now| points_of(now, sweep)[0].shape.cycles == 4 }
    end

    it "fades the master over typed positions, and flips, halves and copies a whole move", :long do
      focus(first_region.id)
      press_keys("/")
      expect(page).to have_css("#finder:focus")
      press_keys(*"master channel volume".chars, :Enter)
      expect(page).to have_css("[data-testid='lane-master']")
      focus("point-#{master.id}-0")
      at_hand_points
      type_into "Stretch to", "33.1"
      type_into "Stretch from", "29.1"
      panel { page.find_button("Fade out").then { |button| by_key(button) } }
      eventually(id) { master.at(28 * BAR) == master.at(0) && master.points.last.tick == 32 * BAR }
      focus("point-#{move_id}-0")
      press_keys([:control, "a"])
      expect(page).to have_css("[data-testid='choice-span']", text: "4 points")
      panel { page.find_button("Upside down").then { |button| by_key(button) } }
      panel { page.find_button("Halve").then { |button| by_key(button) } }
      eventually(id) { |now| points_of(now, move_id).last.tick == 3840 && points_of(now, move_id).first.value > 0.3 }
      expect(page).to have_css("[data-testid='choice-span']", text: "4 points, 1.1.0 to 2.1.0")
      press_keys([:control, "c"])
      expect(page).to have_text("4 points copied")
      press_keys(:Escape)
      focus("point-#{move_id}-3")
      press_keys(:Delete)
      eventually(id) { |now| points_of(now, move_id).size == 3 }
    end
  end

  describe "with a finger" do
    before do
      open_song(id, size: :phone)
      page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
    end

    def touch(type, spot = nil)
      page.driver.browser.page.command("Input.dispatchTouchEvent", type:, touchPoints: spot ? [{ x: spot[0], y: spot[1] }] : [])
    end

    def finger(*places)
      touch("touchStart", places[0])
      places.each_cons(2) { |(ax, ay), (bx, by)| 4.times { |i| touch("touchMove", [ax + ((bx - ax) * (i + 1) / 4.0), ay + ((by - ay) * (i + 1) / 4.0)]) } }
      touch("touchEnd")
    end

    it "draws steps and a ramp, bends, chooses by loop, and flips", :long do
      tool "Steps"
      finger(*(0..6).map { |i| place(move_id, 0.1 + (i * 0.08), i.odd? ? 0.9 : 0.2) })
      eventually(id) { |now| points_of(now, move_id).count { |point| point.shape.text == "hold" } > 4 }
      tool "Ramp"
      finger(place(move_id, 0.05, 0.15), place(move_id, 0.9, 0.9))
      ramp = eventually(id) { |now| points_of(now, move_id).count { |point| point.shape.text == "hold" } < 4 }
      tool "Points"
      place_of_ramp = points_of(ramp, move_id).index { |point| point.shape.text == "straight" && point.tick.between?(0, 600) }
      x, y = middle("bend-#{move_id}-#{place_of_ramp}")
      finger([x, y])
      expect(page).to have_css(".mark.chosen", visible: :all)
      finger([x, y], [x, y + 25])
      eventually(id) { |now| points_of(now, move_id)[place_of_ramp].shape.text.start_with?("curved") }
      tool "Lasso"
      finger(place(move_id, 0.02, 0.02), place(move_id, 0.98, 0.02), place(move_id, 0.98, 0.98), place(move_id, 0.02, 0.98))
      at_hand_points
      before = points_of(song, move_id).map(&:value)
      panel { click_on "Upside down" }
      eventually(id) { |now| points_of(now, move_id).map(&:value) != before }
      expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
    end

    it "fades the master, and copies a move to another clip", :long do
      show_panel "Finder"
      page.find_field("Find a parameter").set("master channel volume")
      page.find("[data-testid='found-master/channel/volume']").click
      page.find("nav [aria-expanded='true']").click
      show_bar(28)
      spot = middle("point-#{master.id}-1")
      finger(spot)
      at_hand_points
      type_into "Stretch from", "29.1"
      type_into "Stretch to", "33.1"
      panel { click_on "Fade out" }
      eventually(id) { master.at(28 * BAR) == master.at(0) && master.points.last.tick == 32 * BAR }
      click_on "Undo: fade out Volume"
      eventually(id) { master.points.last.tick < 32 * BAR }
    end
  end
end
