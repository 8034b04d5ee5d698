# frozen_string_literal: true

require "open3"
require_relative "../../app/wire"

# The page writes positions itself while the playhead runs; it writes them as the core does.
RSpec.describe "Positions in the page" do
  script = <<~JS
    import { readFileSync } from "node:fs";
    import { transformWithOxc } from "vite";
    const { code } = await transformWithOxc(readFileSync("web/src/geometry/viewport.ts", "utf8"), "viewport.ts");
    const { positionText } = await import(`data:text/javascript,${encodeURIComponent(code)}`);
    const asked = JSON.parse(readFileSync(0, "utf8"));
    console.log(JSON.stringify(asked.map(([meter, tick]) => positionText(meter, tick))));
  JS

  it "read as the core writes them, in every list of meters" do
    random = Random.new(4)
    asked = [[4, 4], [3, 4], [7, 8], [5, 2], [1, 1], [64, 32]].product(Array.new(40) { |i| i < 4 ? i : random.rand(4_000_000) })
    lists = asked.map { |(beats, unit), tick| [list(beats, unit, random), tick] }
    input = lists.map { |list, tick| [Wire.head(KindSatchel::Records.head(small_song.with(meters: list)))["meters"], tick] }
    output, status = Open3.capture2("node", "--input-type=module", "-e", script, stdin_data: JSON.generate(input), chdir: File.expand_path("../..", __dir__))
    expect(status).to be_success
    expect(JSON.parse(output)).to eq(lists.map { |list, tick| list.text(tick) })
  end

  # One for the whole song, or others from later bars on.
  def list(beats, unit, random)
    meters = KindSatchel::Timing::Meters.steady(KindSatchel::Timing::Meter.new(beats:, unit:))
    random.rand(3).times { meters = meters.changed(2 + random.rand(50), KindSatchel::Timing::Meter.new(beats: 1 + random.rand(9), unit: [4, 8].sample(random:))) }
    meters
  end
end
