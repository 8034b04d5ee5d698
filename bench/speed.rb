# frozen_string_literal: true

require "open3"

# How fast the core is: ramps of a whole big song beside numpy's dense sampling of the same, values from pieces, single values.
module SpeedBench
  include KindSatchel

  DENSE = File.expand_path("dense_sampling.py", __dir__)

  module_function

  # Both in the same run, in turn. Ramps are made fresh each time: nothing is kept with the segments.
  # @return [Hash] medians in seconds, and their ratio
  def ramps(song, runs: 5)
    data = JSON.generate(dense(song))
    pairs = Array.new(runs + 1) { [time { @corners = all_ramps(fresh(song)) }, JSON.parse(numpy(data))["seconds"]] }.drop(1)
    kept = fresh(song)
    all_ramps(kept)
    ours, theirs, again = median(pairs.map(&:first)), median(pairs.map(&:last)), median(Array.new(runs) { time { all_ramps(kept) } })
    { "ramps_s" => ours, "numpy_1_kHz_s" => theirs, "ratio" => median(pairs.map { |a, b| a / b }), "corners" => @corners,
      "again_s" => again, "again_ratio" => (again / theirs).round(3) }
  end

  # A song that shares no envelope with another, so that nothing is remembered.
  def fresh(song)
    clips = song.clips.transform_values { |clip| clip.with(envelopes: clip.envelopes.map { |one| Envelope.new(**one.to_h) }) }
    song.with(clips:).tap(&:directory)
  end

  def all_ramps(song)
    song.automated.sum { |address| Heard::Ramps.new(Heard::Resolver.new(song, address)).flat(0, song.length_ticks).size / 2 }
  end

  def numpy(data)
    out, status = Open3.capture2("/usr/bin/python3", DENSE, stdin_data: data)
    raise "numpy failed" unless status.success?

    out
  end

  def dense(song)
    { "seconds" => song.tempo.seconds_at(song.length_ticks), "ticks_per_second" => 1 / song.tempo.steady_pace,
      "curves" => song.automated.map { |address| curve(song, address) } }
  end

  def curve(song, address)
    resolver = Heard::Resolver.new(song, address)
    segments = resolver.pieces(0, song.length_ticks).map { |piece| segment(piece) }
    { "scale" => scale(resolver.scale), "segments" => segments }
  end

  def segment(piece)
    shape = piece.set&.segment&.shape
    bend = { Shapes::Straight => 0.0, Shapes::Curved => shape.respond_to?(:curve) ? shape.curve * Shapes::Curved::STEEPNESS : nil }[shape.class]
    [piece.from, piece.to, piece.at(piece.from), piece.at(piece.to), bend]
  end

  def scale(scale)
    case scale
    when Scales::Log then ["log", scale.low, scale.high]
    when Scales::Fader then ["fader", 0, scale.peak]
    else ["linear", scale.engine(0.0), scale.engine(1.0)]
    end
  end

  # Values a second: over many pieces, within few, and one by one.
  def values(song)
    resolver = Heard::Resolver.new(song, Address.parse("t5/synth/cutoff"))
    pieces = resolver.pieces(0, song.length_ticks)
    long = Heard::Resolver.new(EditorBench.song(40), Address.parse(EditorBench::ADDRESS.sub("cutoff", "strike"))).pieces(0, 2400)
    ticks = (0...song.length_ticks).step(2).to_a
    { "many_pieces_per_s" => rate(ticks.size) { Heard::Pieces.read(pieces, ticks) },
      "few_pieces_per_s" => rate(960_000) { 400.times { Heard::Pieces.read(long, FEW) } },
      "combined_per_s" => rate(ticks.size) { Heard::Pieces.read(combined(song), ticks) },
      "at_per_s" => rate(50_000) { anywhere(song).each { |tick| resolver.at(tick) } } }
  end

  def anywhere(song) = @anywhere ||= Random.new(1).then { |random| Array.new(50_000) { random.rand(song.length_ticks) } }
  FEW = (0...2400).to_a.freeze

  # A lane that shifts over all of it.
  def combined(song)
    @combined ||= begin
      points = Array.new(200) { |i| Point.new(tick: i * 2400, value: (i % 7) / 40.0, shape: Shapes::Straight::PLAIN) }
      lane = Envelope.fresh(id: "lane", target: Address.parse("t5/synth/cutoff"), points:, role: "shift", clock: "once")
      moved = song.with_track(song.track("t5").with(lanes: [lane]))
      Heard::Resolver.new(moved, lane.target).pieces(0, song.length_ticks)
    end
  end

  def rate(count, &block)
    block.call
    (count / median(Array.new(5) { time(&block) })).round
  end

  def time
    GC.start
    start = cpu
    yield
    cpu - start
  end

  # Processor time of this process: on a shared machine the clock on the wall counts what others take.
  def cpu = Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID)

  def median(list) = list.sort[list.size / 2].round(3)
end
