# frozen_string_literal: true

RSpec.describe "Combining clip and track" do
  let(:song) { small_song(clip: [envelope([0, 0.2], [BAR, 0.9])], lanes: [envelope([0, 0.3], [8 * BAR, 0.7], id: "l1")]) }
  let(:volume) { "bass/channel/volume" }

  def curve(some, target, ticks) = KindSatchel::Heard::Resolver.new(some, address(target)).at_each(ticks)
  def decibels(some, tick) = some.parameter(address(volume)).scale.natural(heard(some, volume, tick))
  def explained(some, text, tick) = KindSatchel::Heard::Explanation.new(some, address(text), tick).steps

  def knob_text(some) = some.parameter(address(CUTOFF)).text(some.knob(address(CUTOFF)))

  describe "held by hand" do
    it "takes over at once what something sets, and hands back" do
      held = apply(song, "set_knob", address: CUTOFF, value: 0.5)
      expect([0, BAR, 5 * BAR].map { |tick| heard(held.song, CUTOFF, tick) }).to all eq 0.5
      expect(held.notices.map(&:text)).to eq ["held by hand until it is handed back"]
      text = held.song.parameter(address(CUTOFF)).text(0.5)
      expect(explained(held.song, CUTOFF, BAR)[0]).to have_attributes(kind: "held", does: "by hand at #{text}")
      waiting = explained(held.song, CUTOFF, BAR).select(&:waits)
      expect(waiting.map(&:envelope_id)).to eq(explained(song, CUTOFF, BAR).filter_map(&:envelope_id))
      expect([waiting.map(&:value).uniq, explained(held.song, CUTOFF, BAR).last.value]).to eq [[0.5], 0.5]
      back = apply(held.song, "hand_back", addresses: [CUTOFF]).song
      expect(curve(back, CUTOFF, [0, BAR, 5 * BAR])).to eq curve(song, CUTOFF, [0, BAR, 5 * BAR])
    end

    it "leaves a knob alone that nothing sets: what shifts it goes on" do
      shifted = small_song(clip: [envelope([0, 0.1], role: "shift")])
      turned = apply(shifted, "set_knob", address: CUTOFF, value: 0.5)
      expect([turned.song.held, heard(turned.song, CUTOFF, BAR)]).to eq [[], 0.6]
    end

    it "reads a typed value as the knob shows it, 50 % as half of the travel, and says what cannot be read" do
      still = small_song
      typed = ->(text, shown = "") { knob_text(apply(still, "set_knob", address: CUTOFF, value: text, shown:).song) }
      expect([typed.call("2 kHz"), typed.call("2", "1.2 kHz"), typed.call("200", "1.2 Hz"), typed.call("200")]).to eq ["2 kHz", "2 kHz", "200 Hz", "200 Hz"]
      expect(apply(still, "set_knob", address: CUTOFF, value: "50 %").song.knob(address(CUTOFF))).to eq 0.5
      quiet = apply(still, "set_knob", address: volume, value: "-6").song
      expect(quiet.knob(address(volume))).to be_within(1e-9).of(quiet.parameter(address(volume)).scale.normalised(-6))
      expect(faults { typed.call("loud") }).to eq [["bad_value", "/value"]]
      expect(faults { typed.call("90", "1.2 kHz") }).to eq [["out_of_range", "/value"]]
    end

    it "carries a value from another parameter: by value in one unit, else by share; what does not fit is refused" do
      still = small_song(knobs: {})
      from = ->(source, value, to) { apply(still, "set_knob", address: to, value:, from: source).song.then { |song| [song, song.knob(address(to))] } }
      attack, release = "bass/synth/attack", "bass/synth/release"
      scales = [attack, release].map { |one| still.parameter(address(one)).scale }
      song, value = from.call(attack, 0.6, release)
      expect(scales[1].natural(value)).to be_within(1e-9).of(scales[0].natural(0.6))
      expect([song.held, from.call(attack, 0.6, CUTOFF)[1]]).to eq [[], 0.6]
      expect(faults { from.call(attack, 0.0, release) }).to eq [["out_of_range", "/value"]]
      expect(faults { from.call("bass/synth/none", 0.5, release) }.map(&:last)).to eq ["/from"]
    end

    it "sets the resting value of what is moved, or holds it, as one says" do
      resting = apply(song, "set_knob", address: CUTOFF, value: "2 kHz", way: "rest")
      expect([knob_text(resting.song), resting.song.held, resting.notices]).to eq ["2 kHz", [], []]
      expect(curve(resting.song, CUTOFF, [BAR, 5 * BAR])).to eq curve(song, CUTOFF, [BAR, 5 * BAR])
      shifted = small_song(clip: [envelope([0, 0.1], role: "shift")])
      holding = apply(shifted, "set_knob", address: CUTOFF, value: 0.5, way: "hold").song
      expect([heard(holding, CUTOFF, BAR), holding.knob(address(CUTOFF))]).to eq [0.5, shifted.knob(address(CUTOFF))]
      expect(faults { apply(small_song, "set_knob", address: CUTOFF, value: 0.5, way: "hold") }).to eq [["nothing_moves", "/way"]]
    end

    it "hands all back at once, and says when there is nothing" do
      lanes = [*song.track("bass").lanes, envelope([0, 0.1], id: "l2", target: volume)]
      two = apply(song.with_track(song.track("bass").with(lanes:)), "set_knob", address: CUTOFF, value: 0.5).song
      two = apply(two, "set_knob", address: volume, value: 0.5).song
      expect(two.held.map(&:to_s)).to eq [CUTOFF, volume]
      expect([apply(two, "hand_back").song.held, apply(two, "hand_back").words]).to eq [[], "hand back 2 knobs"]
      expect(faults { apply(song, "hand_back") }).to eq [["nothing_held", ""]]
      expect(faults { apply(song, "hand_back", addresses: [CUTOFF]) }).to eq [["nothing_held", "/addresses/0"]]
    end
  end

  describe "faders" do
    let(:song) { small_song(lanes: [envelope([0, 0.4], [8 * BAR, 0.6], id: "l1", target: volume)], knobs: {}) }

    # Source: decibels add where amplitudes multiply, 20 log10(ab) = 20 log10(a) + 20 log10(b).
    it "trim on top of the lane: 2 dB more on the fader are 2 dB more everywhere" do
      trimmed = apply(song, "set_fader", envelope_id: "l1", fader: "trim").song
      expect([0, BAR, 5 * BAR].map { |tick| decibels(trimmed, tick) - decibels(song, tick) }).to all be_within(1e-9).of(0)
      fader = trimmed.parameter(address(volume)).scale
      up = apply(trimmed, "set_knob", address: volume, value: fader.normalised(2.0)).song
      expect(up.held).to eq []
      expect([0, BAR, 5 * BAR].map { |tick| decibels(up, tick) - decibels(song, tick) }).to all be_within(1e-9).of(2)
      back = apply(up, "set_fader", envelope_id: "l1", fader: "follow").song
      expect([0, BAR, 5 * BAR].map { |tick| decibels(back, tick) - decibels(song, tick) }).to all be_within(1e-9).of(2)
      expect(explained(up, volume, 0)[1]).to have_attributes(kind: "lane", does: "with the knob: #{fader.text(0.4)}")
    end

    it "follow: the whole lane is raised by one amount" do
      up = apply(song, "raise_envelope", envelope_id: "l1", amount: "+2 dB").song
      expect([0, 8 * BAR].map { |tick| decibels(up, tick) - decibels(song, tick) }).to all be_within(1e-9).of(2)
      expect(faults { apply(song, "raise_envelope", envelope_id: "l1", amount: "loud") }).to eq [["bad_value", "/amount"]]
    end

    it "add the knob's distance from its default where there is no gain" do
      pan = small_song(lanes: [envelope([0, 0.5], [8 * BAR, 0.7], id: "l1", target: "bass/channel/pan")])
      trimmed = apply(apply(pan, "set_fader", envelope_id: "l1", fader: "trim").song, "set_knob", address: "bass/channel/pan", value: 0.6).song
      expect([0, 8 * BAR].map { |tick| heard(trimmed, "bass/channel/pan", tick).round(9) }).to eq [0.6, 0.8]
    end

    it "belong to lanes that set, and not to switches" do
      expect(faults { apply(small_song(clip: [envelope([0, 0.2])]), "set_fader", envelope_id: "e1", fader: "trim") }).to eq [["no_fader", "/envelope_id"]]
      shift = small_song(lanes: [envelope([0, 0.2], id: "l1", role: "shift")])
      expect(faults { apply(shift, "set_fader", envelope_id: "l1", fader: "trim") }).to eq [["no_fader", "/envelope_id"]]
      mute = small_song(lanes: [envelope([0, 0.2], id: "l1", target: "bass/channel/mute")])
      expect(faults { apply(mute, "set_fader", envelope_id: "l1", fader: "trim") }).to eq [["no_fader", "/envelope_id"]]
    end
  end

  it "changes a role with what is heard kept, or with the drawing kept" do
    lane_only = small_song(clip: [envelope([0, 0.2], [BAR, 0.8])])
    kept = apply(lane_only, "set_role", envelope_id: "e1", role: "shift").song
    expect(heard(kept, CUTOFF, BAR + 1920)).to be_within(1e-9).of heard(lane_only, CUTOFF, BAR + 1920)
    drawn = apply(lane_only, "set_role", envelope_id: "e1", role: "shift", keep: "drawing").song
    expect(drawn.directory.envelope("e1").envelope.points.map { |point| point.value.round(9) }).to eq [-0.6, 0.6]
    again = apply(drawn, "set_role", envelope_id: "e1", role: "set", keep: "drawing").song
    expect(again.directory.envelope("e1").envelope.points.map { |point| point.value.round(9) }).to eq [0.2, 0.8]
  end

  describe "conflicts" do
    let(:clash) do
      made = apply(song, "make_carrier", start_tick: (2 * BAR) + 480, length_ticks: 4 * BAR).song
      made.with_clip(made.clips.values.last.with(envelopes: [envelope([0, 0.5], id: "e9")]))
    end

    it "are where two clip envelopes set one parameter, with the winner" do
      found = KindSatchel::Checks::Conflicts.of(clash, address(CUTOFF))
      expect(found.map { |one| [one.from, one.to] }).to eq [[(2 * BAR) + 480, 3 * BAR], [5 * BAR, 6 * BAR]]
      expect(found.map { |one| [one.winner.envelope.id, one.loser.envelope.id] }.uniq).to eq [%w[e9 e1]]
      expect(heard(clash, CUTOFF, 5 * BAR)).to eq 0.5
    end

    it "are none with the lane, with one that is off, with one that shifts, in a muted region" do
      expect(KindSatchel::Checks::Conflicts.of(song, address(CUTOFF))).to eq []
      carrier = clash.tracks.find { |track| track.kind == "carrier" }.regions.first
      [["switch_envelope", { envelope_id: "e9", on: false }], ["set_role", { envelope_id: "e9", role: "shift" }],
       ["mute_regions", { region_ids: [carrier.id], muted: true }], ["move_regions", { region_ids: [carrier.id], ticks: 10 * BAR }]].each do |name, inputs|
        expect(KindSatchel::Checks::Conflicts.of(apply(clash, name, **inputs).song, address(CUTOFF))).to eq []
      end
    end
  end
end
