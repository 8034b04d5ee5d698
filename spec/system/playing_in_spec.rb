# frozen_string_literal: true

# Notes played in on the keys of the screen, by typing, and by the simulated controller, while the song plays.
RSpec.describe "Playing in" do
  include Hands

  let(:id) { plant }
  let(:count) { DemoSong.build.clip("mooring").notes.size }

  def song = snapshot(id).song
  def notes = song.clip("mooring").notes
  def set(name, words) = page.find("[aria-label='#{name}']").select(words)
  def key(pitch) = place_of(page.find("[data-pitch='#{pitch}']"))
  def record = page.find("[aria-label^='Record moves'], [aria-label='Record notes']", match: :first).click
  def stop = page.find("[aria-label='Stop recording']", match: :first).click
  def position = page.find("[data-testid='position']").text
  def running = watch(-> { position }, ->(seen) { seen.uniq.size > 2 })

  # A message of the simulated controller, so many milliseconds ago.
  def keyboard(*bytes, ago: 0)
    page.execute_script("dispatchEvent(new CustomEvent('satchel-keyboard', { detail: { bytes: #{bytes}, at: performance.now() - #{ago} } }))")
  end

  # Notes of the simulated controller that begin 20 to 200 ms before the playhead left a tick, each of a pitch of its own: told by the page
  # itself, right when its position changes, so that no time passes between reading and playing; what is shown lags on a busy machine, so
  # that there are several. Bars of four beats at one tempo.
  def before_start(tick, pitches)
    page.evaluate_async_script(<<~JS)
      const done = arguments[0], shown = document.querySelector("[data-testid='position']");
      const ms = 60000 / #{song.tempo.bpm_at(tick)} / 960;
      const now = () => { const [bar, beat, rest] = shown.innerText.split(".").map(Number); return ((bar - 1) * 4 + beat - 1) * 960 + rest; };
      const watch = new MutationObserver(() => {
        watch.disconnect();
        const since = (now() - #{tick}) * ms;
        const play = (bytes, ago) => dispatchEvent(new CustomEvent("satchel-keyboard", { detail: { bytes, at: performance.now() - since - ago } }));
        #{pitches.to_a}.forEach((pitch, i) => play([0x90, pitch, 80], 200 - i * 20));
        #{pitches.to_a}.forEach((pitch) => play([0x80, pitch, 0], -200));
        done(since);
      });
      watch.observe(shown, { childList: true, characterData: true, subtree: true });
    JS
  end

  def open_keys(track = "Rope Bass")
    open_song(id)
    click_on track, exact: true
    click_on "Keys", exact: true
    set("Count-in", "no count-in")
  end

  it "writes what the mouse plays on the keys into the clip that sounds, while it is seen; undo takes it back" do
    open_keys
    record
    expect(running).to be true
    x, y = key(48)
    mouse.move(x:, y:).down
    expect(page).to have_css("[data-pitch='48'][data-held]")
    sleep 0.2
    mouse.move(x: key(50)[0], y:)
    expect(page).to have_css("[data-pitch='50'][data-held]")
    sleep 0.2
    mouse.up
    expect(page).to have_css("[data-testid='taken']", count: 2)
    stop
    eventually(id) { notes.size >= count + 2 }
    made = notes.select { |note| [48, 50].include?(note.pitch) && note.length_ticks > 100 }
    expect(made.map(&:pitch)).to include(48, 50)
    expect(page).to have_css("[aria-label='Undo: record 2 notes into Mooring']")
    press_keys([:control, "z"])
    eventually(id) { notes.size == count }
  end

  it "plays by typing: two rows as of a keyboard, black keys above; letters do nothing else meanwhile; Escape ends it", :long do
    open_keys
    press_keys([:shift, "k"])
    expect(page).to have_css("[aria-pressed='true']", text: "type to play")
    expect(told("[data-pitch='36'] kbd, [data-pitch='37'] kbd, [data-pitch='48'] kbd")).to eq ["Z", ", Q", "S"]
    record
    expect(running).to be true
    press_keys("z")
    press_keys("s")
    press_keys("m")
    press_keys("2")
    sleep 0.1
    stop
    eventually(id) { ([36, 37, 47, 49] - notes.map(&:pitch)).empty? }
    expect(page).to have_css("[aria-label='Points'][aria-pressed='true']").or have_css("button[aria-pressed='true']", text: "Points")
    press_keys(:Escape)
    expect(page).to have_css("[aria-pressed='false']", text: "type to play")
  end

  it "counts in: the playhead waits, what is played right before the start stands on it", :long do
    open_keys
    # Four bars of 4/4 at 92 BPM last 10.4 s; they are heard without the click too.
    set("Count-in", "count 4 bars")
    set("Click", "no click")
    set("Keyboard", "simulated controller")
    at = song.meters.parse(position)
    record
    expect(sounds?).to be true
    expect(song.meters.parse(position)).to eq at
    expect(running).to be true
    before_start(at, 72..81)
    stop
    eventually(id) { |now| now.clip("mooring").notes.any? { |note| note.pitch.between?(72, 81) && note.tick < 60 } }
  end

  it "records a loop: each lap is written before it begins again, and adds; or it replaces what it goes over", :long do
    open_keys
    set("Keyboard", "simulated controller")
    drag([bar_x(6) + 1, middle("ruler")[1] - 6], 102, 0)
    eventually(id) { |now| (now.range.end_tick - now.range.start_tick - BAR).abs <= 960 }
    press_ruler(bar_x(6) + 4)
    record
    expect(running).to be true
    keyboard(0x90, 74, 80)
    keyboard(0x80, 74, 0)
    eventually(id) { notes.any? { |note| note.pitch == 74 } }
    keyboard(0x90, 75, 80)
    keyboard(0x80, 75, 0)
    eventually(id) { (notes.map(&:pitch) & [74, 75]).size == 2 }
    expect(notes.size).to be >= count
    click_on "replaces"
    keyboard(0x90, 76, 80)
    keyboard(0x80, 76, 0)
    eventually(id) { notes.any? { |note| note.pitch == 76 } && notes.size < count }
    stop
    expect(page).to have_css("[aria-label^='Record moves'], [aria-label='Record notes']")
  end

  it "writes what was played when the song is stopped while a key is held, and each part of a pass where the playhead jumps" do
    open_keys
    set("Keyboard", "simulated controller")
    before = notes.size
    record
    expect(running).to be true
    keyboard(0x90, 70, 80)
    keyboard(0x80, 70, 0)
    press_ruler(bar_x(8) + 2)
    eventually(id) { notes.any? { |note| note.pitch == 70 } }
    expect(running).to be true
    begun = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    keyboard(0x90, 71, 80)
    sleep 0.3
    page.find("body").send_keys(:space)
    expect(page).to have_css("[aria-label^='Record moves'], [aria-label='Record notes']").and have_button("Play")
    # A slow page may hear of the key late: it was held for as long as this at the most.
    most = song.tempo.tick_at(Process.clock_gettime(Process::CLOCK_MONOTONIC) - begun)
    eventually(id) { notes.any? { |note| note.pitch == 71 && note.length_ticks.between?(200, most) } }
    expect(notes.size).to be_between(before + 1, before + 2)
    2.times { press_keys([:control, "z"]) }
    eventually(id) { notes.size == before }
  end

  it "keeps what was played while the server is away, and writes it once it is there again", :long do
    open_keys
    set("Keyboard", "simulated controller")
    record
    expect(running).to be true
    keyboard(0x90, 73, 80)
    keyboard(0x80, 73, 0)
    away = lambda do |offline|
      page.driver.browser.page.command("Network.emulateNetworkConditions", offline:, latency: 0, downloadThroughput: -1, uploadThroughput: -1)
    end
    away.call(true)
    stop
    expect(page).to have_css("[role=alert]")
    expect(notes.map(&:pitch)).not_to include 73
    away.call(false)
    eventually(id) { notes.one? { |note| note.pitch == 73 } }
  end

  it "takes a tapped tempo once the hand rests", :long do
    open_keys
    place = place_of(page.find(:button, "Tap the tempo"))
    times = Array.new(5) do
      mouse.click(x: place[0], y: place[1])
      Process.clock_gettime(Process::CLOCK_MONOTONIC).tap { sleep 0.35 }
    end
    tapped = 60 / ((times.last - times.first) / 4)
    eventually(id) { |now| (now.tempo.bpm_at(0) - tapped).abs < tapped * 0.15 && now.tempo.bpm_at(0) != 92 }
  end

  it "plays a kit by fingers on a phone, several at once" do
    open_song(id, size: :phone)
    feel_for(:finger)
    tap(place_of(page.find_button("Crate Kit", exact: true)))
    show_panel("Keys")
    set("Count-in", "no count-in")
    before = song.clip("crates").notes
    record
    expect(running).to be true
    kick, clap = key(36), key(39)
    page.driver.browser.page.command("Input.dispatchTouchEvent", type: "touchStart", touchPoints: [kick, clap].each_with_index.map do |(x, y), i|
      { x:, y:, id: i }
    end)
    expect(page).to have_css("[data-held]", count: 2)
    touch("touchEnd")
    expect(page).to have_no_css("[data-held]")
    stop
    eventually(id) { |now| (now.clip("crates").notes - before).map(&:pitch).sort == [36, 39] }
  end
end
