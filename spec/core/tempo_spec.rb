# frozen_string_literal: true

# The tempo is a parameter of the song: moved by a lane on the master, by carriers and macros; seconds follow.
RSpec.describe "The tempo of a song" do
  tempo = "song/clock/tempo"

  def carrier(song, *moves, bar: 3, bars: 1)
    made = apply(song, "make_carrier", start_tick: (bar - 1) * BAR, length_ticks: bars * BAR).song
    clip = made.clips.values.find { |one| one.carrier? && one.envelopes.empty? }
    made.with_clip(clip.with(envelopes: moves))
  end

  def bpms(song, *bars) = bars.map { |bar| song.tempo.bpm_at(((bar - 1) * BAR).round).round(9) }

  let(:song) { small_song }
  let(:falling) { apply(song, "glide_tempo", from_tick: 4 * BAR, to_tick: 6 * BAR, from_bpm: 96, to_bpm: 72, back_ticks: BAR).song }

  it "goes from one value to another by one edit, half way the mean, and back to what it was" do
    expect(bpms(falling, 1, 5, 6, 7, 7.5, 8, 9)).to eq [120, 96, 84, 72, 96, 120, 120]
    seconds = falling.tempo.seconds_at(6 * BAR) - falling.tempo.seconds_at(4 * BAR)
    expect(seconds).to be_within(1e-9).of(60 * 8 * Math.log(96 / 72.0) / 24)
    at_once = apply(song, "glide_tempo", from_tick: 4 * BAR, to_tick: 6 * BAR, to_bpm: 60, shape: "ess").song
    expect([*bpms(at_once, 5, 6, 7), at_once.tempo.bpm_before(6 * BAR).round(6)]).to eq [120, 90, 120, 60]
    expect(faults { apply(song, "glide_tempo", from_tick: BAR, to_tick: BAR, to_bpm: 60) }).to eq [["too_short", "/to_tick"]]
  end

  it "is set from a place on, in the lane that is made for it, or as the resting one" do
    expect(apply(song, "set_tempo", tick: 0, bpm: 92).song.then { |one| [one.bpm, one.lanes_of(address(tempo))] }).to eq [92, []]
    later = apply(song, "set_tempo", tick: 2 * BAR, bpm: 60).song
    expect(bpms(later, 1, 2.99, 3, 9)).to eq [120, 120, 60, 60]
    expect(bpms(apply(later, "set_tempo", tick: 0, bpm: 90).song, 1, 3)).to eq [90, 60]
  end

  it "is scaled in BPM, shifted by a share of its travel, set by carriers where they lie, and kept between 10 and 400" do
    half = carrier(song.with(bpm: 92), envelope([0, 0.5, "hold"], target: tempo, role: "scale", id: "half"))
    expect(bpms(half, 2.9, 3, 3.5, 4)).to eq [92, 46, 46, 92]
    up = carrier(song, envelope([0, 0.1, "hold"], target: tempo, role: "shift", id: "up"))
    expect(bpms(up, 3)).to eq [159]
    over = carrier(song, envelope([0, 1.0, "hold"], target: tempo, role: "shift", id: "up"))
    expect(bpms(over, 3)).to eq [400]
    set = carrier(falling, envelope([0, 0.0, "hold"], target: tempo, id: "slow"), bar: 6)
    expect(bpms(set, 5.5, 6, 7)).to eq [90, 10, 72]
    expect(faults { apply(song, "embed_envelope", clip_id: "line", address: tempo) }).to eq [["out_of_reach", "/address"]]
    kept = song.with_clip(song.clip("line").with(envelopes: [envelope([0, 0.0], target: tempo, id: "no")]))
    expect(bpms(kept, 2)).to eq [120]
  end

  it "is driven by a macro, held by a hand, and handed back" do
    strip = apply(song, "add_device", track_id: "bass", type: "macro-strip").song
    driven = apply(strip, "set_drive", macro: "bass/macro-strip/macro-1", target: tempo, low: "60 BPM", high: "180 BPM").song
    turned = apply(driven, "set_knob", address: "bass/macro-strip/macro-1", value: 0.5).song
    expect(bpms(turned, 1, 9)).to eq [120, 120]
    expect(bpms(apply(turned, "set_knob", address: "bass/macro-strip/macro-1", value: 0.25).song, 1)).to eq [90]
    held = apply(falling, "set_knob", address: tempo, value: 90 / 390.0).song
    expect([held.bpm, held.held_bpm, *bpms(held, 1, 6)]).to eq [120, 100, 100, 100]
    expect(KindSatchel::Document.load(JSON.parse(json_of(held)))).to eq held
    expect(bpms(apply(held, "hand_back").song, 1, 6)).to eq [120, 84]
  end

  it "is an LFO too, but no free one, which would need itself; other rings are refused likewise" do
    lane = apply(song, "add_lane", address: tempo).song
    id = lane.lanes_of(address(tempo)).first.id
    wave = apply(lane, "set_lfo", envelope_id: id, wave: "square", rate: "1/1").song
    wave = apply(wave, "set_limits", envelope_id: id, low: "60 BPM", high: "120 BPM").song
    expect(bpms(wave, 1, 1.5, 2, 2.5)).to eq [60, 120, 60, 120]
    expect(wave.tempo.seconds_at(BAR)).to be_within(1e-9).of(2 + 1)
    expect { apply(lane, "set_lfo", envelope_id: id, rate: "2 Hz") }.to raise_error(KindSatchel::InvalidInput, /in a ring: Tempo needs itself\.\z/)
    strip = apply(lane, "add_device", track_id: "bass", type: "macro-strip").song
    free = apply(apply(strip, "add_lane", address: "bass/macro-strip/macro-1").song, "set_drive", macro: "bass/macro-strip/macro-1", target: tempo).song
    macro = free.lanes_of(address("bass/macro-strip/macro-1")).first.id
    expect do
      apply(free, "set_lfo", envelope_id: macro, rate: "2 Hz")
    end.to raise_error(KindSatchel::InvalidInput, /Tempo needs Macro 1 of Macros on Bass, which needs Tempo/)
  end

  it "goes along with bars that are taken out and put in, and its lane always leads" do
    cut = apply(falling, "delete_time", from_tick: BAR, to_tick: 2 * BAR).song
    (0..(8 * BAR)).step(977) { |tick| expect(cut.tempo.bpm_at(tick)).to be_within(1e-6).of(falling.tempo.bpm_at(tick < BAR ? tick : tick + BAR)) }
    stretch = JSON.parse(JSON.generate(KindSatchel::Transfer::SongStretch.of(falling, 4 * BAR, 7 * BAR).to_record))
    put = apply(falling, "paste_time", tick: 9 * BAR, stretch:).song
    expect(bpms(put, 9, 10, 11, 12, 13)).to eq [120, 96, 84, 72, 120]
    expect(faults { apply(falling, "set_fader", envelope_id: falling.lanes_of(address(tempo)).first.id, fader: "trim") }).to eq [["no_fader", "/envelope_id"]]
  end

  it "tells from where the clock is another, and what goes by it; loops keep to the beat under a curve" do
    steps = [BAR, 2 * BAR].reduce(song) { |now, tick| apply(now, "set_tempo", tick:, bpm: 100 + (tick / BAR)).song }
    curved = apply(steps, "glide_tempo", from_tick: 4 * BAR, to_tick: 6 * BAR, to_bpm: 60, shape: "curved").song
    changes = KindSatchel::Heard::Changes.between(steps, curved)
    expect(changes.clock_from).to be <= 4 * BAR
    moved = apply(curved, "shift_points", envelope_id: curved.lanes_of(address(tempo)).first.id, runs: [[4, 4]], ticks: 0, value: 0.01).song
    from = KindSatchel::Heard::Changes.between(curved, moved).clock_from
    expect(from).to be_between((2 * BAR) - 2, 4 * BAR)
    (0..from).step(977) { |tick| expect(moved.tempo.seconds_at(tick)).to be_within(1e-12).of(curved.tempo.seconds_at(tick)) }
    corners = KindSatchel::Heard::Beat.tempos(curved.tempo, 4 * BAR, 6 * BAR)
    beats = corners.each_cons(2).sum { |(a, one), (b, other)| (b - a) * (one + other) / 120 }
    expect(beats).to be_within(0.001).of(8)
  end
end
