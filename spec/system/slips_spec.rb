# frozen_string_literal: true

# A press, a tap and a key do what was meant, and nothing beside it.
RSpec.describe "A hand in the studio" do
  let(:id) { plant }
  let(:song) { snapshot(id).song }
  let(:mooring) { song.clip("mooring").envelopes.first.id }
  let(:region) { song.track("rope-bass").regions.find { |one| one.clip_id == "mooring" } }

  def points(now = snapshot(id).song) = now.directory.envelope(mooring).envelope.points
  def placed = snapshot(id).song.directory.region(region.id).region
  def box = page.evaluate_script("(b => [b.x, b.y, b.width, b.height])(document.querySelector('[data-testid=\"#{region.id}\"]').getBoundingClientRect())")
  def scroll = page.evaluate_script("document.querySelector('[data-testid=\"table\"]').scrollLeft")
  def position = page.find("[data-testid='position']").text

  describe "by mouse" do
    def show_notes
      open_song(id)
      page.find("[data-testid='strip-switch-rope-bass']").click
      expect(page).to have_css("[aria-label='Notes of Rope Bass']")
    end

    it "chooses, trims and moves a region whose notes are shown: its title and its edges are its own" do
      show_notes
      mouse.click(x: box[0] + 40, y: box[1] + 8)
      expect(page).to have_css("[data-testid='#{region.id}'][aria-pressed='true']")
      drag([box[0] + box[2] - 3, box[1] + 70], -104, 0)
      eventually(id) { placed.length_ticks == region.length_ticks - 3840 }
      drag([box[0] + 40, box[1] + 8], 104, 0)
      eventually(id) { placed.start_tick == region.start_tick + 3840 }
      expect(snapshot(id).song.clip("mooring").notes).to eq song.clip("mooring").notes
    end

    it "goes to a bar by its number" do
      open_song(id)
      number = page.find("[data-testid='ruler'] [data-number='#{4 * 3840}']", text: "5")
      x, y, width = page.evaluate_script("(b => [b.x, b.y, b.width])(arguments[0].getBoundingClientRect())", number)
      mouse.click(x: x + width - 1, y: y + 6)
      expect(page).to have_css("[data-testid='position']", text: /\A5\.1\.0\b/)
    end

    it "zooms about the playhead, or about what is chosen; either stays in sight" do
      open_song(id)
      across = lambda do |css|
        page.evaluate_script("(b => b.x + b.width / 2)(document.querySelector(#{css.to_json}).getBoundingClientRect())")
      end
      press_ruler(880)
      4.times { click_on "Zoom in" }
      expect(watch(-> { across.call("[data-testid='playhead']") }, ->(seen) { seen.any? && (seen.last - 880).abs < 12 })).to be true
      4.times { click_on "Zoom out" }
      mouse.click(x: box[0] + 40, y: box[1] + 8)
      4.times { click_on "Zoom in" }
      expect(watch(-> { across.call(".region-chosen") }, ->(seen) { seen.any? && seen.last.between?(188, 940) })).to be true
    end

    it "adds one point by presses that come before the first is answered" do
      open_song(id)
      before = points.size
      x, y = on_line(mooring, middle("point-#{mooring}-0")[0] + 32)
      page.execute_script(<<~JS, x, y)
        const [x, y] = arguments;
        const ground = document.elementFromPoint(x, y);
        for (let turn = 0; turn < 3; turn += 1)
          for (const type of ["pointerdown", "pointerup"])
            ground.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1, button: 0, clientX: x, clientY: y, pointerType: "mouse" }));
      JS
      eventually(id) { points.size > before }
      sleep 0.5
      expect(points.size).to eq before + 1
    end
  end

  it "goes along the knobs by Tab without changing what the track shows; Enter shows one" do
    open_song(id)
    focus("knob-rope-bass/synth/decay")
    page.execute_script("document.querySelector('[data-testid=\"knob-rope-bass/synth/decay\"] [role=slider]').focus()")
    sleep 0.4
    expect(page).to have_no_css("[data-testid='knob-rope-bass/synth/decay'] .bg-base-300")
    press_keys(:Enter)
    expect(page).to have_css("[data-testid='knob-rope-bass/synth/decay'] .bg-base-300")
  end

  describe "by finger" do
    before do
      Capybara.current_driver = :phone
      page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
      open_song(id, size: :phone)
    end

    it "adds a point for every tap on a clear line, however it wanders within ten pixels" do
      x0, = middle("point-#{mooring}-0")
      # Where neither a point nor the mark in the middle of the segment is near.
      [26, 38, 91, 103].each_with_index do |into, turn|
        place = on_line(mooring, x0 + into)
        touch("touchStart", *place)
        touch("touchMove", place[0] + 5, place[1] - 6)
        touch("touchMove", place[0] + (turn.even? ? 3 : -8), place[1] + 4)
        touch("touchEnd")
        eventually(id) { |now| points(now).size == 5 }
        expect(points[1].tick).to be_within(240).of(into / 0.027)
        press_keys([:control, "z"])
        eventually(id) { |now| points(now).size == 4 }
      end
    end

    it "adds nothing by a long press on the line, and trims nothing by a swipe from the edge of a region" do
      place = on_line(mooring, middle("point-#{mooring}-0")[0] + 32)
      touch("touchStart", *place)
      sleep 0.7
      touch("touchEnd")
      swipe([box[0] + box[2] - 4, box[1] + 8], -60, 0)
      sleep 0.5
      expect(snapshot(id).revision).to eq 1
    end
  end
end
