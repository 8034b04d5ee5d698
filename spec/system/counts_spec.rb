# frozen_string_literal: true

# What hands meet many times over, counted: a tenth of each count here, all of it in the long run.
RSpec.describe "Hands that never slip" do
  include Hands

  let(:id) { plant }
  let(:random) { Random.new(Seeds.list(1).first) }

  times = ->(all) { ENV["SATCHEL_LONG"] ? all : all / 10 }
  # Pixels between neighbours, and how many ticks those are at the usual zoom.
  apart = 20
  step = (apart / 0.027 / 60).round * 60

  # A lane with points so near each other, all on the screen.
  def lane_of_points(count, step)
    edit(id, "add_lane", { address: "bell-buoy/channel/pan" })
    lane = snapshot(id).song.track("bell-buoy").lanes.find { |one| one.target.to_s == "bell-buoy/channel/pan" }.id
    count.times { |i| edit(id, "add_point", { envelope_id: lane, tick: (4 * BAR) + 960 + (i * step), value: 0.3 + (0.05 * (i % 5)) }) }
    lane
  end

  def points(lane, now = snapshot(id).song) = now.directory.envelope(lane).envelope.points

  it "drags the point that was meant, of those that stand near, and no other" do
    lane = lane_of_points(14, step)
    open_song(id)
    click_on "Unfold Bell Buoy"
    show_parameter("Bell Buoy", "Pan")
    expect(watch(-> { middle("point-#{lane}-3") }, ->(seen) { seen.size > 4 && seen.last(4).uniq.one? })).to be true
    first = points(lane).size - 14
    times.call(100).times do
      index = first + random.rand(14)
      before = points(lane)
      # Up or down, but never against the end of the travel, where nothing would move.
      down = { true => true, false => random.rand(2).zero? }[before[index].value > 0.65] && before[index].value > 0.35
      drag(middle("point-#{lane}-#{index}"), 0, (down ? 1 : -1) * (12 + random.rand(8)))
      now = points(lane, eventually(id) { |song| points(lane, song) != before })
      moved = now.each_index.reject { |i| now[i] == before[i] }
      expect([now.size, moved]).to eq [before.size, [index]]
    end
  end

  it "adds a point where a finger taps, however it wanders, and none where it scrolls, pinches or rests" do
    open_song(id, size: :phone)
    feel_for(:finger)
    mooring = snapshot(id).song.clip("mooring").envelopes.first.id
    x0, = middle("point-#{mooring}-0")
    times.call(100).times do
      before = points(mooring).size
      place = on_line(mooring, x0 + [27, 34, 41, 90, 97, 104].sample(random:))
      touch("touchStart", *place)
      2.times { touch("touchMove", place[0] + random.rand(-5..5), place[1] + random.rand(-5..5)) }
      touch("touchEnd")
      eventually(id) { |song| points(mooring, song).size == before + 1 }
      made = points(mooring)[1]
      expect(made.tick).to be_within(240).of((place[0] - x0) / 0.027)
      press_keys([:control, "z"])
      eventually(id) { |song| points(mooring, song).size == before }
    end
    revision = snapshot(id).revision
    times.call(200).times { by_finger(random.rand(5), [150 + random.rand(200), 420 + random.rand(250)]) }
    sleep 0.5
    expect(snapshot(id).revision).to eq revision
  end

  # A swipe up or down, a swipe sideways, a pinch, a rest, a palm that lies down with five places.
  def by_finger(way, place)
    x, y = place
    case way
    when 0 then swipe(place, 0, random.rand(-150..150))
    when 1 then swipe(place, random.rand(-120..120), 0)
    when 3 then rest(place)
    else touches(way == 2 ? [[x - 30, y], [x + 30, y]] : Array.new(5) { |i| [x + (i * 9), y + (i.odd? ? 14 : 0)] })
    end
  end

  # What opens then is put away.
  def rest(place)
    touch("touchStart", *place)
    sleep 0.7
    touch("touchEnd")
    press_keys(:Escape)
  end

  def touches(places)
    send = lambda do |type, all|
      spots = all.each_with_index.map { |(x, y), i| { x:, y:, id: i } }
      page.driver.browser.page.command("Input.dispatchTouchEvent", type:, touchPoints: spots)
    end
    send.call("touchStart", places)
    3.times { |i| send.call("touchMove", places.map { |x, y| [x + (i * random.rand(-6..6)), y + (i * random.rand(-6..6))] }) }
    send.call("touchEnd", [])
  end

  it "scrolls and zooms by wheel and trackpad, over marks as well, and never changes the song or leaves it" do
    open_song(id)
    mooring = snapshot(id).song.clip("mooring").envelopes.first.id
    marks = Array.new(3) { |i| middle("point-#{mooring}-#{i}") }
    before = [snapshot(id).revision, page.current_path]
    view = lambda do
      page.evaluate_script(<<~JS)
        (t => [t.scrollLeft, t.scrollTop, t.querySelector("[data-testid=range]").getBoundingClientRect().width])(document.querySelector("[data-testid=table]"))
      JS
    end
    first = view.call
    times.call(100).times do |i|
      x, y = i.even? ? marks.sample(random:) : [240 + random.rand(640), 130 + random.rand(400)]
      across, up = random.rand(-180..180), random.rand(-180..180)
      wheel = { type: "mouseWheel", x:, y:, deltaX: across, deltaY: up, modifiers: [0, 2, 8][i % 3] }
      page.driver.browser.page.command("Input.dispatchMouseEvent", **wheel)
    end
    last = nil
    expect(watch(-> { last = view.call }, ->(all) { all.size > 3 && all.last(3).uniq.one? })).to be true
    expect([[snapshot(id).revision, page.current_path], page.evaluate_script("visualViewport.scale")]).to eq [before, 1]
    expect(last.zip(first).map { |now, was| now == was }).to include false
  end

  it "bears presses anywhere: no error of the page, and undo brings back what was there" do
    open_song(id)
    before = json_of(snapshot(id).song)
    count = times.call(300)
    heaps = Array.new(count) do |i|
      mouse.click(x: 30 + random.rand(880), y: 60 + random.rand(720))
      press_keys(:Escape) if page.has_css?("[role=menu], [role=dialog]", wait: 0)
      [100, 300].include?(i + 1) ? heap : nil
    end.compact
    expect(page).to have_css("[data-testid='ruler']")
    expect(heaps.last - heaps.first).to be < 2_000_000 if heaps.size == 2
    Server.edit_log.undo(id, revision(id)) while snapshot(id).undo
    expect(json_of(snapshot(id).song)).to eq before
  end

  def heap
    page.driver.browser.page.command("HeapProfiler.collectGarbage")
    page.driver.browser.page.command("Runtime.getHeapUsage")["usedSize"]
  end
end
