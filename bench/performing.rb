# frozen_string_literal: true

require "capybara"
require "capybara/cuprite"
require_relative "../spec/support/far_socket"

# What recording hands costs, and how near it comes: a pass written; a hand to the dial of the sound; frames meanwhile; the time of what
# was turned when a click was heard; hands over the network, and edits beside them.
class Performing
  PARAMETERS = %w[rope-bass/synth/cutoff rope-bass/synth/resonance rope-bass/channel/volume rope-bass/channel/pan fog-pad/channel/volume fog-pad/channel/pan
                  bell-buoy/channel/volume bell-buoy/channel/pan].freeze
  CUTOFF = PARAMETERS.first
  SECONDS = 60
  RATE = 120
  BEATS = 30
  # What a hand is turned by, at each click that is heard: from low to high, and back.
  EAR = Recording::EAR.sub("send([0x90, 60, 90], at)", "send([0xb0, 20, window.heard % 2 ? 100 : 20], at)").sub(/^.*send\(\[0x80.*\n/, "")

  # Notes when dials are turned.
  DIALS = <<~JS
    window.dials = [];
    const plain = AudioParam.prototype.linearRampToValueAtTime;
    AudioParam.prototype.linearRampToValueAtTime = function (value, at) {
      window.dials.push(performance.timeOrigin + performance.now());
      return plain.call(this, value, at);
    };
  JS

  # How long frames last for some seconds.
  FRAMES = <<~JS
    const done = arguments[0], frames = []; let last = performance.now(), n = 0;
    const frame = (now) => { frames.push(now - last); last = now; if (++n < 400) requestAnimationFrame(frame); else done(frames.slice(5)); };
    requestAnimationFrame(frame);
  JS

  def initialize(server)
    @server = server
  end

  # @return [Hash] the edit alone, as the server makes it, and the whole request
  def written(runs = 7)
    song = DemoSong.build
    inputs = pass_inputs
    edit = Measure.milliseconds(runs, warm_up: 1) { KindSatchel::Edits.apply(song, "record_moves", inputs) }
    id = Server.shelf.add(song)["id"]
    revision, count = 1, 0
    text = JSON.generate(inputs.except("pass"))[1..]
    whole = Measure.milliseconds(runs, warm_up: 1) do
      other = %({"pass":"pass-#{count += 1}","tolerance":#{0.01 + (count * 1e-4)},#{text})
      revision = JSON.parse(@server.send_text("/api/songs/#{id}/edits", %({"revision":#{revision},"edit":"record_moves","inputs":#{other},"heard":[]})))
                     .fetch("revision")
    end
    { "edit_median_ms" => edit["median_ms"], "request_median_ms" => whole["median_ms"], "request_p95_ms" => whole["p95_ms"], "samples" => SECONDS * RATE * 8 }
  end

  # @return [Hash] from the event of a hand to the dial, and frames while it records
  def dial
    session, page = studio(DIALS)
    x, y = place(session, "[data-testid='knob-#{CUTOFF}'] [role=slider]", -4)
    session.driver.browser.mouse.move(x:, y:).down
    took = page.evaluate_async(<<~JS, 60)
      const done = arguments[0], took = [], frames = []; let last = performance.now(), n = 0;
      const frame = (now) => { frames.push(now - last); last = now; requestAnimationFrame(frame); };
      requestAnimationFrame(frame);
      const move = () => {
        const before = window.dials.length, start = performance.timeOrigin + performance.now();
        window.dispatchEvent(new PointerEvent("pointermove", { pointerId: 1, clientX: #{x}, clientY: #{y} - 60 - 50 * Math.sin(n / 9) }));
        if (window.dials.length > before) took.push(window.dials[before] - start);
        if (++n < 900) setTimeout(move, 8); else done({ took, frames: frames.slice(5) });
      };
      move();
    JS
    session.driver.browser.mouse.up
    session.find("button[aria-label='Stop recording']", match: :first).click
    sleep 1
    playing = page.evaluate_async(FRAMES, 30)
    { "hand_to_dial" => summary(took["took"]), "frames_while_recording" => summary(took["frames"]), "frames_while_playing_only" => summary(playing) }
  ensure
    session&.driver&.quit
  end

  # @return [Hash] how far jumps that were turned when clicks were heard lie from the beats
  def time
    id = Server.shelf.add(empty_song)["id"]
    @server.post("/api/songs/#{id}/mappings", "song" => [{ device: "simulated controller", control: "cc/0/20", target: { address: "keys/channel/pan" },
                                                           kind: "absolute", pickup: "jump", low: 0, high: 1 }])
    session, = browser(EAR, "localStorage.setItem('kind-satchel-hands', JSON.stringify({ span: 'latch' }));")
    session.visit("http://127.0.0.1:#{@server.port}/songs/#{id}")
    session.click_on("Keys in")
    session.find("button[aria-label^='Record']", match: :first).click
    sleep 0.2 until session.evaluate_script("window.heard") >= BEATS
    session.find("button[aria-label='Stop recording']", match: :first).click
    sleep 2
    points = JSON.parse(@server.get("/api/songs/#{id}/export"))["tracks"].first["lanes"].flat_map { |lane| lane["points"] }
    jumps = points.each_cons(2).select { |a, b| (a["value"] - b["value"]).abs > 0.3 }.map(&:last)
    # The first and the last are where recording began and ended.
    errors = jumps[1..-2].map { |point| (((point["tick"] + 480) % 960) - 480).abs / 1.92 }.sort
    { "jumps" => errors.size, "median_ms" => errors[errors.size / 2]&.round(2), "worst_ms" => errors.last&.round(2) }
  ensure
    session&.driver&.quit
  end

  # @return [Hash] from a hand on a surface to the dial in the studio, alone and while a big file is read
  def surface
    session, = studio(DIALS, "localStorage.setItem('kind-satchel-surfaces', 'on');")
    phone, page = browser
    phone.visit("http://127.0.0.1:#{@server.port}/songs/#{@server.demo_id}/surface")
    phone.find("[data-testid='surface-#{CUTOFF}']")
    alone = apart(session, phone, page)
    big = JSON.generate(KindSatchel::Document.dump(BigSong.build))
    importing = Thread.new { Net::HTTP.post(URI("http://127.0.0.1:#{@server.port}/api/songs/import"), big, "Content-Type" => "application/json") }
    beside = apart(session, phone, page)
    importing.join
    { "alone" => alone, "beside_an_import" => beside }
  ensure
    [session, phone].compact.each { |one| one.driver.quit }
  end

  # @return [Hash] edits beside three surfaces of 60 messages a second each, and without them
  def edits(runs = 120)
    without = edit_times(runs)
    sockets = Array.new(3) { |i| far_socket(i.zero? ? "studio" : "surface") } + [far_socket("surface"), far_socket("surface")]
    sending = true
    threads = sockets.drop(1).first(3).map { |socket| Thread.new { speak(socket) while sending } }
    with = edit_times(runs)
    sending = false
    threads.each(&:join)
    { "without_median_ms" => without["median_ms"], "with_median_ms" => with["median_ms"], "ratio" => (with["median_ms"] / without["median_ms"]).round(2),
      "p95_ratio" => (with["p95_ms"] / without["p95_ms"]).round(2) }
  end

  private

  # Sweeps of several paces, as hands make them.
  def pass_inputs
    moves = PARAMETERS.each_with_index.map do |address, k|
      samples = (0...(SECONDS * RATE)).flat_map do |i|
        at = i / RATE.to_f
        [at, 0.5 + (0.3 * Math.sin(at * (1.2 + (k * 0.2)))) + (0.1 * Math.sin(at * (4 + k)))]
      end
      { "address" => address, "grips" => [{ "samples" => samples }] }
    end
    { "pass" => "pass", "lap" => 0, "from_seconds" => 0, "to_seconds" => SECONDS, "into" => "clip", "moves" => moves }
  end

  def empty_song
    writer = SongWriter.new(name: "Empty", bpm: 120, range: [0, 3840])
    writer.track "keys", "Keys in", "notes", "madder", devices: { "synth" => ["pluck", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    writer.song.then { |song| song.with(range: song.range.with(on: false)) }
  end

  def browser(*scripts)
    session = Capybara::Session.new(:recording)
    page = session.driver.browser.page
    page.command("Page.enable")
    page.command("Page.setBypassCSP", enabled: true)
    scripts.each { |source| page.command("Page.addScriptToEvaluateOnNewDocument", source:) }
    [session, page]
  end

  # The demo, its bass recorded.
  def studio(*scripts)
    session, page = browser(*scripts, "localStorage.setItem('kind-satchel-play-in', JSON.stringify({ countIn: 0, click: 'never' }));")
    session.visit("http://127.0.0.1:#{@server.port}/songs/#{@server.demo_id}")
    session.click_on("Rope Bass", exact: true)
    session.find("button[aria-label^='Record']", match: :first).click
    sleep 2
    [session, page]
  end

  def place(session, css, up = 0)
    session.find(css)
    x, y = session.evaluate_script("(b => [b.x + b.width / 2, b.y + b.height / 2])(document.querySelector(#{css.to_json}).getBoundingClientRect())")
    [x, y + up]
  end

  # Hands of the phone, one every 60 ms, and the first dial that turns after each.
  def apart(session, phone, page)
    session.evaluate_script("window.dials.length = 0")
    x, y = place(phone, "[data-testid='surface-#{CUTOFF}']")
    phone.driver.browser.mouse.move(x:, y:).down
    sent = page.evaluate_async(<<~JS, 60)
      const done = arguments[0], sent = []; let n = 0;
      const target = document.querySelector("[data-testid='surface-#{CUTOFF}']");
      const move = () => {
        sent.push(performance.timeOrigin + performance.now());
        target.dispatchEvent(new PointerEvent("pointermove", { pointerId: 1, bubbles: true, clientX: #{x}, clientY: #{y} - 60 * Math.sin(n / 9) }));
        if (++n < 150) setTimeout(move, 60); else setTimeout(() => done(sent), 300);
      };
      move();
    JS
    phone.driver.browser.mouse.up
    turned = session.evaluate_script("window.dials")
    summary(sent.filter_map { |at| turned.find { |dial| dial >= at }&.-(at) })
  end

  def far_socket(role)
    FarSocket.new(TCPSocket.new("127.0.0.1", @server.port), "ws://127.0.0.1:#{@server.port}/api/songs/#{@server.demo_id}/hands?role=#{role}",
                  { "Origin" => "http://127.0.0.1:#{@server.port}" }).tap { |socket| socket.until_heard(&:any?) }
  end

  def speak(socket)
    socket.say("t" => "turn", "a" => CUTOFF, "v" => rand, "age" => 0)
    sleep 1 / 60.0
  end

  def edit_times(runs)
    id = Server.shelf.add(DemoSong.build)["id"]
    revision = 0
    Measure.milliseconds(runs) do
      inputs = { "address" => "fog-pad/channel/pan", "value" => ((revision + 1) % 100) / 100.0 }
      data = { "revision" => revision += 1, "edit" => "set_knob", "inputs" => inputs, "heard" => [] }
      @server.post("/api/songs/#{id}/edits", data)
    end
  end

  def summary(times)
    sorted = times.sort
    { "median_ms" => sorted[sorted.size / 2]&.round(2), "p95_ms" => sorted[(sorted.size * 0.95).floor]&.round(2), "runs" => sorted.size }
  end
end
