# frozen_string_literal: true

# What hands may rely on, by mouse and keys.
RSpec.describe "Hands in the studio" do
  let(:id) { plant }
  let(:mooring) { snapshot(id).song.clip("mooring").envelopes.first.id }
  let(:regions) { snapshot(id).song.track("rope-bass").regions }

  before { open_song(id) }

  def points(some = snapshot(id).song) = some.directory.envelope(mooring).envelope.points
  def playing? = page.has_css?("button[aria-label='Stop']", wait: 2)
  def soon?(what) = watch(what, ->(seen) { seen.any? && yield(seen.last) })
  def scroll_left = page.evaluate_script("document.querySelector('[data-testid=\"table\"]').scrollLeft")

  def focused
    page.evaluate_script("(it => it === document.body ? 'the page' : it.dataset.testid || it.id || it.tagName)(document.activeElement)")
  end

  # Where regions lie on Fog Pad that were not there.
  def copies(song)
    (song.track("fog-pad").regions.map(&:id) - DemoSong.build.track("fog-pad").regions.map(&:id)).map { |one| song.directory.region(one).region.start_tick }
  end

  it "plays at space after any press on a button, and during a drag; where the keyboard went to a button it presses that", :long do
    page.find("[role=toolbar]").click_button("Span")
    press_keys(" ")
    expect(playing?).to be true
    press_keys(" ")
    expect(page).to have_css("button[aria-label='Play']")
    page.find("[role=toolbar]").click_button("Points")
    drag(middle("point-#{mooring}-1"), 4, 20) do
      press_keys(" ")
      expect(playing?).to be true
    end
    eventually(id) { |now| points(now)[1].value < 0.2 }
    press_keys(" ")
    expect(page).to have_css("button[aria-label='Play']")
    page.find("[role=toolbar]").click_button("Points")
    press_keys(:Tab, " ")
    expect(page).to have_css("[role=toolbar] button[aria-pressed=true]", text: "Span")
  end

  it "takes hold of the first point at a loop's seam" do
    x, y = middle("point-#{mooring}-0", 1)
    drag([x, y], 0, -20)
    eventually(id) { |now| points(now)[0].value > 0.1 }
  end

  it "drops a drag when the pointer is lost" do
    drag(middle("point-#{mooring}-1"), 4, 20) do
      expect(page).to have_css("[data-testid='words']", visible: :all)
      page.execute_script("window.dispatchEvent(new Event('blur'))")
    end
    expect(page).to have_no_css("[data-testid='words']", text: "6.2", visible: :all)
    expect(snapshot(id).revision).to eq 1
  end

  it "never lets the focus fall to the page" do
    focus("point-#{mooring}-2")
    press_keys(:Delete)
    eventually(id) { |now| points(now).size == 3 }
    expect(soon?(-> { focused }) { |now| now == "point-#{mooring}-1" }).to be true
    press_keys(:Enter)
    expect(page).to have_css("#exact-value:focus")
    press_keys(*"+10".chars, :Enter)
    eventually(id) { |now| (points(now)[1].value - 0.1).abs < 1e-9 }
    expect(soon?(-> { focused }) { |now| now == "point-#{mooring}-1" }).to be true
    press_keys([:control, "z"])
    eventually(id) { |now| (points(now)[1].value - 0.1).abs > 1e-3 }
    focus(regions.first.id)
    press_keys(:Enter, :Down)
    eventually(id) { |now| now.track("fog-pad").regions.any? { |one| one.id == "region-11" } }
    expect(soon?(-> { focused }) { |now| now == "region-11" }).to be true
    page.find("[aria-label^='Undo:']").click
    eventually(id) { |now| now.track("rope-bass").regions.any? { |one| one.id == "region-11" } }
    expect(focused).not_to eq "the page"
  end

  it "unfolds the track of a new curve and brings it into view" do
    click_on "Fold Rope Bass"
    x, y = name_row(regions.first.id)
    mouse.click(x:, y: y - 2)
    click_on "Embed Release in Mooring", match: :first
    song = eventually(id) { |now| now.clip("mooring").envelopes.size == 2 }
    made = song.clip("mooring").envelopes.last.id
    expect(page).to have_css("[data-testid='line-#{made}']", visible: :all)
  end

  it "adds a point at a double press on empty ground, and moves a whole segment at full pace with Ctrl" do
    box = page.evaluate_script("(b => [b.x, b.y, b.height])(document.querySelector('[data-testid=\"ground-#{mooring}\"]').getBoundingClientRect())")
    2.times { mouse.click(x: box[0] + 120, y: box[1] + box[2] - 10) }
    song = eventually(id) { |now| points(now).size == 5 }
    expect(points(song).map(&:value).min).to be < -0.7
    press_keys([:control, "z"])
    eventually(id) { |now| points(now).size == 4 }
    x, y = on_line(mooring, middle("point-#{mooring}-0")[0] + 30)
    before = points.map(&:value)
    command = lambda { |type, **more|
      page.driver.browser.page.command("Input.dispatchMouseEvent", type:, button: "left", buttons: 1, clickCount: 1, modifiers: 2, **more)
    }
    command.call("mousePressed", x:, y:)
    4.times { |i| command.call("mouseMoved", x:, y: y - (6 * (i + 1))) }
    command.call("mouseReleased", x:, y: y - 24)
    after = points(eventually(id) { |now| points(now)[0].value > before[0] + 0.1 }).map(&:value)
    expect(after[0] - before[0]).to be > 0.3
    expect(after[1] - before[1]).to be_within(1e-9).of(after[0] - before[0])
  end

  it "pastes a copied span at the playhead, not where it was" do
    page.find("[role=toolbar]").click_button("Span")
    x, y = middle("point-#{mooring}-0")
    drag([x + 2, y + 30], 90, 0)
    press_keys([:control, "c"])
    expect(page).to have_css(".notice", text: "paste them at the playhead")
    press_ruler(bar_x(6) + 30)
    press_keys([:control, "v"])
    song = eventually(id) { |now| points(now).size > 4 }
    expect(points(song).map(&:tick).count { |tick| tick.between?(3840 + 900, 3840 + 1500) }).to be > 0
  end

  it "scrolls when a drag comes near the edge, and goes further for it" do
    show_bar(5)
    first = regions.first
    x, y = name_row(first.id)
    width = page.evaluate_script("document.querySelector('[data-testid=\"table\"]').getBoundingClientRect().right")
    before = scroll_left
    drag([x, y], width - x - 6, 0) { expect(soon?(-> { scroll_left }) { |now| now > before + 200 }).to be true }
    song = eventually(id) { |now| now.directory.region(first.id).region.start_tick > first.start_tick }
    expect(song.directory.region(first.id).region.start_tick).to be > first.start_tick + ((width - x) / 0.027)
  end

  it "copies what is under the hand when that is not chosen, and repeats a loop earlier at its left edge" do
    chosen, other = regions.first(2)
    x, y = name_row(chosen.id)
    mouse.click(x:, y:)
    x, y = name_row(other.id)
    drag([x, y], 0, middle("track-fog-pad")[1] - y, control: true)
    song = eventually(id) { |now| json_of(now) != json_of(DemoSong.build) }
    expect(song.track("rope-bass").regions.map(&:id)).to include(chosen.id, other.id)
    expect(copies(song)).to eq [other.start_tick]
    press_keys([:control, "z"])
    eventually(id) { |now| copies(now).empty? }
    show_bar(3)
    drag(middle("start-of-#{chosen.id}"), -104, 0)
    song = eventually(id) { |now| now.directory.region(chosen.id).region.start_tick == chosen.start_tick - 3840 }
    expect(song.directory.region(chosen.id).region.offset_ticks).to eq 3840
  end

  it "makes a row taller at its lower edge, keeps that, and shares the height at Fit" do
    height = -> { page.evaluate_script("document.querySelector('[data-testid=\"track-rope-bass\"]').getBoundingClientRect().height") }
    before = height.call
    drag([400, middle("edge-rope-bass")[1]], 0, 90)
    expect(soon?(height) { |now| (now - before - 90).abs < 4 }).to be true
    sleep 0.5
    visit "/songs/#{id}"
    expect(page).to have_css("[data-testid='edge-rope-bass']")
    expect(height.call).to be_within(4).of(before + 90)
    focus("edge-rope-bass")
    12.times { press_keys(:Up) }
    expect(height.call).to be < before
    click_on "Fit"
    expect(soon?(height) { |now| now >= before }).to be true
  end

  it "shows its keys, gives a deed another, and lets them rest; under the list nothing is touched" do
    focus("point-#{mooring}-1")
    press_keys("?")
    expect(page).to have_css("[role=dialog]")
    press_keys(:Delete)
    page.find("[role=dialog] button[aria-label^='Zoom in']").click
    press_keys("k")
    expect(page).to have_css("[role=dialog] button[aria-label^='Zoom in: K']")
    press_keys(:Escape)
    expect(page).to have_no_css("[role=dialog]")
    width = -> { page.evaluate_script("document.querySelector('[data-testid=\"#{regions.first.id}\"]').getBoundingClientRect().width") }
    before = width.call
    press_keys("k")
    expect(soon?(width) { |now| now > before * 1.2 }).to be true
    press_keys("?")
    page.find("[role=dialog] label", text: "single keys act").click
    press_keys(:Escape)
    expect(page).to have_no_css("[role=dialog]")
    now = width.call
    press_keys("k")
    sleep 0.3
    expect(width.call).to eq now
    page.execute_script("localStorage.removeItem('satchel-keys')")
    expect(snapshot(id).revision).to eq 1
  end

  it "stays where a hand has scrolled while it plays, until asked to follow" do
    click_on "Play"
    expect(sounds?).to be true
    page.driver.browser.page.command("Input.dispatchMouseEvent", type: "mouseWheel", x: 500, y: 300, deltaX: 900, deltaY: 0)
    expect(page).to have_button("Follow")
    soon?(-> { scroll_left }) { |now| now > 1000 }
    far = scroll_left
    sleep 0.6
    expect(scroll_left).to be_within(60).of(far)
    click_on "Follow"
    expect(soon?(-> { scroll_left }) { |now| now < far - 100 }).to be true
    click_on "Stop"
  end

  it "says once that the server is away, and goes on by itself when it is back" do
    offline = lambda { |on|
      page.driver.browser.page.command("Network.emulateNetworkConditions", offline: on, latency: 0, downloadThroughput: -1, uploadThroughput: -1)
    }
    page.execute_script("window.asked = 0; const real = window.fetch; window.fetch = (...all) => { window.asked += 1; return real(...all); }")
    offline.call(true)
    drag(middle("point-#{mooring}-1"), 0, 20)
    expect(page).to have_css("[role=status]", text: "The server is away", count: 1)
    before = page.evaluate_script("window.asked")
    sleep 1.5
    expect(page.evaluate_script("window.asked") - before).to be < 5
    offline.call(false)
    expect(page).to have_no_css("[role=status]", text: "The server is away", wait: 8)
    expect(snapshot(id).revision).to eq 1
    drag(middle("point-#{mooring}-1"), 0, 20)
    eventually(id) { |now| points(now)[1].value < 0.15 }
  end
end
