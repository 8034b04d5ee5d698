# frozen_string_literal: true

require "open3"
require_relative "../../app/wire"

# The page draws bars and grids itself, at the pace of the screen; they lie where the core counts them.
RSpec.describe "Bars and grids in the page" do
  script = <<~JS
    import { readFileSync } from "node:fs";
    import { transformWithOxc } from "vite";
    const { code } = await transformWithOxc(readFileSync("web/src/geometry/viewport.ts", "utf8"), "viewport.ts");
    const page = await import(`data:text/javascript,${encodeURIComponent(code)}`);
    const step = (name) => (meter) => (typeof name === "number" ? name : meter[name]);
    const asked = JSON.parse(readFileSync(0, "utf8"));
    console.log(JSON.stringify(asked.map(({ meters, tick, grid, from, to }) => ({
      start: page.barStart(meters, tick),
      bar: page.meterAt(meters, tick).bar,
      snapped: page.snapTick(tick, grid, meters),
      bars: page.linesIn(meters, from, to, step("bar_ticks")).map(([line]) => line),
      beats: page.linesIn(meters, from, to, step("beat_ticks")).map(([line]) => line),
    }))));
  JS

  define_method(:page_says) do |asked|
    output, status = Open3.capture2("node", "--input-type=module", "-e", script, stdin_data: JSON.generate(asked), chdir: File.expand_path("../..", __dir__))
    expect(status).to be_success
    JSON.parse(output)
  end

  def wire(list) = Wire.head(KindSatchel::Records.head(small_song.with(meters: list)))["meters"]
  def meter(beats, unit) = KindSatchel::Timing::Meter.new(beats:, unit:)

  def some_list(random)
    list = KindSatchel::Timing::Meters.steady(meter(2 + random.rand(6), [4, 8].sample(random:)))
    random.rand(4).times { list = list.changed(2 + random.rand(20), meter(1 + random.rand(9), [2, 4, 8, 16].sample(random:))) }
    list
  end

  it "begin, and are snapped to, where the core says, for any list of signatures" do
    random = Random.new(8)
    lists = Array.new(60) { some_list(random) }
    # Finer than any bar, so that no grid is taken for one of bars.
    asked = lists.map do |list|
      from = random.rand(60_000)
      { meters: wire(list), tick: random.rand(100_000), grid: [60, 120, 160].sample(random:), from:, to: from + 9000 }
    end
    lists.zip(asked, page_says(asked)).each do |list, question, answer|
      tick = question[:tick]
      bar = list.bar_at(tick)
      beats = list.beats(question[:from], question[:to])
      expect(answer["start"]).to eq list.start_of(bar)
      expect(answer["bar"]).to be <= bar
      expect(answer["snapped"]).to eq list.line_near(tick, question[:grid])
      expect(answer["beats"]).to eq beats.map(&:first)
      expect(answer["bars"]).to eq beats.select(&:last).map(&:first)
    end
  end

  it "take a grid of bars for the bars of each signature" do
    list = KindSatchel::Timing::Meters.steady(meter(4, 4)).changed(3, meter(3, 4))
    snapped = page_says([5000, 8900, 9400, 7000].map { |tick| { meters: wire(list), tick:, grid: 3840, from: 0, to: 1 } }).map { |answer| answer["snapped"] }
    expect(snapped).to eq [3840, 7680, 10_560, 7680]
  end
end
