# frozen_string_literal: true

require "spec_helper"

# One knob drives many: a macro stands in the place of the knob of what it drives.
RSpec.describe "Macros" do
  def resolver(song, text) = KindSatchel::Heard::Resolver.new(song, address(text))
  def pieces_at(song, text) = KindSatchel::Heard::Pieces.read(resolver(song, text).pieces(0, ticks.last + 1), ticks)
  def macro(number = 1) = "bass/macro-strip/macro-#{number}"
  def drive(song, target, number: 1, **more) = apply(song, "set_drive", macro: macro(number), target:, **more).song
  def turn(song, value, number: 1) = apply(song, "set_knob", address: macro(number), value:).song

  let(:ticks) { (0..(7 * BAR)).step(53).to_a }
  let(:song) { apply(small_song(clip: [envelope([0, 0.0], [BAR, 1.0], target: macro, id: "sweep")]), "add_device", track_id: "bass", type: "macro-strip").song }
  let(:still) { apply(small_song, "add_device", track_id: "bass", type: "macro-strip").song }

  it "drives what it is told to, between two values, either way; the resting value waits and comes back" do
    driven = turn(drive(still, CUTOFF, low: 0.8, high: 0.2), 0.25)
    expect(heard(driven, CUTOFF, 0)).to be_within(1e-12).of(0.65)
    back = apply(driven, "remove_drive", target: CUTOFF)
    expect(heard(back.song, CUTOFF, 0)).to eq heard(still, CUTOFF, 0)
    expect(back.words).to eq "drive Cutoff of Mono synth on Bass no more"
    gone = apply(driven, "remove_device", track_id: "bass", device_id: "macro-strip")
    expect(heard(gone.song, CUTOFF, 0)).to eq heard(still, CUTOFF, 0)
    expect(gone.notices.map(&:text)).to eq ["Cutoff of Mono synth on Bass rest on their own knobs again"]
  end

  it "leaves what it drives where it is when something new begins to move that" do
    driven = turn(drive(still, CUTOFF, low: 0.8, high: 0.2), 0.25)
    laned = apply(driven, "add_lane", address: CUTOFF).song
    embedded = apply(driven, "embed_envelope", clip_id: "line", address: CUTOFF).song
    expect([laned, embedded].map { |one| heard(one, CUTOFF, BAR).round(9) }).to eq [0.65, 0.65]
  end

  it "goes straight between its stops; of two at one place the later counts from there on" do
    driven = drive(song, CUTOFF, stops: [[0.2, 0.1], [0.5, 0.4], [0.5, 0.9], [0.8, 0.7]])
    { 0.1 => 0.1, 0.35 => 0.25, 0.5 => 0.9, 0.65 => 0.8, 0.9 => 0.7 }.each do |place, value|
      expect(heard(driven, CUTOFF, BAR + (BAR * place).round)).to be_within(1e-9).of(value)
    end
    expect(pieces_at(driven, CUTOFF).zip(ticks.map { |tick| heard(driven, CUTOFF, tick) }).map { |a, b| (a - b).abs }.max).to be < 1e-9
  end

  it "stands where the knob does: lanes and clips act on it, a lane that trims too" do
    shifts = [envelope([0, 0.1, "hold"], role: "shift", id: "up")]
    driven = drive(turn(still, 0.5), CUTOFF)
    shifted = driven.with_clip(driven.clip("line").with(envelopes: shifts))
    expect(heard(shifted, CUTOFF, BAR)).to be_within(1e-12).of(0.6)
    set = driven.with_track(driven.track("bass").with(lanes: [envelope([0, 0.3, "hold"], id: "lane")]))
    expect(heard(set, CUTOFF, 0)).to eq 0.3
    trims = set.with_track(set.track("bass").with(lanes: [envelope([0, 0.3, "hold"], id: "lane", fader: "trim")]))
    default = set.parameter(address(CUTOFF)).default
    expect(heard(trims, CUTOFF, 0)).to be_within(1e-12).of((0.3 + 0.5 - default).clamp(0, 1))
    moving = drive(song, CUTOFF)
    moving = moving.with_track(moving.track("bass").with(lanes: [envelope([0, 0.4, "hold"], id: "lane", fader: "trim")]))
    expect(pieces_at(moving, CUTOFF).zip(ticks.map { |tick| heard(moving, CUTOFF, tick) }).map { |a, b| (a - b).abs }.max).to be < 1e-9
  end

  it "flips switches where it crosses the middle, and goes through all steps between" do
    driven = drive(drive(song, "bass/channel/mute"), "bass/synth/pitch")
    expect([0.49, 0.51].map { |place| heard(driven, "bass/channel/mute", BAR + (BAR * place).round) }).to eq [0.0, 1.0]
    expect((0..47).map { |i| heard(driven, "bass/synth/pitch", BAR + (i * BAR / 47)) }.uniq.size).to be > 40
  end

  it "drives macros, and settings of moves, in the frame of the region" do
    move = envelope([0, 0.9, "hold"])
    song = self.song.with_clip(self.song.clip("line").with(envelopes: [*self.song.clip("line").envelopes, move]))
    chain = drive(drive(song, macro(2)), "move/e1/depth", number: 2)
    expect(heard(chain, CUTOFF, BAR + (BAR / 4))).to be_within(1e-9).of(0.5 + (0.25 * 0.4))
    expect { drive(chain, macro(1), number: 2) }.to raise_error(KindSatchel::InvalidInput, /ring: Macro . of Macros on Bass needs Macro .*, which needs Macro/)
  end

  it "says who drives already, and replaces it when asked to" do
    driven = drive(still, CUTOFF)
    expect { drive(driven, CUTOFF, number: 2) }.to raise_error(KindSatchel::InvalidInput, /Macro 1 of Macros on Bass drives Cutoff already/)
    replaced = apply(driven, "set_drive", macro: macro(2), target: CUTOFF, replace: true)
    expect(replaced.song.directory.driver(address(CUTOFF)).macro.to_s).to eq macro(2)
    expect(replaced.notices.map(&:text)).to eq ["Macro 1 of Macros on Bass drives it no more"]
    expect(faults { drive(still, "bass/synth/none") }).to eq [["unknown_parameter", "/target"]]
    expect(faults { apply(still, "set_drive", macro: CUTOFF, target: CUTOFF) }).to eq [["no_macro", "/macro"]]
    expect(faults { drive(still, CUTOFF, low: "loud") }).to eq [["bad_value", "/low"]]
  end

  it "lets go while a hand holds what it drives" do
    held = apply(drive(turn(still, 0.5), CUTOFF), "set_knob", address: CUTOFF, value: 0.1).song
    expect(heard(held, CUTOFF, 0)).to eq 0.1
    expect(heard(apply(held, "hand_back").song, CUTOFF, 0)).to be_within(1e-12).of(0.5)
  end

  it "is explained, named, kept in documents, and goes along with its track" do
    named = apply(drive(song, CUTOFF), "set_macro", address: macro, name: "Tide").song
    lines = KindSatchel::Heard::Explanation.new(named, address(CUTOFF), BAR + (BAR / 2)).lines
    expect(lines[1]).to eq "macro Tide sets 735 Hz - Tide 50 % (clip) -> 735 Hz"
    expect(KindSatchel::Document.load(JSON.parse(json_of(named)))).to eq named
    copied = apply(named, "duplicate_track", track_id: "bass", moves: true).song
    expect(pieces_at(copied, "#{copied.tracks[1].id}/synth/cutoff")).to eq pieces_at(named, CUTOFF)
    taken = apply(small_song, "take_tracks", document: JSON.parse(json_of(named)), track_ids: ["bass"]).song
    expect(pieces_at(taken, "#{taken.tracks[1].id}/synth/cutoff")).to eq pieces_at(named, CUTOFF)
  end

  it "tells what may be heard otherwise when it is turned, drives otherwise, or is moved" do
    driven = drive(song, CUTOFF, low: 0.2)
    { "set_knob" => { address: macro(1), value: 0.7 }, "set_drive" => { macro: macro, target: CUTOFF, high: 0.4 },
      "flip_points" => { envelope_id: "sweep", runs: [[0, 1]] } }.each do |name, inputs|
      after = apply(driven, name, **inputs).song
      changes = KindSatchel::Heard::Changes.between(driven, after).heard.fetch(address(CUTOFF))
      differing = ticks.select { |tick| (heard(driven, CUTOFF, tick) - heard(after, CUTOFF, tick)).abs > 1e-12 }
      expect(differing).not_to be_empty
      expect(differing).to all(satisfy { |tick| changes.any? { |from, to| tick.between?(from, to) } })
    end
  end

  it "lets one move move another parameter too, in one step" do
    moved = small_song(clip: [envelope([0, 0.2], [BAR, 0.8])])
    both = apply(moved, "drive_from", envelope_id: "e1", target: "bass/channel/pan")
    expect(pieces_at(both.song, CUTOFF).zip(pieces_at(moved, CUTOFF)).map { |a, b| (a - b).abs }.max).to be < 1e-9
    expect(heard(both.song, "bass/channel/pan", BAR + (BAR / 2))).to be_within(1e-9).of(0.5)
    expect(both.song.parameter_name(both.song.clip("line").envelopes[0].target)).to eq "Cutoff"
  end

  describe "that morphs" do
    let(:settings) do
      [{ "values" => { "cutoff" => 0.2, "wave" => 0.0 } }, { "values" => { "cutoff" => 0.8, "wave" => 1.0 } },
       { "values" => { "cutoff" => 0.5, "wave" => 1.0 } }]
    end

    def morph(on = still, **more) = apply(on, "morph_macro", macro: macro, device: "bass/synth", settings:, **more)

    it "runs through settings of a device: straight over, steps half way; only what differs is driven" do
      morphed = morph.song
      expect(morphed.directory.drives_of(address(macro)).map { |one| one.target.parameter_id }).to contain_exactly("cutoff", "wave")
      { 0.0 => 0.2, 0.25 => 0.5, 0.5 => 0.8, 0.75 => 0.65, 1.0 => 0.5 }.each do |place, value|
        expect(heard(turn(morphed, place), CUTOFF, 0)).to be_within(1e-12).of(value)
      end
      expect([0.2, 0.25, 0.6, 1.0].map { |place| heard(turn(morphed, place), "bass/synth/wave", 0) }).to eq [0.0, 1.0, 1.0, 1.0]
      expect(morph.words).to eq "let Macro 1 morph Mono synth of Bass through 3 settings"
    end

    it "keeps what lies between when its ends are set" do
      set = drive(morph.song, CUTOFF, low: 0.1)
      expect(set.directory.drives_of(address(macro)).find { |one| one.target == address(CUTOFF) }.stops).to eq [[0.0, 0.1], [0.5, 0.8], [1.0, 0.5]]
    end

    it "takes the place of what it drove of that device, leaves the rest, and others' only when asked" do
      before = drive(drive(still, "bass/synth/sweep"), "bass/channel/volume")
      expect(morph(before).song.directory.drives_of(address(macro)).map { |one| one.target.parameter_id }).to contain_exactly("volume", "cutoff", "wave")
      other = drive(still, CUTOFF, number: 2)
      expect(faults { morph(other) }).to eq [["already_driven", "/device"]]
      expect(morph(other, replace: true).notices.map(&:code)).to eq ["replaced"]
    end

    it "is refused for settings that are none" do
      expect(faults { morph(settings: [settings[0], settings[0]]) }).to eq [["all_the_same", "/settings"]]
      expect(faults { morph(settings: [{ "values" => { "nose" => 1 } }, settings[0]]) }).to eq [["unknown_parameter", "/settings/0/values/nose"]]
      expect(faults { morph(settings: [settings[0].merge("place" => 0.5), settings[1].merge("place" => 0.5)]) }).to eq [["unsorted", "/settings"]]
      expect(faults { morph(device: "bass/macro-strip") }).to eq [["same_place", "/device"]]
      expect(faults { morph(device: "bass") }).to eq [["unknown_device", "/device"]]
    end
  end
end
