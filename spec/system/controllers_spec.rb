# frozen_string_literal: true

# Controllers: learnt, followed, recorded, pulled out; by the one that ships, which sends what a real one would.
RSpec.describe "Controllers in the studio" do
  include Hands

  let(:id) { plant }
  let(:cutoff) { "rope-bass/synth/cutoff" }
  let(:device) { "simulated controller" }

  def song = snapshot(id).song
  def position = page.find("[data-testid='position']").text
  def running = watch(-> { position }, ->(seen) { seen.uniq.size > 2 })
  def say(*bytes) = page.execute_script("dispatchEvent(new CustomEvent('satchel-keyboard', { detail: { bytes: #{bytes} } }))")
  def controls(number, *values) = values.each { |value| say(0xb0, number, value) && sleep(0.03) }
  def passes = get_json("/api/songs/#{id}/passes")

  def map(control, target, kind: "absolute", pickup: "jump", low: 0, high: 1, device: "simulated controller")
    lists = get_json("/api/songs/#{id}/mappings")
    post_json("/api/songs/#{id}/mappings", { song: lists["song"] + [{ device:, control:, target:, kind:, pickup:, low:, high: }] })
  end

  def open_bass
    open_uncounted(id)
    click_on "Rope Bass", exact: true
  end

  it "learns, and drives, from the finder: the parameter is said first", :long do
    edit(id, "add_device", { track_id: "rope-bass", type: "macro-strip" })
    open_bass
    click_on "Hands", exact: true
    show_panel "Finder"
    fill_in "Find a parameter", with: "spread"
    act = lambda do |words|
      page.find("button[aria-label='What can be done with Spread']").click
      page.find("[role=menuitem]", text: words, match: :first).click
    end
    act.call("Learn")
    expect(page).to have_text("Turn or press the control that is to turn Spread")
    controls(71, 30, 40, 50)
    eventually(id) { get_json("/api/songs/#{id}/mappings")["song"].any? }
    expect(get_json("/api/songs/#{id}/mappings")["song"].first.values_at("control", "target")).to eq ["cc/0/71", { "address" => "fog-pad/synth/spread" }]
    act.call("Drive by Macro 1 of Rope Bass")
    eventually(id) { |now| now.directory.driver(address("fog-pad/synth/spread")) }
    expect(page).to have_css("[role=status]", text: "let Macro 1 drive Spread of Pad synth on Fog Pad")
  end

  it "learns: press Learn, turn the hardware, touch the knob; it is kept with the song and turns it at once", :long do
    open_bass
    click_on "Hands", exact: true
    click_on "Controllers"
    click_on "Learn"
    controls(74, 30, 40)
    expect(page).to have_text("controller 74 of simulated controller")
    x, y = dial("rope-bass/synth/sweep")
    mouse.click(x:, y:)
    eventually(id) { get_json("/api/songs/#{id}/mappings")["song"].any? }
    learnt = get_json("/api/songs/#{id}/mappings")["song"].first
    expect(learnt.values_at("control", "target", "kind")).to eq ["cc/0/74", { "address" => "rope-bass/synth/sweep" }, "absolute"]
    controls(74, 0, 64, 127)
    eventually(id) { |now| (now.knob(address("rope-bass/synth/sweep")) - 1).abs < 0.001 }
    expect(page).to have_css("[aria-label^='Undo: turn Sweep']")
  end

  it "is recorded while it plays, its rest taken for letting go", :long do
    map("cc/0/20", { address: cutoff })
    open_bass
    page.find("[aria-label^='Record moves']", match: :first).click
    expect(running).to be true
    controls(20, *(20..100).step(4).to_a)
    sleep 0.6
    page.find("[aria-label='Stop recording']", match: :first).click
    eventually(id) { passes.any? }
    samples = passes.first["laps"].first["strokes"].first
    expect(samples.each_slice(2).map(&:last)).to start_with(be_within(0.02).of(samples[1])).and end_with(be_within(0.01).of(100 / 127.0))
  end

  it "understands pairs, encoders, wheels, and notes as switches", :long do
    map("cc14/0/1", { address: "rope-bass/synth/sweep" })
    map("cc/0/30", { address: "rope-bass/synth/attack" }, kind: "twos")
    map("bend/0", { address: "rope-bass/channel/pan" })
    map("note/0/40", { address: "rope-bass/channel/mute" }, kind: "toggle")
    open_bass
    before = song.knob(address("rope-bass/synth/attack"))
    say(0xb0, 1, 64)
    say(0xb0, 33, 1)
    eventually(id) { |now| (now.knob(address("rope-bass/synth/sweep")) - (((64 * 128) + 1) / 16_383.0)).abs < 1e-3 }
    10.times { say(0xb0, 30, 127) }
    eventually(id) { |now| (now.knob(address("rope-bass/synth/attack")) - [before - 0.05, 0].max).abs < 0.001 }
    say(0xe0, 127, 127)
    eventually(id) { |now| now.knob(address("rope-bass/channel/pan")) == 1 }
    say(0x90, 40, 100)
    say(0x80, 40, 0)
    eventually(id) { |now| now.knob(address("rope-bass/channel/mute")) == 1 }
  end

  it "waits to be caught, so that nothing jumps" do
    map("cc/0/21", { address: "rope-bass/synth/sweep" }, pickup: "catch")
    open_bass
    at = (song.knob(address("rope-bass/synth/sweep")) * 127).round
    controls(21, 127, 126)
    sleep 0.8
    expect(song.knob(address("rope-bass/synth/sweep"))).to be_within(0.01).of(at / 127.0)
    controls(21, at + 5, at - 5, at - 20)
    eventually(id) { |now| (now.knob(address("rope-bass/synth/sweep")) - ((at - 20) / 127.0)).abs < 0.01 }
  end

  it "follows the device at hand by sets of eight; the arrows turn to the next" do
    map("cc/0/22", { slot: 1 })
    map("cc/0/23", { deed: "next_set" })
    open_bass
    click_on "Hands", exact: true
    expect(page).to have_css("[data-testid='set-page']", text: "1 of 2")
    controls(23, 127, 0)
    expect(page).to have_css("[data-testid='set-page']", text: "2 of 2")
    ninth = address("rope-bass/synth/#{KindSatchel::Devices::TYPES.fetch('mono-synth').parameters.keys[8]}")
    controls(22, 100)
    eventually(id) { |now| (now.knob(ninth) - now.parameter(ninth).scale.heard(100 / 127.0)).abs < 0.02 }
  end

  it "of two hands on one knob the last to touch has it, which is said; a flood and broken messages do no harm" do
    map("cc/0/20", { address: cutoff })
    open_bass
    x, y = dial(cutoff)
    mouse.move(x:, y:).down
    mouse.move(x:, y: y - 20)
    controls(20, 10)
    expect(page).to have_text("Cutoff: simulated controller has it now, no longer the screen.")
    mouse.move(x:, y: y - 90)
    mouse.up
    page.execute_script(<<~JS)
      for (let i = 0; i < 10000; i++)
        dispatchEvent(new CustomEvent("satchel-keyboard", { detail: { bytes: i % 3 ? [0xb0, 20, i % 128] : [0xb0], at: i % 5 ? performance.now() : NaN } }));
      dispatchEvent(new CustomEvent("satchel-keyboard", { detail: { bytes: [0xb0, 20, 64] } }));
    JS
    eventually(id) { |now| now.held_value(address(cutoff)).then { |value| value && (value - (64 / 127.0)).abs < 0.001 } }
    expect(page).to have_button("Play")
  end

  it "moves the faders of the controller as the song moves what they turn, but for the one that is held" do
    map("cc/0/102", { address: cutoff })
    open_bass
    click_on "Hands", exact: true
    click_on "Simulated"
    fader = page.find("[aria-label='Fader 1']")
    seen = watch(-> { page.evaluate_script("document.querySelector('[aria-label=\"Fader 1\"]').value") }, ->(list) { list.last.to_f > 0.1 })
    expect(seen).to be true
    page.find("body").send_keys(:space)
    expect(watch(-> { fader.value }, ->(list) { list.uniq.size > 3 })).to be true
  end

  it "turns two knobs by the pad in one step of undo" do
    open_bass
    click_on "Hands", exact: true
    page.find("[aria-label='What the pad turns across']").select("Sweep of Rope Bass")
    page.find("[aria-label='What the pad turns up']").select("Attack of Rope Bass")
    before = json_of(song)
    x, y = middle("pad")
    drag([x, y], 40, -30)
    names = %w[sweep attack].map { |name| address("rope-bass/synth/#{name}") }
    eventually(id) { |now| names.all? { |name| now.knob(name) != DemoSong.build.knob(name) } }
    press_keys([:control, "z"])
    eventually(id) { |now| json_of(now) == before }
  end

  it "turns delay time and feedback by the pad, both as one hand, and writes both", :long do
    open_bass
    page.find("header button", text: /\AEcho Pier/).click
    click_on "Hands", exact: true
    page.find("[aria-label='What the pad turns across']").select("Time of Echo Pier")
    page.find("[aria-label='What the pad turns up']").select("Feedback of Echo Pier")
    page.find("[aria-label^='Record moves']", match: :first).click
    expect(running).to be true
    x, y = middle("pad")
    mouse.move(x:, y:).down
    10.times do |i|
      mouse.move(x: x + (4 * i), y: y - (5 * i))
      sleep 0.04
    end
    expect(page).to have_css("[data-testid='pad-now'][points*=' ']", visible: :all)
    mouse.up
    page.find("[aria-label='Stop recording']", match: :first).click
    eventually(id) { passes.size == 2 }
    expect(passes.map { |pass| pass["name"] }).to contain_exactly("Time", "Feedback")
    press_keys([:control, "z"])
    eventually(id) { |now| now.track("echo-pier").lanes.none? { |lane| %w[time feedback].include?(lane.target.parameter_id) } }
  end
end
