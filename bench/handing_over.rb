# frozen_string_literal: true

require_relative "../app/hand_over/files"

# What leaves: loose ends looked for after an edit, songs made to fit, MIDI files, a mixdown.
module HandingOverBench
  include KindSatchel

  LANES = { lanes_only: true, no_carriers: true, set_only: true, straight: true }.freeze

  module_function

  # After an edit that leaves nearly all of the song as it was.
  def loose_ends(song, runs)
    clip = song.clips.values.first
    turn = 0
    Checks::LooseEnds.of(song)
    Measure.milliseconds(runs) do
      changed = song.with_clip(clip.with(name: "Clip #{turn += 1}"))
      Checks::LooseEnds.open(changed).size
    end
  end

  # As the command line does it: by as many processes as there are cores.
  def baked(song)
    Spread.processes = Etc.nprocessors
    limits = HandOver::Limits.new(**LANES, points_per_second: 10)
    Measure.milliseconds(3, warm_up: 1) { HandOver::Bake.new(song, limits).call(Spread.map) }
  end

  def midi(song)
    events = 0
    found = Measure.milliseconds(3, warm_up: 1) do
      score = HandOver::Score.new(song, HandOver::Score::Ways.new(HandOver::Controllers.proposed(song), 0.01, nil, nil))
      writer = Formats::MidiWriter.new(score)
      tracks = score.parts(Spread.map) { |part| [ReadBack.track!(writer.track(part), part), ReadBack.events(part)] }
      writer.file(tracks.map(&:first))
      events = tracks.sum(&:last)
    end
    found.merge("events" => events)
  end

  # The list of versions of a song with so many edits, whole request.
  def versions(server, edits: 5000)
    id = Server.shelf.add(DemoSong.build)["id"]
    EditRow.insert_all(Array.new(edits) { |i| { song_id: id, place: i + 1, name: "set_knob", words: "turn", inputs: "{}", patch: "[]", created_at: Time.now } })
    20.times { |i| VersionShelf.keep(id, "Version #{i}") }
    Measure.milliseconds(50) { server.get("/api/songs/#{id}/versions") }
  end

  # How many times as fast as it plays the page renders a song.
  def mixdown(server, song, song_id, runs)
    session = Capybara::Session.new(:playing)
    session.visit("http://127.0.0.1:#{server.port}/songs/#{song_id}")
    session.find("[data-testid='ruler']")
    session.driver.browser.timeout = 300 if session.driver.browser.respond_to?(:timeout=)
    times = Array.new(runs) { rendered(session, song.length_ticks) }
    { "times_as_fast" => times.sort.map { |taken| (song.tempo.seconds_at(song.length_ticks) / taken).round(2) }, "runs" => runs }
  ensure
    session&.driver&.quit
  end

  def rendered(session, ticks)
    session.execute_script(<<~JS, ticks)
      const [to_tick] = arguments;
      window.taken = null;
      import("/assets/devices.js").then(async ({ render }) => {
        const start = performance.now();
        await render({ from_tick: 0, to_tick, rate: 48000, taps: [], silent: [] }, () => {}, new AbortController().signal);
        window.taken = (performance.now() - start) / 1000;
      });
    JS
    600.times do
      taken = session.evaluate_script("window.taken") and return taken
      sleep 0.25
    end
    raise "The mixdown took too long."
  end
  private_class_method :rendered
end
