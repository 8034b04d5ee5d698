# frozen_string_literal: true

# How what is asked grows with the song: the demo 4, 16 and 64 times over, processor time, and the exponent from 16 to 64 times.
module Growth
  include KindSatchel

  TIMES = [4, 16, 64].freeze
  BAR = 3840
  HEARD = 8
  WIDTH_PX = 1200

  module_function

  # The demo so many times, one after the other.
  def times(count, song = DemoSong.build)
    last = song.next_id
    tracks = song.tracks.map do |track|
      regions = (0...count).flat_map do |turn|
        track.regions.map { |region| turn.zero? ? region : region.with(id: "region-#{last += 1}", start_tick: region.start_tick + (turn * song.length_ticks)) }
      end
      track.with(regions:, lanes: track.lanes.map { |lane| lane.lfo? ? lane : lane.with(points: repeated(lane.points, song.length_ticks, count)) })
    end
    song.with(tracks:, next_id: last + 1)
  end

  def repeated(points, ticks, count)
    (0...count).flat_map { |turn| points.map { |point| point.with(tick: point.tick + (turn * ticks)) } }.uniq(&:tick).sort_by(&:tick)
  end

  # @return [Hash{String=>Hash}] by what is asked: milliseconds at each size, and the exponent
  def measured
    found = TIMES.map { |count| asked(times(count)) }
    found[0].keys.to_h do |name|
      times = found.map { |all| all[name] }
      [name, { **TIMES.map { |count| "#{count} times" }.zip(times).to_h, "exponent" => exponent(*times.last(2)) }]
    end
  end

  def exponent(one, other) = (Math.log(other / [one, 0.01].max) / Math.log(4)).round(2)

  def asked(song)
    cut = inserted(song)
    parts = Parts.between(song, cut)
    addresses = song.automated.first(HEARD)
    { "eight heard curves" => -> { fresh(song).then { |one| addresses.each { |address| heard(one, address) } } },
      "their conflicts" => -> { fresh(song).then { |one| addresses.each { |address| Checks::Conflicts.of(one, address) } } },
      "insert_time" => -> { inserted(fresh(song)) },
      "what it changed" => -> { Parts.between(song, cut) },
      "what is heard of that" => -> { Heard::Changes.between(fresh(song), cut) },
      "its trial" => -> { Checks::Trial.check!(fresh(song), fresh(cut), parts.keys) },
      "its undo" => -> { Parts.apply(cut, parts, 0) },
      "loose ends" => -> { Checks::LooseEnds.of(fresh(song)) },
      "all ramps" => -> { fresh(song).then { |one| one.automated.each { |address| ramps(one, address) } } } }.transform_values { |wish| median(&wish) }
  end

  # What edits of much cost before they are kept.
  # @return [Hash{String=>Float}] milliseconds
  def edits(song = times(64))
    track = song.track("rope-bass")
    ids = track.regions.first(64).map(&:id)
    { "consolidate_regions" => { "region_ids" => ids }, "duplicate_regions" => { "region_ids" => ids },
      "glide_tempo" => { "from_tick" => 4 * BAR, "to_tick" => 12 * BAR, "to_bpm" => 120.0 } }
      .to_h { |name, inputs| [name, median { Edits.apply(fresh(song), name, inputs) }] }
  end

  def heard(song, address) = Heard::Outline.heard(Heard::Resolver.new(song, address), 0, song.length_ticks, width_px: WIDTH_PX)
  def ramps(song, address) = Heard::Ramps.new(Heard::Resolver.new(song, address)).flat(0, song.length_ticks)
  def inserted(song) = Edits.apply(song, "insert_time", { "tick" => 4 * BAR, "length_ticks" => BAR }).song
  # As after an edit: nothing is kept with it.
  def fresh(song) = song.with(name: "#{song.name} ")

  # The wishes are lambdas without parameters, so the number of a run is not passed on.
  def median(runs = 7, &wish)
    2.times { wish.call }
    times = Array.new(runs) { SpeedBench.time { wish.call } * 1000 }
    times.sort[runs / 2].round(1)
  end
  private_class_method :repeated, :exponent, :asked, :heard, :ramps, :inserted, :fresh, :median
end
