# frozen_string_literal: true

require_relative "scroll"

# What arranging and combining promise: edits of regions of the big song, laying out and packing, explanations.
class ArrangingBench
  include KindSatchel

  REGIONS = 100
  LANES = %w[synth/cutoff synth/resonance drive/mix channel/volume channel/pan].freeze

  def initialize(server, big)
    @server = server
    @big = big
    @revision = 1
  end

  # Whole requests, each undone before the next.
  # @return [Hash{String=>Hash}]
  def requests
    first, second = @big.track("t5").regions.first(2)
    copied = edit("copy_regions", { region_ids: [first.id], ticks: 400 * BigSong::BAR })["parts"]
    shared = copied.find { |kind, id| kind == "region" && id != first.id }[1]
    { "split" => ["split_region", { region_id: first.id, tick: first.start_tick + 1920 }],
      "trim" => ["trim_region", { region_id: first.id, end_tick: first.end_tick - 960 }],
      "move" => ["move_regions", { region_ids: [second.id], ticks: 960 }],
      "separate" => ["separate_regions", { region_ids: [shared] }] }.transform_values { |name, inputs| timed(name, inputs) }
  end

  # A track of 100 regions, each with a clip of its own and 5 envelopes of all roles.
  def self.track_song
    random = Random.new(5)
    writer = SongWriter.new(name: "Long track", bpm: 120, range: [0, 4 * BigSong::BAR])
    writer.track "bass", "Bass", "notes", "madder", devices: { "synth" => ["mono-synth", {}], "drive" => ["drive", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    REGIONS.times { |i| place(writer, i, random) }
    writer.song
  end

  def self.place(writer, number, random)
    writer.clip "c#{number}", "Clip #{number}", 2, notes: [Note.new(tick: 0, length_ticks: 480, pitch: 40, velocity: 90)]
    writer.region "bass", "c#{number}", (number * 4) + 1, 4
    LANES.each do |target|
      points = Array.new(10) { |i| [i * 0.8, random.rand * 0.4, [:straight, 0.5, :hold][i % 3]] }
      writer.move("c#{number}", "bass/#{target}", number % 5 == 4 ? "shift" : "set", points)
    end
  end

  # @return [Array(Hash, Hash)] laying all of it out, and packing all five lanes back
  def self.conversions
    song = track_song
    laid = Edits.apply(song, "lay_out", { "track_id" => "bass" })
    told = packed(laid.song).last.map(&:text).grep(/heard/).uniq.join("; ")
    [Measure.milliseconds(5, warm_up: 1) do
      Edits.apply(song.with(name: song.name), "lay_out", { "track_id" => "bass" })
    end.merge("told" => laid.notices.first.text),
     Measure.milliseconds(5, warm_up: 1) { packed(laid.song) }.merge("told" => told)]
  end

  # @return [Array(Song, Array<String>)] with every lane packed, and what was told
  def self.packed(song)
    song.track("bass").lanes.map(&:id).reduce([song, []]) do |(now, notices), id|
      result = Edits.apply(now, "pack", { "envelope_id" => id, "from_tick" => 0, "to_tick" => song.length_ticks })
      [result.song, notices + result.notices]
    end
  end
  private_class_method :place, :packed

  def explanation
    addresses = @big.automated.sample(40, random: Random.new(3))
    turn = 0
    Measure.milliseconds(200) { Heard::Explanation.new(@big, addresses[(turn += 1) % 40], turn * 997).to_record }
  end

  # Milliseconds in Chromium from the key that splits a region to its right half on the screen, with the way back between.
  def shown(session, song_id)
    session.visit("http://127.0.0.1:#{@server.port}/songs/#{song_id}")
    session.find_all("[data-testid^='region-'][aria-pressed]", minimum: 5, wait: 30)
    sleep 6 # until the rows near the view are drawn
    Measure.summary(Capybara.using_wait_time(60) { session.evaluate_async_script(SPLIT) })
  end

  SPLIT = <<~JS
    const done = arguments[0]; const key = (target, key, more = {}) => target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...more }));
    const all = () => document.querySelectorAll("[data-testid^='region-'][aria-pressed]").length;
    const until = (wish) => new Promise((next) => { const look = () => wish() ? next() : requestAnimationFrame(look); look(); });
    (async () => {
      const region = document.querySelector("[data-testid^='region-'][aria-pressed]"); region.focus(); key(region, 'Enter');
      const box = region.getBoundingClientRect(), ruler = document.querySelector("[data-testid='ruler']"), y = ruler.getBoundingClientRect().y + 6;
      const at = { clientX: box.x + box.width / 2, clientY: y, pointerId: 1, button: 0, bubbles: true };
      ruler.dispatchEvent(new PointerEvent('pointerdown', at)); window.dispatchEvent(new PointerEvent('pointerup', at));
      await new Promise((next) => setTimeout(next, 800));
      const times = [];
      for (let i = 0; i < 20; i++) {
        const before = all(), start = performance.now();
        key(region, 'x'); await until(() => all() > before); times.push(performance.now() - start);
        await new Promise((next) => setTimeout(next, 150)); key(document.body, 'z', { ctrlKey: true }); await until(() => all() === before);
        await new Promise((next) => setTimeout(next, 150));
      }
      done(times);
    })();
  JS

  private

  def edit(name, inputs)
    answer = JSON.parse(@server.post("/api/songs/#{@server.big_id}/edits", { revision: @revision, edit: name, inputs:, heard: ["t5/synth/cutoff"] }))
    @revision = answer.fetch("revision") { raise answer.to_s }
    answer
  end

  def timed(name, inputs)
    times = Array.new(25) do
      start = Measure.now
      edit(name, inputs)
      time = (Measure.now - start) * 1000
      @revision = JSON.parse(@server.post("/api/songs/#{@server.big_id}/undo", { revision: @revision }))["revision"]
      time
    end
    Measure.summary(times.drop(5))
  end
end
