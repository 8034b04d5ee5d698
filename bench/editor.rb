# frozen_string_literal: true

# What the envelope editor promises: thinning, edits of many points, and a song for drags in a long envelope.
module EditorBench
  include KindSatchel

  ENVELOPE = "long"
  ADDRESS = "bass/synth/cutoff"

  module_function

  # A song whose lane has many points, every shape among them.
  def song(points)
    random = Random.new(8)
    writer = SongWriter.new(name: "Long", bpm: 120, range: [0, 4 * 3840])
    writer.track "bass", "Bass", "notes", "madder", devices: { "synth" => ["partial-bank", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    writer.clip "line", "Line", 4, notes: [Note.new(tick: 0, length_ticks: 480, pitch: 40, velocity: 90)]
    writer.region "bass", "line", 1, 32
    shapes = [["straight"], ["hold"], ["curved", 0.4], ["ess", 0.5]].map { |shape, curve| Shapes.of({ "shape" => shape, "curve" => curve }.compact) }
    list = Array.new(points) { |i| Point.new(tick: i * 60, value: random.rand, shape: shapes[i % shapes.size]) }
    lane = Envelope.fresh(id: ENVELOPE, target: Address.parse("bass/synth/strike"), points: list, clock: "once")
    made = writer.song
    made.with_track(made.track("bass").with(lanes: [lane]))
  end

  # A hand's stroke: a slow wave with a tremble.
  def stroke(count)
    random = Random.new(1)
    value = 0.5
    Array.new(count) { |i| [i, value = (value + ((random.rand - 0.5) * 0.02) + (Math.sin(i / 900.0) * 0.0005)).clamp(0.0, 1.0)] }
  end

  # Every edit of chosen points, with inputs.
  def edits(last)
    base = { "runs" => [[0, last]] }
    { "shift_points" => { "ticks" => 30, "value" => 0.01 }, "stretch_points" => { "start_tick" => 0, "end_tick" => last * 50 },
      "scale_points" => { "factor" => 0.5 }, "boost_points" => { "amount" => "5 %" }, "tilt_points" => { "amount" => "5 %" },
      "flip_points" => {}, "reverse_points" => {}, "quantise_points" => { "grid_ticks" => 240, "strength" => 0.5 },
      "thin_points" => { "tolerance" => 0.01 }, "level_points" => { "to" => "first" }, "enter_points" => { "value" => "50 %" },
      "shape_segments" => { "shape" => { "shape" => "straight" } }, "remove_points" => { "push" => true } }
      .transform_values { |inputs| { "envelope_id" => ENVELOPE, **base, **inputs } }
  end
end
