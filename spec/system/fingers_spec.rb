# frozen_string_literal: true

# Nothing that looks like a scroll or a zoom changes the song.
RSpec.describe "Fingers in the studio" do
  let(:id) { plant }
  let(:mooring) { snapshot(id).song.clip("mooring").envelopes.first.id }

  before do
    Capybara.current_driver = :phone
    page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
    open_song(id, size: :phone)
  end

  def points(some = snapshot(id).song) = some.directory.envelope(mooring).envelope.points
  def table = page.evaluate_script("(t => [t.scrollLeft, t.scrollTop])(document.querySelector('[data-testid=\"table\"]'))")
  def width = page.evaluate_script("document.querySelector('[data-testid=\"region-11\"]').getBoundingClientRect().width")

  def fingers(type, *places)
    touches = places.map.with_index { |(x, y), i| { x:, y:, id: i } }
    page.driver.browser.page.command("Input.dispatchTouchEvent", type:, touchPoints: touches)
  end

  it "scrolls by a swipe up or down from a mark that is not chosen, and drags one that is" do
    mark = -> { middle("point-#{mooring}-1") }
    value = -> { points[1].value }
    before = [revision(id), value.call]
    top = mark.call[1]
    swipe(mark.call, 0, -70)
    expect(watch(-> { mark.call[1] }, ->(seen) { seen.size > 4 && seen.last(4).uniq.one? })).to be true
    expect([mark.call[1] < top - 20, revision(id), value.call]).to eq [true, *before]
    tap(mark.call)
    expect(page).to have_css(".mark.chosen", visible: :all)
    swipe(mark.call, 0, 24)
    eventually(id) { value.call < before[1] - 0.1 }
    tick = points[2].tick
    swipe(middle("point-#{mooring}-2"), 18, 0)
    eventually(id) { |song| points(song)[2].tick > tick }
  end

  it "zooms by two fingers that come down on points, and changes nothing" do
    before = width
    x, y = middle("point-#{mooring}-0")
    fingers("touchStart", [x, y])
    fingers("touchMove", [x, y + 9])
    fingers("touchStart", [x, y + 9], [x + 90, y])
    5.times { |i| fingers("touchMove", [x, y + 9], [x + 90 + (14 * (i + 1)), y]) }
    fingers("touchEnd")
    expect(watch(-> { width }, ->(seen) { seen.any? && seen.last > before * 1.2 })).to be true
    sleep 0.3
    expect(snapshot(id).revision).to eq 1
    expect(page).to have_no_css("[data-testid='words']", visible: :all)
  end

  it "scrolls from a bare line, from the bar numbers and from knobs sideways; a tap on the line adds a point" do
    line = on_line(mooring, middle("point-#{mooring}-0")[0] + 32)
    swipe(line, -90, 0)
    expect(watch(-> { table[0] }, ->(seen) { seen.any? && seen.last > 440 })).to be true
    left = table[0]
    swipe([300, middle("ruler")[1] - 8], -80, 0)
    expect(watch(-> { table[0] }, ->(seen) { seen.any? && seen.last > left + 30 })).to be true
    sleep 0.3
    expect([snapshot(id).revision, snapshot(id).song.range]).to eq [1, DemoSong.build.range]
    show_bar(5)
    tap(on_line(mooring, middle("point-#{mooring}-0")[0] + 32))
    eventually(id) { |now| points(now).size == 5 }
  end

  it "adds a point by a tap between two that stand close, and drags the nearer one" do
    x0, = middle("point-#{mooring}-1")
    x1, = middle("point-#{mooring}-2")
    expect(x1 - x0).to be < 42
    tap(on_line(mooring, (x0 + x1) / 2))
    song = eventually(id) { |now| points(now).size == 5 }
    expect(points(song)[2].tick).to be_between(4801, 6239)
    swipe(middle("point-#{mooring}-1"), 0, 14)
    eventually(id) { |now| points(now)[1].value < 0.38 }
  end

  it "sets the playhead by a tap on the bar numbers, and the range by its ends" do
    x, y = middle("ruler")
    tap([[x, 250].min, y - 6])
    expect(page).to have_css("[data-testid='position']", text: /\A[56]\.\d\.\d+/)
    edge = middle("range-start")
    swipe([edge[0] + 6, edge[1]], 104, 0)
    eventually(id) { |now| now.range.start_tick == DemoSong.build.range.start_tick + 3840 }
  end

  it "keeps the curve that is typed at in sight while a screen keyboard covers the rest" do
    show_bar(5)
    tap(middle("point-#{mooring}-1"))
    at_hand("Points")
    page.find_field("Value").click
    page.driver.resize(390, 500)
    expect(page).to have_no_css("nav")
    seen = watch(-> { page.evaluate_script(<<~JS) }, ->(all) { all.any? && all.last })
      (() => { const [curve, sheet, bar] = ["[data-testid='line-#{mooring}']", ".sheet", "[data-testid='ruler']"]
                 .map((one) => document.querySelector(one).getBoundingClientRect());
               return curve.top >= bar.bottom - 1 && curve.bottom <= sheet.top && sheet.bottom <= 500; })()
    JS
    expect(seen).to be true
    expect(page.find_field("Value").evaluate_script("document.activeElement === this")).to be true
  ensure
    page.driver.resize(390, 844)
  end

  it "says the value over the finger, in the top bar where there is no room above, and never beyond the view" do
    show_bar(5)
    tap(middle("point-#{mooring}-1"))
    expect(page).to have_css(".mark.chosen", visible: :all)
    x, y = middle("point-#{mooring}-1")
    box = lambda do
      words = page.find("[data-testid='words']", visible: :all)
      page.evaluate_script("(b => [b.left, b.right, b.top, b.bottom])(arguments[0].getBoundingClientRect())", words)
    end
    swipe([x, y], 0, 16) { @low = box.call }
    expect(@low[3]).to be_within(4).of(y + 16 - 56)
    eventually(id) { |now| points(now)[1].value < 0.38 }
    x, y = middle("point-#{mooring}-1")
    swipe([x, y], 0, -200) { @high = box.call }
    expect(@high[2]).to be < 48
    expect([@low, @high].map { |left, right,| left >= 124 && right <= 390 }).to eq [true, true]
  end

  # Presses land where a finger's middle is; what is drawn smaller reaches further (its ::after, or its own box).
  it "offers nothing to press that is smaller than a fingertip, in any sheet", :long do
    small = lambda do
      page.evaluate_script(<<~JS)
        [...document.querySelectorAll("button, select, input, [role=tab], .fold")].flatMap((it) => {
          const box = it.getBoundingClientRect();
          if (box.width === 0 || box.bottom < 0 || box.top > innerHeight || it.closest("[hidden]")) return [];
          const after = getComputedStyle(it, "::after");
          const more = after.content !== "none" && after.position === "absolute" ? -2 * parseFloat(after.top) : 0;
          const [width, height] = [box.width + more, box.height + more];
          return width >= 43.5 && height >= 43.5 ? [] : [`${it.getAttribute("aria-label") || it.textContent} ${Math.round(width)}x${Math.round(height)}`];
        })
      JS
    end
    expect(page.evaluate_script("matchMedia('(pointer: coarse)').matches")).to be true
    tap(middle("point-#{mooring}-1"))
    found = { "song" => small.call }
    at_hand("Points")
    page.find_all(".fold").each(&:click)
    found["points"] = small.call
    show_panel("At hand")
    tap(name_row(snapshot(id).song.track("rope-bass").regions.first.id))
    ["Knobs", "At hand", "Finder", "Clip", "Track", "Song"].each do |sheet|
      show_panel(sheet)
      found[sheet] = small.call
    end
    expect(found.reject { |_, list| list.empty? }).to eq({})
  end
end
