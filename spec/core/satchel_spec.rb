# frozen_string_literal: true

# Moves kept by themselves, and dropped on anything.
RSpec.describe "A kept move" do
  include SongHelpers

  let(:drawn) { envelope([0, 0.2, 0.4], [1920, 0.9], [2880, 0.9, "hold"], [3840, 0.1, "hold"]) }
  let(:song) { small_song(clip: [drawn]) }

  def plain(kept) = JSON.parse(JSON.generate(KindSatchel::Records.kept_move(kept)))
  def keep(envelope, from = 0, to = BAR, **more) = plain(KindSatchel::KeptMove.of(envelope, from, to, name: "Lap", **more))
  def dropped(on = song, **inputs) = apply(on, "drop_move", move: keep(drawn), **inputs)
  def made(result, target) = result.song.directory.envelopes.values.map(&:envelope).find { |one| one.target == address(target) }

  it "comes back to where it was kept the same: drawn, limited, LFOs, in every role" do
    Seeds.list(20).each do |seed|
      before = RandomSongs.new(seed).song
      before.directory.envelopes.each_value do |home|
        next unless before.parameter?(home.envelope.target) && home.envelope.source.acts?(home.envelope)

        length = home.clip ? home.envelope.own_length_ticks || home.clip.length_ticks : before.length_ticks
        kept = keep(home.envelope, 0, length)
        after = apply(before, "drop_move", move: kept, envelope_id: home.envelope.id, tick: 0, length_ticks: length, how: "as_is").song
        again = after.directory.envelope(home.envelope.id).envelope
        next if before.parameter(home.envelope.target).scale.steps

        (0...length).step(211).each { |tick| expect([seed, tick, again.at(tick)]).to match [seed, tick, be_within(2e-9).of(home.envelope.at(tick))] }
      end
    end
  end

  it "fits the stretch, repeats to fill it, or stays as long as it is; outside nothing changes" do
    lane = small_song(lanes: [envelope([0, 0.5], [20_000, 0.7], clock: "once")])
    at = ->(tick) { dropped(lane, envelope_id: "e1", tick: 7680, length_ticks: 9600, how: @how).song.lanes_of(address(CUTOFF)).first.at(tick) }
    before = ->(tick) { 0.5 + (0.2 * tick / 20_000) }
    { "fit" => ->(tick) { drawn.at(tick * 3840 / 9600.0) }, "repeat" => ->(tick) { drawn.at(tick % 3840) },
      "as_is" => ->(tick) { tick < 3840 ? drawn.at(tick) : before.call(7680 + tick) } }.each do |how, wanted|
      @how = how
      (0...9600).step(173) { |tick| expect([how, tick, at.call(7680 + tick)]).to match [how, tick, be_within(3e-4).of(wanted.call(tick))] }
      [0, 7679, 17_281, 19_000].each { |tick| expect(at.call(tick)).to be_within(1e-9).of(before.call(tick)) }
    end
  end

  it "goes upside down, backwards, and between limits that are typed in the unit of what it moves" do
    over = made(dropped(address: "bass/channel/pan", clip_id: "line", over: true), "bass/channel/pan")
    back = made(dropped(address: "bass/channel/pan", clip_id: "line", backwards: true), "bass/channel/pan")
    between = made(dropped(address: "bass/channel/pan", clip_id: "line", low: "L50", high: "R50"), "bass/channel/pan")
    (1...3840).step(97) do |tick|
      expect(over.at(tick)).to be_within(1e-9).of(1 - drawn.at(tick))
      expect(back.at(tick)).to be_within(1e-9).of(drawn.at(3840 - tick)) unless [0, 960, 1920].any? { |edge| (tick - edge).abs < 2 }
      expect(between.at(tick)).to be_within(1e-9).of(0.25 + (drawn.at(tick) / 2))
    end
    typed = [dropped(address: CUTOFF, role: "set", clip_id: "line", low: "100 Hz"), song.parameter(address(CUTOFF)).scale]
    expect(typed[1].natural(made(typed[0], CUTOFF).points.last.value)).to be > 100
  end

  it "acts on another parameter in the role it was made in where that can be; a switch flips where it crosses the middle" do
    shift = keep(envelope([0, -0.5], [3840, 0.5], role: "shift"))
    on_pan = made(apply(song, "drop_move", move: shift, address: "bass/channel/pan", clip_id: "line"), "bass/channel/pan")
    expect([on_pan.role, on_pan.at(960)]).to eq ["shift", -0.25]
    set = made(apply(song, "drop_move", move: shift, address: "bass/channel/pan", clip_id: "line", role: "set"), "bass/channel/pan")
    expect([set.role, set.at(960)]).to eq ["set", 0.375]
    mute = made(apply(song, "drop_move", move: shift, address: "bass/channel/mute", clip_id: "line"), "bass/channel/mute")
    expect([mute.role, mute.points.map { |point| [point.tick, point.value] }.first(2)]).to eq ["set", [[0, 0.0], [1920, 1.0]]]
  end

  it "stays an LFO where nothing else is drawn, and is points among points" do
    wave = envelope(role: "shift").with(source: KindSatchel::Sources::Lfo.plain.with(cycle_ticks: 480), depth: 0.25)
    kept = keep(wave)
    expect(kept).to include("points" => [], "limits" => [0.375, 0.625])
    new = made(apply(song, "drop_move", move: kept, address: "bass/channel/pan", clip_id: "line", how: "as_is"), "bass/channel/pan")
    expect([new.lfo?, new.source.cycle_ticks, new.limits]).to eq [true, 480, [-0.25, 0.25]]
    fitted = made(apply(song, "drop_move", move: kept, address: "bass/channel/pan", clip_id: "line", length_ticks: 1920), "bass/channel/pan")
    expect(fitted.source.cycle_ticks).to eq 240
    among = apply(song, "drop_move", move: kept, envelope_id: "e1", tick: 960, length_ticks: 960, how: "repeat").song.directory.envelope("e1").envelope
    (0...960).step(31) { |tick| expect(among.at(960 + tick)).to be_within(1e-6).of(0.375 + (0.125 * (1 - Math.cos(2 * Math::PI * tick / 480)))) }
    expect(among.at(500)).to be_within(1e-9).of(drawn.at(500))
  end

  it "says what its place's own limits do not let through, and what it replaces" do
    narrow = apply(song, "set_limits", envelope_id: "e1", low: 0.3, high: 0.6).song
    result = apply(narrow, "drop_move", move: keep(drawn), envelope_id: "e1")
    expect(result.notices.map(&:code)).to eq ["limited"]
    expect([0, 1920, 3839].map { |tick| result.song.directory.envelope("e1").envelope.at(tick).round(6) }).to eq [0.3, 0.6, 0.6]
    lfo = apply(song, "set_lfo", envelope_id: "e1", rate: "1/8").song
    expect(apply(lfo, "drop_move", move: keep(drawn), envelope_id: "e1").notices.map(&:code)).to eq ["replaced"]
  end

  it "is refused where it cannot be" do
    wrong = ->(**inputs) { faults { dropped(**inputs) } }
    expect(wrong.call).to eq [["bad_request", "/address"]]
    expect(wrong.call(address: CUTOFF, clip_id: "none")).to eq [["unknown_clip", "/clip_id"]]
    expect(wrong.call(address: "hall/reverb/mix", clip_id: "line")).to eq [["out_of_reach", "/address"]]
    expect(wrong.call(envelope_id: "e1", low: "soft")).to eq [["bad_value", "/low"]]
    expect(wrong.call(envelope_id: "e1", low: -0.5)).to eq [["out_of_range", "/low"]]
    expect(wrong.call(address: "bass/channel/mute", role: "shift")).to eq [["set_only", "/role"]]
    expect(faults { keep(envelope) }).to eq [["empty", "/envelope_id"]]
    expect(faults { keep(drawn, 5, 5) }).to eq [["too_short", "/to_tick"]]
    expect(faults { keep(drawn, tags: [""]) }).to eq [["bad_tags", "/tags"]]
    tiny = keep(drawn, 0, 1)
    expect(faults { apply(song, "drop_move", move: tiny, envelope_id: "e1", tick: 0, length_ticks: 250_000, how: "repeat") }).to eq [["too_many", "/move"]]
  end

  it "is found by the likeness of its shape, however long and high" do
    kept = ->(name, *entries) { KindSatchel::KeptMove.of(envelope(*entries), 0, entries.last[0], name:) }
    up, down = kept.call("Up", [0, 0.0], [3840, 1.0]), kept.call("Down", [0, 1.0], [960, 0.0])
    bump = kept.call("Bump", [0, 0.0], [480, 1.0], [960, 0.0])
    wish = ->(*entries) { KindSatchel::Likeness.nearest(kept.call("Wish", *entries), [up, down, bump]).first.name }
    expect([wish.call([0, 0.4], [99, 0.5]), wish.call([0, 0.3], [9000, 0.1]), wish.call([0, 0.0], [52, 0.2], [100, 0.0])]).to eq %w[Up Down Bump]
  end
end
