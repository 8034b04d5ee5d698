# frozen_string_literal: true

# Moves recorded by hand while the song plays: by mouse, keys and finger.
RSpec.describe "Performing" do
  include Hands

  let(:id) { plant }
  let(:cutoff) { "rope-bass/synth/cutoff" }

  def song = snapshot(id).song
  def position = page.find("[data-testid='position']").text
  def running = watch(-> { position }, ->(seen) { seen.uniq.size > 2 })

  # Until the song has gone back to the start of what it repeats.
  def next_lap
    watch(-> { position.split(".")[1].to_i }, ->(beats) { beats.each_cons(2).any? { |before, now| now < before } && beats.last < 3 })
  end

  def record = page.find("[aria-label^='Record moves']", match: :first).click
  def stop = page.find("[aria-label='Stop recording']", match: :first).click

  def knob(address)
    show_knob(address)
    page.find("[data-testid='knob-#{address}'] [role=slider]")
  end

  def envelope(clip, parameter, role) = song.clip(clip).envelopes.find { |one| one.target.parameter_id == parameter && one.role == role }
  def way(name, words) = page.find("[aria-label='#{name}']").select(words)

  def open_bass
    open_uncounted(id)
    click_on "Rope Bass", exact: true
  end

  def ways
    click_on "How it is recorded"
    yield
    press_keys(:Escape)
    expect(page).to have_no_css(".pop-box")
  end

  # A hand on a dial: down, up by so many pixels in steps, and, after the block, let go.
  def sweep(address, pixels = 60, steps: 12)
    x, y = dial(address)
    mouse.move(x:, y:).down
    steps.times do |i|
      mouse.move(x:, y: y - (pixels * (i + 1) / steps.to_f))
      sleep 0.03
    end
    yield if block_given?
    mouse.up
  end

  it "writes a filter sweep into the bass clip, says what it is about to write over, and is one step of undo", :long do
    open_bass
    click_on "How it is recorded"
    expect(page.find("[data-testid='written-over']")).to have_text("Cutoff in Mooring (4 regions)")
    press_keys(:Escape)
    before = json_of(song)
    record
    expect(page).to have_css("[aria-label='Arm Rope Bass'][aria-pressed='true']")
    expect(running).to be true
    sweep(cutoff) do
      expect(page).to have_css("[data-testid='knob-#{cutoff}']", text: "writing")
      expect(page).to have_css("[data-testid='writing']", visible: :all)
    end
    expect(page).to have_css("[data-testid='knob-#{cutoff}']", text: "armed")
    stop
    eventually(id) { json_of(song) != before }
    expect(envelope("mooring", "cutoff", "shift").points.size).to be > 4
    expect(page).to have_css("[data-testid='thinned-#{cutoff}']", text: /points, (within .* % of what|just as it) was played/)
    expect(page).to have_css("[aria-label='Arm Rope Bass'][aria-pressed='false']")
    page.find("body").send_keys(:space)
    press_keys([:control, "z"])
    eventually(id) { json_of(song) == before }
  end

  it "turns the dial of the sound in the very moment the hand moves, and the song turns it again when it lets go" do
    open_bass
    record
    expect(running).to be true
    x, y = dial(cutoff)
    mouse.move(x:, y:).down
    turned = page.evaluate_script(<<~JS)
      (() => { const plain = AudioParam.prototype.linearRampToValueAtTime, values = [];
               AudioParam.prototype.linearRampToValueAtTime = function (value, at) { values.push(value); return plain.call(this, value, at); };
               for (const up of [30, 90])
                 window.dispatchEvent(new PointerEvent("pointermove", { pointerId: 1, clientX: #{x}, clientY: #{y} - up }));
               AudioParam.prototype.linearRampToValueAtTime = plain;
               return values; })()
    JS
    expect(turned.size).to be >= 2
    expect(turned.last).to be > turned.first * 1.5
    mouse.up
    stop
  end

  it "records two laps, the second only where it was touched; makes it coarser; then one point is put exactly", :long do
    open_bass
    drag([bar_x(6) + 1, middle("ruler")[1] - 6], 102, 0)
    eventually(id) { |now| (now.range.end_tick - now.range.start_tick - BAR).abs <= 960 }
    press_ruler(bar_x(6) + 4)
    record
    expect(running).to be true
    sweep(cutoff, 50)
    eventually(id) { |now| now.clip("mooring").envelopes.find { |one| one.target.to_s == cutoff }.points.size > 5 }
    expect(next_lap).to be true
    sweep(cutoff, -40)
    stop
    # Laps that go by untouched are counted too.
    expect(page).to have_css("[data-testid^='lap-']", minimum: 2, visible: :all)
    expect(page.find("[aria-label^='Undo: record']")["aria-label"]).to match(/Cutoff|a pass/)
    page.find("body").send_keys(:space)
    laps = passes.first["laps"]
    expect(laps.size).to be >= 2
    fine = envelope("mooring", "cutoff", "shift").points.size
    page.find("[aria-label='How fine it is written']").send_keys(:end)
    eventually(id) { envelope("mooring", "cutoff", "shift").points.size < fine }
    points = envelope("mooring", "cutoff", "shift").points
    edit(id, "enter_points", { envelope_id: envelope("mooring", "cutoff", "shift").id, runs: [[1, 1]], value: "+25 %" })
    eventually(id) { envelope("mooring", "cutoff", "shift").points[1].value == 0.25 }
    expect(points.size).to be >= 3
    expect(page).to have_text("Its points were changed since")
  end

  it "shows what was played also where the pass is stopped long after the last touch", :long do
    open_bass
    edit(id, "set_range", { on: true, start_tick: 5 * BAR, end_tick: 6 * BAR })
    press_ruler(bar_x(6) + 4)
    record
    expect(running).to be true
    sweep(cutoff, 50)
    2.times { expect(next_lap).to be true }
    sleep 0.5
    stop
    expect(page).to have_css("[data-testid='thinned-#{cutoff}']")
  end

  it "takes the best of three laps, and a stretch of another", :long do
    three = [0.2, 0.5, 0.8]
    three.each_with_index do |value, lap|
      edit(id, "record_moves", { pass: "one", lap:, from_seconds: 10.5, to_seconds: 20, into: "clip", role: "set",
                                 moves: [{ address: cutoff, grips: [{ samples: [11, value], until_seconds: 15 }] }] })
    end
    open_bass
    show_panel("Takes")
    click_on "lap 2"
    eventually(id) { |now| (heard(now, cutoff, now.tempo.tick_at(12).round) - 0.5).abs < 0.011 }
    expect(page).to have_css("[aria-pressed='true']", text: "lap 2")
    expect(page).to have_css("[data-testid='thinned-#{cutoff}']", text: /points, /)
    expect(page).to have_css("[role=status]", text: "Done: write Cutoff again")
    x, y = middle("lap-2")
    drag([x - 60, y], 40, 0)
    eventually(id) { |now| [17_000, 19_000].zip([0.5, 0.8]).all? { |tick, value| (heard(now, cutoff, tick) - value).abs < 0.011 } }
    expect(passes.first["parts"].map { |part| part["lap"] }).to eq [1, 2, 1]
    type_into("Glides over", "0.5")
    eventually(id) { passes.first["join_ticks"] == 480 }
  end

  it "records a send throw as latch into the lane", :long do
    open_bass
    click_on "Gull Chop", exact: true
    ways do
      way("Where moves go", "into the lane")
      way("How long they are written", "latch: on to the end of the lap")
    end
    press_ruler(bar_x(9) + 2)
    record
    expect(running).to be true
    send = "gull-chop/channel/send-echo-pier"
    sweep(send, 80)
    sleep 0.5
    stop
    eventually(id) { |now| now.track("gull-chop").lane_for(address(send), "set") }
    lane = song.track("gull-chop").lane_for(address(send), "set")
    lap = passes.first["laps"].first
    expect(lap["strokes"].last.last).to be > 0.3
    expect(lane.at(lap["to_tick"] - 5)).to be_within(0.011).of(lap["strokes"].last.last)
    expect(lane.at(lap["to_tick"] - 300)).to be_within(0.011).of(lap["strokes"].last.last)
  end

  it "writes what arrow keys do with an armed knob; one that is not armed stays out of it", :long do
    open_bass
    focus("knob-#{cutoff}")
    knob(cutoff).click
    press_keys([:shift, "a"])
    expect(page).to have_css("[aria-label='Disarm Cutoff'][aria-pressed='true']", visible: :all)
    record
    expect(running).to be true
    5.times { knob(cutoff).send_keys(:up) }
    knob("rope-bass/synth/resonance").send_keys(:up)
    sleep 0.6
    stop
    eventually(id) { passes.any? }
    expect(passes.map { |pass| pass["address"] }).to eq [cutoff]
  end

  it "takes over a moving knob without a jump, says so, and hands it back by one press", :long do
    open_bass
    page.find("body").send_keys(:space)
    expect(running).to be true
    sweep(cutoff, 20, steps: 3)
    eventually(id) { |now| now.held.map(&:to_s) == [cutoff] }
    click_on "Hand Cutoff back", match: :first
    eventually(id) { |now| now.held.empty? }
  end

  it "offers again what was played when the page is closed in the middle of it", :long do
    open_bass
    record
    expect(running).to be true
    x, y = dial(cutoff)
    mouse.move(x:, y:).down
    8.times do |i|
      mouse.move(x:, y: y - (8 * i))
      sleep 0.05
    end
    sleep 0.2
    page.execute_script("for (const key of Object.keys(localStorage)) if (key.startsWith('kind-satchel-pass:') && key.split(':').length === 3) " \
                        "localStorage.setItem(key, localStorage.getItem(key).replace(/\"touched\":\\d+/, '\"touched\":1'))")
    visit "/songs/#{id}"
    mouse.up
    expect(page).to have_text("Recording was broken off")
    click_on "Go on"
    eventually(id) { passes.any? }
    expect(passes.first["laps"].first["samples"]).to be > 5
    eventually(id) { page.evaluate_script("Object.keys(localStorage).filter((key) => key.startsWith('kind-satchel-pass:')).length").zero? }
  end

  it "by finger on a phone: press record, turn, stop" do
    open_uncounted(id, size: :phone)
    feel_for(:finger)
    tap(place_of(page.find_button("Rope Bass", exact: true)))
    page.find("nav button", text: "Knobs").click
    record
    expect(running).to be true
    x, y = dial(cutoff)
    touch("touchStart", x, y)
    8.times do |i|
      touch("touchMove", x, y - (6 * (i + 1)))
      sleep 0.04
    end
    touch("touchEnd")
    stop
    eventually(id) { passes.any? }
    expect(passes.first["address"]).to eq cutoff
  end

  def passes = get_json("/api/songs/#{id}/passes")
end
