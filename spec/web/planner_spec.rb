# frozen_string_literal: true

require "open3"

# What the planner makes of stretches, laps and moments: it is pure, so it is asked by itself.
RSpec.describe "The planner of playing" do
  script = <<~JS
    import { readFileSync } from "node:fs";
    import { build } from "vite";
    const lib = { entry: "web/src/sound/planner.ts", formats: ["es"] };
    const [{ output }] = await build({ configFile: false, logLevel: "silent", build: { write: false, minify: false, lib } });
    const planner = await import(`data:text/javascript,${encodeURIComponent(output[0].code)}`);
    const asked = JSON.parse(readFileSync(0, "utf8"));
    console.log(JSON.stringify(asked.map(([name, ...inputs]) => planner[name](...inputs))));
  JS

  define_method(:ask) do |*asked|
    output, status = Open3.capture2("node", "--input-type=module", "-e", script, stdin_data: JSON.generate(asked), chdir: File.expand_path("../..", __dir__))
    expect(status).to be_success
    JSON.parse(output)
  end

  # Two laps over seconds 10 to 12 of the song, begun at moment 100 of the output.
  let(:laps) { [{ from: 10, to: 12, lead: 90, turn: 0 }, { from: 10, to: 12, lead: 92, turn: 1 }] }
  let(:stretch) do
    { ramps: { "a/b/c" => [0, 0.5, 20, 0.5] }, beats: [10, 1, 10.5, 0, 11, 0, 11.5, 0, 12, 1],
      events: [[9.0, 10.5, "rings"], [10.0, 10.2, "first"], [11.9, 12.5, "last"]].map do |start, finish, name|
        { start_seconds: start, end_seconds: finish, region_id: name, start_tick: 0, pitch: 1 }
      end }
  end

  it "finds the lap and the second of the song for a moment of the output, before the first lap too" do
    places = ask(*[101, 101.9999, 102.0, 103.5, 98.5].map { |moment| [:placeIn, laps, moment] })
    expect(places.map { |place| [place["turn"], place["seconds"].round(4)] }).to eq [[0, 11], [0, 11.9999], [1, 10], [1, 11.5], [0, 8.5]]
    expect(ask([:placeIn, [], 5])).to eq [nil]
  end

  it "keeps the playhead inside its lap" do
    expect(ask(*[98.5, 101, 102.5].map { |moment| [:positionIn, laps, moment] })).to eq [10, 11, 10.5]
  end

  it "plays an event in the slice it begins in, and takes up at a lap's start what sounds there already" do
    slice = ->(from, to) { ask([:stepsBetween, stretch, from, to])[0].select { |step| step["kind"] == "play" }.map { |step| step["event"]["region_id"] } }
    expect([slice.call(10, 10.1), slice.call(10.1, 11.9), slice.call(11.9, 12)]).to eq [["first"], [], ["last"]]
    started = ask([:stepsAtStart, stretch, 10])[0]
    expect(started.map { |step| step["event"] ? step["event"]["region_id"] : step["value"] }).to eq [0.5, "rings"]
  end

  it "clicks each beat once, and knows where a bar begins" do
    halves = ask([:beatsBetween, stretch, 10, 11], [:beatsBetween, stretch, 11, 12])
    expect(halves).to eq [[[10, true], [10.5, false]], [[11, false], [11.5, false]]]
    expect(ask([:beatsBetween, stretch.except(:beats), 0, 99])).to eq [[]]
  end

  it "knows what sounds no longer in what is to be played" do
    expect(ask([:lostEvents, %w[first:0:1 gone:0:1], stretch])).to eq [["gone:0:1"]]
  end
end
