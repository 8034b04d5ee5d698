# frozen_string_literal: true

require "open3"

# What hands do with parameters while it plays, written into clips, lanes and carriers.
RSpec.describe "A pass of hands" do
  include SongHelpers

  let(:song) { DemoSong.build }
  let(:cutoff) { "rope-bass/synth/cutoff" }

  # A sweep of so many seconds at 120 samples a second, as samples in turns.
  def sweep(from, seconds, rate: 120) = (0..(seconds * rate)).flat_map { |i| [from + (i.to_f / rate), wanted(from + (i.to_f / rate))] }
  def wanted(seconds) = 0.5 + (0.4 * Math.sin(seconds * 3))

  def record(song, moves, from: 10.0, to: 20.0, **more)
    moves = moves.map { |text, *grips| { "address" => text, "grips" => grips } }
    inputs = { "pass" => "one", "lap" => 0, "from_seconds" => from, "to_seconds" => to, "into" => "clip", "moves" => moves }
    KindSatchel::Edits.apply(song, "record_moves", inputs.merge(more.transform_keys(&:to_s)))
  end

  def grip(samples, until_seconds = nil) = { "samples" => samples, **(until_seconds ? { "until_seconds" => until_seconds } : {}) }
  def tick(seconds) = song.tempo.tick_at(seconds).round
  def codes(result) = result.notices.map(&:code)

  # The largest difference from what the hand did, over a stretch of seconds.
  def strayed(result, from, to, text = cutoff)
    (tick(from)...tick(to)).step(31).map { |at| (heard(result.song, text, at) - wanted(song.tempo.seconds_at(at))).abs }.max
  end

  %w[clip lane carrier].each do |into|
    it "makes heard equal what the hand did through a #{into}, over what else acts there, in no more points than Ramer-Douglas-Peucker keeps" do
      # In Mooring, which shifts the cutoff itself, at 10.44 s.
      result = record(song, [[cutoff, grip(sweep(10.5, 3), 13.5)]], into:)
      expect(strayed(result, 10.5, 13.5)).to be < 0.0115
      expect([tick(10.5) - 1, tick(13.5), tick(13.5) + 960]).to all(satisfy { |at| (heard(result.song, cutoff, at) - heard(song, cutoff, at)).abs < 1e-6 })
      expect(result.kept["moves"][cutoff]["difference"]).to be < 0.0101
    end
  end

  # shapely's simplify without topology is the Ramer-Douglas-Peucker algorithm; time is stretched, so that distance is that in value.
  it "thins to one percent with no more points than shapely keeps" do
    bare = record(song, [["fog-pad/channel/volume", grip(sweep(1, 20), 21)]], from: 1, to: 21, into: "lane")
    stroke = bare.kept["moves"]["fog-pad/channel/volume"]["strokes"][0]
    script = "import json,sys\nfrom shapely.geometry import LineString\nt,v=json.load(sys.stdin)\n" \
             "print(len(LineString([(a*1000.0,b) for a,b in zip(t,v)]).simplify(0.01,False).coords))"
    theirs, status = Open3.capture2("/usr/bin/python3", "-c", script, stdin_data: JSON.generate(stroke.values_at("ticks", "values")))
    expect(status).to be_success
    ours = bare.song.track("fog-pad").lane_for(address("fog-pad/channel/volume"), "set").points.count { |point| point.tick.between?(tick(1), tick(21)) }
    # An edge point at either end keeps what lies outside.
    expect(ours).to be <= theirs.to_i + 2
  end

  it "writes touches to where the hand lets go, and with latch on to the end" do
    touches = [cutoff, grip([10.6, 0.2, 10.7, 0.3], 11.0), grip([12.0, 0.8], 12.5)]
    touched = record(song, [touches], to: 14.0)
    expect([10.8, 12.2].map { |at| heard(touched.song, cutoff, tick(at)) }).to match [be_within(0.01).of(0.3), be_within(0.01).of(0.8)]
    [11.5, 13.0].each { |at| expect(heard(touched.song, cutoff, tick(at))).to be_within(1e-9).of(heard(song, cutoff, tick(at))) }
    latched = record(song, [touches], to: 14.0, latch: true)
    expect([11.5, 13.0].map { |at| heard(latched.song, cutoff, tick(at)) }).to match [be_within(0.01).of(0.3), be_within(0.01).of(0.8)]
    expect(heard(latched.song, cutoff, tick(14.0))).to be_within(1e-9).of(heard(song, cutoff, tick(14.0)))
  end

  it "takes a hand that is still for standing still, not for a slow ramp" do
    result = record(song, [[cutoff, grip([11.0, 0.2, 13.0, 0.8], 13.5)]], into: "lane")
    expect(heard(result.song, cutoff, tick(12.9))).to be_within(0.011).of(0.2)
    expect(heard(result.song, cutoff, tick(13.01))).to be_within(0.011).of(0.8)
  end

  # Mooring lasts two bars and lies in four regions of four; these are the seconds of the first of them, and of its second repeat.
  def mooring = song.track("rope-bass").regions.first.then { |region| [region.start_tick, region.start_tick + 7680].map { |at| song.tempo.seconds_at(at) } }

  it "runs a new move that was played over a seam once over that region alone, in a clip of its own, and keeps all of the hand" do
    first, again = mooring
    result = record(song, [["rope-bass/synth/sweep", grip(sweep(first + 0.5, again + 1.5 - first), again + 2.0)]], from: first, to: again + 3)
    expect(strayed(result, first + 0.5, again + 2.0, "rope-bass/synth/sweep")).to be < 0.0115
    expect(result.kept["moves"]["rope-bass/synth/sweep"]["difference"]).to be < 0.0101
    region = result.song.track("rope-bass").regions.first
    move = result.song.clip(region.clip_id).envelope_for(address("rope-bass/synth/sweep"))
    expect([region.clip_id == "mooring", move.clock, result.song.directory.regions_of_clip(region.clip_id).size]).to eq [false, "once", 1]
    others = result.song.track("rope-bass").regions.drop(1)
    ticks = others.map { |one| one.start_tick + 3000 }
    expect(ticks.map { |at| heard(result.song, "rope-bass/synth/sweep", at) }).to eq(ticks.map { |at| heard(song, "rope-bass/synth/sweep", at) })
    expect(result.notices.find { |notice| notice.code == "once" }.text).to eq "Mooring is made separate where it was played, and the move runs once over it"
    expect(codes(result)).not_to include("written_over")
    outside = [tick(first + 0.5) - 2, tick(again + 2.0) + 1]
    expect(outside.map { |at| heard(result.song, "rope-bass/synth/sweep", at) }).to eq(outside.map { |at| heard(song, "rope-bass/synth/sweep", at) })
  end

  it "lets later loops write over earlier ones where a move that runs each loop was, says how many bars are not heard, and counts them in" do
    first, again = mooring
    result = record(song, [[cutoff, grip([first + 0.5, 0.1, again + 0.5, 0.9], again + 1.5)]], from: first, to: again + 2)
    expect(heard(result.song, cutoff, tick(first + 1.0))).to be_within(0.03).of(0.9)
    lost = (tick(first + 1.5) - tick(first + 0.5)).fdiv(BAR)
    said = result.notices.find { |notice| notice.code == "written_over" }.text
    expect(said).to eq "#{KindSatchel::Units.short(lost)} bars of what was played are not heard: later loops write over it"
    found = result.kept["moves"][cutoff]
    expect([found["difference"], found["said"]]).to match [be > 0.7, [said]]
    two = record(song, [[cutoff, grip([30.0, 0.4], 33.0)]], from: 30, to: 34)
    expect(two.words).to eq "record Cutoff into Mooring and Cast Off"
    expect(codes(two)).to include "shared"
  end

  it "writes once over all where that is asked for, outside of it as the move that runs each loop was heard" do
    first, again = mooring
    result = record(song, [[cutoff, grip(sweep(first + 0.5, again + 1.0 - first), again + 1.5)]], from: first, to: again + 2, into: "once")
    expect(result.kept["moves"][cutoff]["difference"]).to be < 0.0101
    expect(strayed(result, first + 0.5, again + 1.5)).to be < 0.0115
    ticks = (0...song.length_ticks).step(97).reject { |at| song.tempo.seconds_at(at).between?(first + 0.49, again + 1.51) }
    expect(ticks.map { |at| (heard(result.song, cutoff, at) - heard(song, cutoff, at)).abs }.max).to be < 1e-6
  end

  describe "what is told of it" do
    def fault(name)
      given = Faults.read(name)
      some = KindSatchel::Document.load(given["song"])
      [some, given["inputs"], KindSatchel::Edits.apply(some, given["edit"], given["inputs"])]
    end

    # What was played, a hand that is still taken to stay (see {KindSatchel::Perform::Stroke}), against what is heard: every half tick.
    def furthest(some, inputs, result)
      move = inputs["moves"][0]
      stroke = KindSatchel::Perform::Takes::Records.read(result.kept["moves"][move["address"]]["strokes"])[0]
      pieces = KindSatchel::Heard::Resolver.new(result.song, address(move["address"])).pieces(0, some.length_ticks)
      (stroke.from...stroke.to).step(0.5).map { |at| (pieces.bsearch { |piece| piece.to > at }.at(at) - stroke.at(at)).abs }.max
    end

    %w[record_fader_scale record_fader_scale2 record_tolerance_zero record_tolerance_zero_low record_tolerance_zero_nan].each do |name|
      it "is a bound, between samples too (#{name})" do
        some, inputs, result = fault(name)
        told = result.kept["moves"].values[0]["difference"]
        expect(told).to be_between(furthest(some, inputs, result) - 1e-9, [inputs.fetch("tolerance", 0.01), 1e-9].max)
        kept = result.kept["moves"].values[0]["strokes"][0]["ticks"].size
        expect(result.kept["moves"].values[0]["points"]).to be >= kept if inputs["tolerance"]
      end
    end

    it "says where a role can do nothing, and offers others" do
      some, inputs, result = fault("record_pan_scale_at_centre")
      said = "Pan rests at its centre from 1.1.192 to 1.4.0, where a move that scales does nothing; let it set or shift"
      expect(result.notices.find { |notice| notice.code == "idle" }.text).to eq said
      expect(result.kept["moves"].values[0].values_at("difference", "said")).to eq [0.5, [said]]
      %w[set shift].each { |role| expect(codes(KindSatchel::Edits.apply(some, "record_moves", inputs.merge("role" => role)))).not_to include "idle" }
    end

    it "refuses a lane for effects of a clip in words" do
      given = Faults.read("record_clip_effect_into_lane")
      expect { KindSatchel::Edits.apply(KindSatchel::Document.load(given["song"]), given["edit"], given["inputs"]) }
        .to raise_error(KindSatchel::InvalidInput, /Cutoff of Filter in c has no lane: envelopes in the clip move it/)
    end
  end

  it "keeps clips that are shared elsewhere as they were when they are to be separate" do
    result = record(song, [[cutoff, grip([10.6, 0.1], 12.0)]], separate: true)
    other = song.track("rope-bass").regions.find { |region| region.clip_id == "mooring" && region.start_tick > 60_000 }
    expect(heard(result.song, cutoff, tick(11.5))).to be_within(0.011).of(0.1)
    at = other.start_tick + (tick(11.5) - song.track("rope-bass").regions.first.start_tick)
    expect(heard(result.song, cutoff, at)).to eq heard(song, cutoff, at)
    expect(codes(result)).not_to include "shared"
  end

  it "glides back into what held, and comes to the grid" do
    result = record(song, [[cutoff, grip([10.6, 0.95], 11.0)]], glide_seconds: 0.5)
    held = heard(song, cutoff, tick(11.5))
    expect(heard(result.song, cutoff, tick(11.25))).to be_within(0.02).of((0.95 + held) / 2)
    expect(heard(result.song, cutoff, tick(11.5))).to be_within(0.011).of(held)
    snapped = record(song, [["fog-pad/channel/pan", grip(sweep(10.6, 2), 12.6)]], grid_ticks: 480, into: "lane")
    lane = snapped.song.track("fog-pad").lane_for(address("fog-pad/channel/pan"), "set")
    expect(lane.points.map { |point| point.tick % 480 }.uniq).to eq [0]
  end

  it "flips switches just where the hand did, and keeps steps held" do
    result = record(song, [["fog-pad/channel/mute", grip([5.0, 1.0, 6.0, 0.0, 7.0, 1.0], 8.0)]], from: 0, to: 10, into: "lane")
    list = [4.9, 5.01, 5.99, 6.01, 6.99, 7.01, 8.01].map { |at| heard(result.song, "fog-pad/channel/mute", tick(at)) }
    expect(list).to eq [0, 1, 1, 0, 0, 1, 0]
    points = result.song.track("fog-pad").lane_for(address("fog-pad/channel/mute"), "set").points
    expect(points.map(&:shape)).to all(be_a(KindSatchel::Shapes::Hold).or(be_a(KindSatchel::Shapes::Straight)))
  end

  it "is written as what acts there: a move that shifts goes on shifting, else it sets" do
    roles = lambda do |result|
      moves = result.song.clip("mooring").envelopes.select { |envelope| envelope.target.device_id == "synth" }
      moves.map { |one| [one.target.parameter_id, one.role] }
    end
    played = record(song, [[cutoff, grip([10.6, 0.3], 12.0)], ["rope-bass/synth/sweep", grip([10.6, 0.3], 12.0)]])
    expect(roles.call(played)).to contain_exactly(%w[cutoff shift], %w[sweep set])
    expect(roles.call(record(song, [[cutoff, grip([10.6, 0.3], 12.0)]], role: "set"))).to contain_exactly(%w[cutoff shift], %w[cutoff set])
  end

  it "goes through scale and shift, and says where they cannot reach" do
    { "scale" => 0.2, "shift" => 0.5 }.each do |role, wish|
      result = record(song, [["fog-pad/channel/volume", grip([10.6, 0.3, 11.0, wish], 12.0)]], role:, into: "lane")
      expect(heard(result.song, "fog-pad/channel/volume", tick(11.5))).to be_within(0.011).of(wish)
    end
    knob = song.knob(address("fog-pad/channel/volume"))
    high = record(song, [["fog-pad/channel/volume", grip([10.6, [knob + 0.2, 1].min], 12.0)]], role: "scale", into: "lane")
    expect(codes(high)).to include "limited"
  end

  it "says where a clip overrules the lane that was written" do
    clip = record(song, [["rope-bass/synth/resonance", grip([10.6, 0.9], 12.0)]]).song
    expect(codes(record(clip, [["rope-bass/synth/resonance", grip([11.0, 0.2], 12.0)]], into: "lane"))).to include "overruled"
  end

  it "hands back what was held by hand, and says so; a bad sample is named" do
    held = KindSatchel::Edits.apply(record(song, [[cutoff, grip([10.6, 0.3], 12.0)]]).song, "set_knob", { "address" => cutoff, "value" => 0.9 }).song
    result = record(held, [[cutoff, grip([11.0, 0.4], 11.5)]])
    expect(result.song.held).to be_empty
    expect(codes(result)).to include "handed_back"
    expect(faults { record(song, [[cutoff, grip([10.6, 1.2], 12.0)]]) }).to eq [["out_of_range", "/moves/0/grips/0/samples/1"]]
    expect { record(song, [["rope-bass/synth/none", grip([10.6, 0.2])]]) }.to raise_error(KindSatchel::NotFound)
  end

  Seeds.list(12).each do |seed|
    it "of what is heard anyway leaves what is heard within the tolerance, and all else as it was, with seed #{seed}" do
      maker = RandomSongs.new(seed)
      some = maker.song
      target = RandomSongs::TARGETS.sample(random: maker.random)
      from, to = [maker.some_tick(some), maker.some_tick(some)].minmax
      from, to = [from, [to, from + 960].max].map { |at| some.tempo.seconds_at(at) }
      before = KindSatchel::Heard::Resolver.new(some, address(target))
      flat = from.step(to, 0.004).flat_map { |at| [at, before.at(some.tempo.tick_at(at).round)] }
      role = before.scale.set_only? ? "set" : %w[set shift].sample(random: maker.random)
      into = %w[clip lane carrier].sample(random: maker.random)
      result = record(some, [[target, grip(flat, to)]], from:, to:, into:, role:)
      after = KindSatchel::Heard::Resolver.new(result.song, address(target))
      # An LFO that is played over, or a move whose settings are moved, is drawn first, its corners on whole ticks; a bend that no shape has
      # is drawn within {KindSatchel::Perform::Course::FINE}.
      waves = before.amounts.spans(0, BAR * 16).values.flatten.any? { |span| span.source.envelope.lfo? || !span.drawn? }
      expect(outside(some, before, after, from, to)).to be < KindSatchel::Perform::Course::FINE unless into == "clip" || waves
      next if codes(result).intersect?(%w[limited overruled lost])

      expect(result.kept["moves"][target]["difference"]).to be < 0.011
    end
  end

  # What differs before the stretch and after it.
  def outside(some, before, after, from, to)
    ticks = (0...some.length_ticks).step(97).reject { |at| some.tempo.seconds_at(at).between?(from - 0.001, to + 0.001) }
    before.at_each(ticks).zip(after.at_each(ticks)).map { |a, b| (a - b).abs }.max || 0
  end

  describe "takes" do
    def again(result, **more)
      ways = { "into" => "clip", "role" => nil, "region_id" => nil, "tolerance" => 0.01 }
      kept = { "laps" => more.delete(:laps), "bases" => result.kept["moves"][cutoff]["bases"], **ways }
      apply(result.song, "rewrite_pass", pass: "one", address: cutoff, kept:, **more)
    end

    def strokes(result) = result.kept["moves"][cutoff]["strokes"]

    it "are written finer or coarser from the samples, always over what was there before" do
      first = record(song, [[cutoff, grip(sweep(10.5, 3), 13.5)]])
      coarse = again(first, laps: { 0 => strokes(first) }, tolerance: 0.05)
      fine = again(coarse, laps: { 0 => strokes(first) }, tolerance: 0.002).tap { |result| expect(strayed(result, 10.5, 13.5)).to be < 0.0035 }
      counts = [coarse, first, fine].map { |result| result.kept["moves"][cutoff]["points"] }
      expect(counts).to eq counts.sort
      expect(again(fine, laps: { 0 => strokes(first) }).song).to eq first.song
    end

    it "are chosen: one lap, or stretches of several, which jump or glide where they meet" do
      laps = [0.2, 0.8].map { |value| record(song, [[cutoff, grip([10.6, value], 13.0)]]) }
      both = { 0 => strokes(laps[0]), 1 => strokes(laps[1]) }
      expect(heard(again(laps[1], laps: both, parts: [part(0, 0, 99_999)]).song, cutoff, tick(12))).to be_within(0.011).of(0.2)
      parts = [part(0, 0, tick(12)), part(1, tick(12), 99_999)]
      jumped = again(laps[1], laps: both, parts:)
      expect([11.99, 12.01].map { |at| heard(jumped.song, cutoff, tick(at)) }).to match [be_within(0.011).of(0.2), be_within(0.011).of(0.8)]
      glided = again(laps[1], laps: both, parts:, join_ticks: 960)
      expect(heard(glided.song, cutoff, tick(12))).to be_within(0.02).of(0.5)
      expect { again(laps[1], laps: both, parts: [part(2, 0, 10)]) }.to raise_error(KindSatchel::InvalidInput, /no take of lap 3/)
    end

    it "glide only where two laps meet, not at seams inside of one" do
      both = record(song, [[cutoff, grip([10.6, 0.2], 11.0), grip([11.0, 0.6], 13.0)]])
      other = record(song, [[cutoff, grip([10.6, 0.9], 13.0)]])
      laps = { 0 => strokes(both), 1 => strokes(other) }
      glided = again(both, laps:, parts: [part(0, 0, tick(12)), part(1, tick(12), 99_999)], join_ticks: 960)
      expect([10.98, 11.02].map { |at| heard(glided.song, cutoff, tick(at)) }).to match [be_within(0.011).of(0.2), be_within(0.011).of(0.6)]
      expect(heard(glided.song, cutoff, tick(12))).to be_within(0.02).of(0.75)
      same = again(both, laps:, parts: [part(0, 0, tick(12)), part(0, tick(12), 99_999)], join_ticks: 960)
      expect(heard(same.song, cutoff, tick(11.02))).to be_within(0.011).of(0.6)
    end

    it "are written again into clips of their own where they were played; all others get back what was there before" do
      first = record(song, [[cutoff, grip(sweep(10.5, 3), 13.5)]])
      apart = again(first, laps: { 0 => strokes(first) }, separate: true)
      expect(strayed(apart, 10.5, 13.5)).to be < 0.0115
      played, *others = apart.song.track("rope-bass").regions.reject { |region| region.clip_id == "cast-off" }
      expect([played.clip_id == "mooring", others.map(&:clip_id).uniq, apart.kept["fresh"]]).to eq [false, ["mooring"], true]
      expect(apart.song.clip("mooring")).to eq song.clip("mooring")
      expect(apart.kept["moves"][cutoff]["bases"].keys).to eq apart.song.clip(played.clip_id).envelopes.select { |one| one.target == address(cutoff) }.map(&:id)
      expect(codes(apart)).not_to include "shared"
    end

    it "are written again as another role" do
      first = record(song, [[cutoff, grip(sweep(10.5, 3), 13.5)]])
      setting = again(first, laps: { 0 => strokes(first) }, role: "set")
      expect(setting.song.clip("mooring").envelopes.map(&:role)).to include "set"
      expect(setting.song.clip("mooring").envelope_for(address(cutoff), "shift")).to eq song.clip("mooring").envelope_for(address(cutoff), "shift")
      expect(strayed(setting, 10.5, 13.5)).to be < 0.0115
    end

    def part(lap, from, to) = { "lap" => lap, "from_tick" => from, "to_tick" => to }
  end
end
