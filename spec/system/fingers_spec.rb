# frozen_string_literal: true

# Nothing that looks like a scroll or a zoom changes the song.
RSpec.describe "Fingers in the studio" do
  let(:id) { plant }
  let(:mooring) { standing(id).song.clip("mooring").envelopes.first.id }

  before do
    Capybara.current_driver = :phone
    page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
    open_song(id, size: :phone)
  end

  def points(some = standing(id).song) = some.directory.envelope(mooring).envelope.points
  def table = page.evaluate_script("(t => [t.scrollLeft, t.scrollTop])(document.querySelector('[data-testid=\"table\"]'))")
  def width = page.evaluate_script("document.querySelector('[data-testid=\"region-11\"]').getBoundingClientRect().width")

  def fingers(type, *places)
    touches = places.map.with_index { |(x, y), i| { x:, y:, id: i } }
    page.driver.browser.page.command("Input.dispatchTouchEvent", type:, touchPoints: touches)
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
    expect(standing(id).revision).to eq 1
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
    expect([standing(id).revision, standing(id).song.range]).to eq [1, DemoSong.build.range]
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
end
