# frozen_string_literal: true

require "zlib"
require_relative "arranging"
require_relative "drag"
require_relative "editor"
require_relative "speed"
require_relative "company"
require_relative "files"
require_relative "growth"
require_relative "imports"
require_relative "handing_over"
require_relative "moving"
require_relative "turning"

# Each promise with what was measured.
class Promises
  include KindSatchel

  SECTIONS = %w[core speed growth moving handing_over imports editor previews snapshot arranging browser first_load devices playing recording performing wide
                hostile company files].freeze

  # Each section has a server of its own, so that none hangs on what those before it did.
  # @param only [Array<String>] sections to run; none for all
  # @yieldparam name [String]
  # @yieldparam result [Hash]
  def run(only = [], &told)
    @told = told
    @results = {}
    @big = BigSong.build
    (only.empty? ? SECTIONS : SECTIONS & only).each { |section| alone { send(section) } }
    @results
  end

  private

  def alone
    yield
  ensure
    @server&.stop
    @server = nil
  end

  def note(name, result)
    @results[name] = result
    @told.call(name, result)
  end

  def core
    address = Address.parse("t5/synth/cutoff")
    note("core: outline of one parameter over the big song", Measure.milliseconds(30) { outline(edited, address) })
    note("core: all ramps of the big song", Measure.milliseconds(3, warm_up: 1) { @corners = all_ramps(@big.with(name: "x")) }.merge("corners" => @corners))
    %w[rope-bass/synth/cutoff fog-pad/channel/volume master/channel/volume].each do |text|
      note("flattening #{text}", flattening(DemoSong.build, Address.parse(text)))
    end
  end

  def speed
    note("core: all ramps of the big song, beside numpy sampling the same at 1 kHz (processor time)", SpeedBench.ramps(@big))
    note("core: values from pieces, and one by one", SpeedBench.values(@big))
    note("bin/satchel help, whole process", Measure.milliseconds(7, warm_up: 1) do
      system({ "RUBY_YJIT_ENABLE" => nil }, File.expand_path("../bin/satchel", __dir__), "help", out: File::NULL)
    end)
  end

  def growth
    Growth.measured.each { |name, found| note("core: #{name} of the demo so many times, ms of processor time", found) }
    note("core: edits of much of the demo 64 times, ms of processor time", Growth.edits)
  end

  def moving
    note("core: a 1/32 LFO over 600 s, its rate moved by a lane", MovingBench.measured(MovingBench.wobble))
    note("core: all ramps of the big song, a third LFOs and 20 macros, beside without", MovingBench.ratio(@big))
    note("core: a sound of three minutes followed on a lane", MovingBench.following)
    turn = 0
    dragged = Measure.milliseconds(100, warm_up: 20) do
      turn += 1
      inputs = { envelope_id: MovingBench::RATE, runs: [[20, 20]], ticks: 0, value: (turn % 20 / 400.0) - 0.02 }
      answer = server.post("/api/songs/#{server.wobble_id}/preview", { revision: 1, edit: "shift_points", inputs:, heard: [MovingBench::WAVE.to_s] })
      raise answer unless answer.include?('"heard":{"')
    end
    note("preview of a point of that lane, whole request", dragged)
    note("preview of a macro with 32 targets, whole request", turned)
    turning = Turning.new(server)
    note("a macro with 32 targets turned while the demo plays, script in the page", turning.measure(server.macros_id))
  ensure
    turning&.quit
  end

  # While it plays: the sound of the next second is asked for too.
  def turned
    turn = 0
    Measure.milliseconds(200, warm_up: 30) do
      turn += 1
      inputs = { address: MovingBench::MACRO.to_s, value: turn % 100 / 100.0 }
      wants = { heard: [MovingBench::MACRO.to_s], sound: { from_tick: 15_360, to_tick: 15_360 + 1472 } }
      answer = server.post("/api/songs/#{server.macros_id}/preview", { revision: 1, edit: "set_knob", inputs:, **wants })
      raise answer unless answer.include?('"sound":{"')
    end
  end

  def handing_over
    demo = DemoSong.build
    note("core: loose ends of the demo after an edit", HandingOverBench.loose_ends(demo, 50))
    note("core: loose ends of the big song after an edit", HandingOverBench.loose_ends(@big, 10))
    note("MIDI file of the demo", HandingOverBench.midi(demo))
    note("MIDI file of the big song, by two processes", HandingOverBench.midi(@big))
    note("the big song made to fit ten points a second, by two processes", HandingOverBench.baked(@big))
    note("list of versions of a song with 5,000 edits, whole request", HandingOverBench.versions(server))
    note("mixdown of the demo in the page", HandingOverBench.mixdown(server, demo, server.demo_id, 3))
  end

  def imports
    bench = ImportBench.new(@big)
    note("import of the big song by a worker, most memory of it", bench.import)
    note("preview of a point drag in the demo while a big song is imported", bench.previews_meanwhile(server) { |runs| meanwhile(runs) })
  end

  def meanwhile(runs)
    move = DemoSong.build.clip("mooring").envelopes.first.id
    drag(server.demo_id, move, "rope-bass/synth/cutoff", runs, warm_up: 0)
  end

  # The big song after an edit, as a preview finds it.
  def edited = @big.tap(&:directory).with_clip(@big.clip("c5").with(name: "x"))

  def outline(song, address) = Heard::Outline.heard(Heard::Resolver.new(song, address), 0, song.length_ticks, width_px: Drawing::WIDTH_PX)

  def all_ramps(song)
    song.automated.sum { |address| Heard::Ramps.new(Heard::Resolver.new(song, address)).flat(0, song.length_ticks).size / 2 }
  end

  # Number of ramps and the largest error at 40,000 places, beside a sampling of the same curve at 1 kHz joined by ramps.
  def flattening(song, address)
    resolver = Heard::Resolver.new(song, address)
    corners = Heard::Ramps.new(resolver).corners(0, song.length_ticks)
    seconds = song.tempo.seconds_at(song.length_ticks)
    sampled = (0..(seconds * 1000).floor).map { |i| i / 1000.0 }
    values = resolver.at_each(sampled.map { |at| song.tempo.tick_at(at).round })
    chain = sampled.zip(values.map { |value| resolver.scale.engine(value) })
    { "ramps" => Heard::Ramps.count(corners), "largest_error" => largest_error(song, resolver, corners),
      "ramps_at_1_kHz" => chain.size - 1, "largest_error_at_1_kHz" => largest_error(song, resolver, chain) }
  end

  # Away from jumps, where any chain of ramps is off by the jump for a moment.
  def largest_error(song, resolver, corners)
    pieces = resolver.pieces(0, song.length_ticks)
    at = 0
    worst = 0.0
    pieces.each do |piece|
      (1..60).each do |i|
        tick = piece.from + ((piece.to - piece.from) * i / 61.0)
        second = song.tempo.seconds_at(tick)
        next if second - song.tempo.seconds_at(piece.from) < 0.001 || song.tempo.seconds_at(piece.to) - second < 0.001

        at += 1 while corners[at + 1] && corners[at + 1][0] <= second
        worst = [worst, (share(resolver.scale, between(corners[at], corners[at + 1], second)) - piece.at(tick)).abs].max
      end
    end
    worst.round(6)
  end

  def between(left, right, second)
    return left[1] if right.nil? || right[0] == left[0]

    left[1] + ((right[1] - left[1]) * (second - left[0]) / (right[0] - left[0]))
  end

  def share(scale, engine) = scale.gain? ? Math.sqrt([engine, 0].max / scale.peak) : scale.normalised(engine / scale.unit.engine_factor)

  def editor
    song = EditorBench.song(10_000)
    stroke = EditorBench.stroke(100_000).transpose
    note("core: thinning 100,000 samples of a stroke", Measure.milliseconds(5, warm_up: 1) { @kept = Thinning.keep(*stroke, 0.01).size }.merge("kept" => @kept))
    times = EditorBench.edits(9_999).to_h { |name, inputs| [name, Measure.milliseconds(15) { Edits.apply(song, name, inputs) }] }
    slowest = times.max_by { |_, result| result["median_ms"] }
    note("core: edits of 10,000 points, medians", times.transform_values { |result| result["median_ms"] })
    note("core: the slowest of them", { "edit" => slowest[0], **slowest[1] })
  end

  def server = @server ||= BenchServer.new(@big)

  def snapshot
    result = Measure.milliseconds(5, warm_up: 1) { @bytes = server.get("/api/songs/#{server.big_id}").bytesize }
    note("snapshot of the big song, whole request", result.merge("bytes" => @bytes))
  end

  def previews
    demo = DemoSong.build
    move = demo.clip("mooring").envelopes.first.id
    note("preview of a point drag, demo song, whole request", drag(server.demo_id, move, "rope-bass/synth/cutoff", 300))
    note("preview of a point drag among 2,000 points, whole request", drag(server.long_id, EditorBench::ENVELOPE, "bass/synth/strike", 200))
    target = @big.clip("c5").envelopes.first
    note("preview of a point drag, big song, whole request", drag(server.big_id, target.id, target.target.to_s, 100))
  end

  def drag(id, envelope_id, address, runs, warm_up: 40)
    turn = 0
    Measure.milliseconds(runs, warm_up:) do
      turn += 1
      inputs = { envelope_id:, runs: [[1, 1]], ticks: turn % 20, value: (turn % 60 / 600.0) - 0.05 }
      answer = server.post("/api/songs/#{id}/preview", { revision: 1, edit: "shift_points", inputs:, heard: [address] })
      raise answer unless answer.include?('"heard":{"')
    end
  end

  def arranging
    bench = ArrangingBench.new(server, @big)
    bench.requests.each { |name, result| note("big song: #{name} of a region, whole request", result) }
    laid, packed = ArrangingBench.conversions
    note("core: 100 regions with 5 envelopes each laid out", laid)
    note("core: packed back into the clips", packed)
    note("core: explanation of one parameter of the big song", bench.explanation)
    frames = DragFrames.new(server.port)
    note("big song in Chromium: from the key that splits to both halves on the screen", frames.session { |session| bench.shown(session, server.big_id) })
  ensure
    frames&.quit
  end

  def browser
    scroll = Scroll.new(server.port)
    note("big song opened in Chromium, to the first rows drawn", { "ms" => scroll.visit(server.big_id) })
    note("big song scrolled in Chromium, frame times", scroll.frames)
    drags = DragFrames.new(server.port)
    note("a point dragged among 2,000 in Chromium, frame times", drags.drag(server.long_id, EditorBench::ENVELOPE))
    note("finder in a song of over 300 parameters, a key", drags.keystrokes(server.long_id))
  ensure
    scroll&.quit
    drags&.quit
  end

  # A chord that never pauses, through a chain that is changed while it sounds.
  def devices
    gaps = Gaps.new(server)
    edits = [["add_device", { track_id: "drone", type: "filter" }], ["add_device", { track_id: "drone", type: "drive", before: "filter" }],
             ["move_device", { track_id: "drone", device_id: "drive" }], ["add_device", { track_id: "drone", type: "equaliser" }],
             ["remove_device", { track_id: "drone", device_id: "drive" }], ["add_track", { kind: "return" }],
             ["remove_device", { track_id: "drone", device_id: "filter" }]]
    note("devices put in, moved and taken out while it plays, the longest gap at the output", gaps.measure(server.drone_id, edits))
  ensure
    gaps&.quit
  end

  # The demo with all faders moving, the mixer open.
  def playing
    playing = Playing.new(server)
    note("the demo playing, all its faders moving, the mixer open: shares of one core", playing.measure(server.faders_id))
    note("the demo playing, all its faders moving, cards at the foot: shares of one core", playing.measure(server.faders_id, mixer: false))
  ensure
    playing&.quit
  end

  def recording
    recording = Recording.new(server)
    note("notes played in when a click is heard, their distance from the beat", recording.measure(server.empty_id, "Keys in"))
  ensure
    recording&.quit
  end

  def performing
    bench = Performing.new(server)
    note("a pass of 60 s on eight parameters at 120 samples a second written", bench.written)
    note("a hand in the page to the dial of the sound, and frames while it records the demo", bench.dial)
    note("a control turned when a click is heard, its distance from the beat as written", bench.time)
    note("a hand on a surface to the dial in the studio, on one machine", bench.surface)
    note("edits beside three surfaces of 60 messages a second", bench.edits)
  end

  def hostile
    note("memory above rest while hostile files are sent, server and workers", Hostile.new(server).measure)
    fuzzing = Fuzzing.new(server)
    note("requests changed at random", fuzzing.requests)
    fuzzing.files { |name, found| note("#{name} changed at random", found) }
    before = fuzzing.memory
    fuzzing.requests(Fuzzing::COUNT / 5)
    note("memory of the server after that, and after a fifth as many requests more", { "before" => "#{before} MB", "after" => "#{fuzzing.memory} MB" })
  end

  def company
    move = DemoSong.build.clip("mooring").envelopes.first.id
    note("previews beside eight long requests", Company.long_requests(server) { |runs| drag(server.demo_id, move, "rope-bass/synth/cutoff", runs) })
    note("edits beside 64 that listen, half by TLS, half not reading", Company.listeners)
    note("edits answered and lost in a storm of kills", Company.kills)
  end

  def wide
    scroll = Scroll.new(server.port)
    times = Array.new(5) { scroll.first_rows(server.wide_id) }
    note("64 tracks with 400 devices opened in Chromium, to the first rows drawn, by the page's own clock", Measure.summary(times))
  ensure
    scroll&.quit
  end

  def files
    bench = FilesBench.new(server)
    note("a stereo file of 3 minutes sent and its waveform asked for, whole requests", bench.waveform)
    note("preview of a note moved among 5,000, whole request", bench.preview(server.notes_id, 200))
    note("a MIDI file of nearly a megabyte, whole request", bench.megabyte)
    note("MIDI files imported one after the other, memory of the server", bench.midi(500))
  end

  # A browser that has nothing of the page yet, each time.
  def first_load
    times = Array.new(5) do
      scroll = Scroll.new(server.port)
      scroll.first_rows(server.demo_id)
    ensure
      scroll&.quit
    end
    note("the demo opened in a fresh Chromium, to the first rows drawn", Measure.summary(times))
    names = File.read(File.join(Server.public_folder, "index.html")).scan(%r{/(assets/[^"]+\.js)}).flatten
    files = names.map { |name| File.join(Server.public_folder, name) }
    note("JavaScript at first load, gzipped", { "bytes" => files.sum { |file| Zlib.gzip(File.binread(file), level: 6).bytesize } })
  end
end
