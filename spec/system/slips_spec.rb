# frozen_string_literal: true

# A press, a tap and a key do what was meant, and nothing beside it.
RSpec.describe "A hand in the studio" do
  include Hands

  let(:id) { plant }
  # As it was at first.
  let!(:song) { snapshot(id).song }
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

    it "zooms about the playhead, or about what is chosen; either stays in sight", :long do
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

  it "puts the keyboard on a point that was pressed: digits and Enter give it a value, and no key of the view chooses a region", :long do
    open_song(id)
    x, y = middle("point-#{mooring}-1")
    mouse.click(x:, y:)
    press_keys("4")
    expect(page).to have_css("input#exact-value:focus")
    press_keys("4 %", :Enter)
    eventually(id) { |now| (points(now)[1].value - 0.44).abs < 1e-6 }
    press_keys(:Escape)
    page.execute_script("document.querySelector('[data-testid=\"#{region.id}\"]').focus()")
    press_keys("d")
    expect(page).to have_css("[aria-label='Notes of Rope Bass']")
    expect(page).to have_no_css(".region-chosen")
  end

  it "opens the name of a marker that was just made; Enter keeps what was typed, Escape what it is called, and shortcuts sleep" do
    open_song(id)
    known = song.markers.map(&:id)
    press_ruler(bar_x(6) + 30)
    press_keys("j")
    expect(page).to have_css("input#marker-name:focus")
    press_keys("Door z", :Enter)
    eventually(id) { |now| now.markers.any? { |one| known.exclude?(one.id) && one.name == "Door z" } }
    expect(page).to have_no_css("input#marker-name")
    press_ruler(bar_x(7) + 30)
    press_keys("j")
    expect(page).to have_css("input#marker-name:focus")
    press_keys(:Escape)
    expect(page).to have_no_css("input#marker-name")
  end

  it "takes arrows that follow each other as one step of undo" do
    open_song(id)
    mouse.click(x: middle("point-#{mooring}-1")[0], y: middle("point-#{mooring}-1")[1])
    before = points
    4.times { press_keys(:Up) }
    eventually(id) { |now| (points(now)[1].value - before[1].value - 0.04).abs < 1e-6 }
    press_keys([:control, "z"])
    eventually(id) { |now| points(now) == before }
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

    it "turns two faders at once, each by its own finger, and slides across by going across" do
      show_panel("Mixer")
      faders = -> { %w[crate-kit rope-bass].map { |track| middle("slide-#{track}/channel/volume") } }
      expect(watch(faders, ->(seen) { seen.size > 3 && seen.last(3).uniq.size == 1 })).to be true
      first, second = faders.call
      one = lambda do |type, *places|
        touches = places.each_with_index.map { |(x, y), i| { x:, y:, id: i } }
        page.driver.browser.page.command("Input.dispatchTouchEvent", type:, touchPoints: touches)
      end
      one.call("touchStart", first)
      one.call("touchStart", first, second)
      6.times { |i| one.call("touchMove", [first[0], first[1] - (4 * i)], [second[0], second[1] + (4 * i)]) }
      one.call("touchEnd")
      eventually(id) do |now|
        volumes = [now, song].map { |all| %w[crate-kit rope-bass].map { |track| all.track(track).channel.values["volume"] } }
        volumes[0][0] != volumes[1][0] && volumes[0][1] != volumes[1][1]
      end
      pan = middle("slide-crate-kit/channel/pan")
      swipe(pan, 24, 0)
      eventually(id) { |now| now.track("crate-kit").channel.values["pan"] != song.track("crate-kit").channel.values["pan"] }
    end

    it "makes the first clip of a new track by one tap" do
      edit(id, "add_track", { kind: "notes", name: "Reed" })
      page.refresh
      expect(page).to have_css("[data-testid='ruler']", wait: 40)
      press_on(Hands::ALL[:finger], page.find(:button, "Make a clip on Reed", visible: :all))
      eventually(id) { |now| now.tracks.find { |track| track.name == "Reed" }.regions.size == 1 }
      expect(page).to have_no_button("Make a clip on Reed")
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
