# frozen_string_literal: true

# Notes before their instrument: arpeggiator, scale quantiser; and steps of loudness. Each is a pure function of song and tick.
RSpec.describe "Note effects and steps" do
  note = ->(tick, length, pitch, velocity = 100) { KindSatchel::Note.new(tick:, length_ticks: length, pitch:, velocity:) }

  # The small song with a chord held over the bar, and devices on its track.
  define_method(:song_of) do |notes, *types|
    song = small_song
    song = song.with_clip(song.clip("line").with(notes:))
    types.reduce(song) { |now, type| apply(now, "add_device", track_id: "bass", type:).song }
  end

  # [tick after the region's start, ticks it lasts, pitch] of all that is played in a stretch.
  def played(song, from = BAR, to = 2 * BAR)
    KindSatchel::Heard::Events.new(song).in_range(from, to).map { |one| [one["start_tick"] - BAR, one["end_tick"] - one["start_tick"], one["pitch"]] }
  end

  def put(song, id, text)
    at = "bass/#{id}"
    apply(song, "set_knob", address: at, value: song.parameter(address(at)).scale.parse(text)).song
  end

  let(:chord) { [note.call(0, BAR, 48), note.call(0, BAR, 55), note.call(0, BAR, 52)] }
  let(:arp) { song_of(chord, "arpeggiator") }

  it "stand before the instrument, in any order, on tracks of notes only" do
    two = apply(arp, "add_device", track_id: "bass", type: "scale-quantiser").song
    expect(two.track("bass").devices.map(&:id)).to eq %w[arpeggiator scale-quantiser synth channel]
    turned = apply(two, "move_device", track_id: "bass", device_id: "scale-quantiser", before: "arpeggiator").song
    expect(turned.track("bass").devices.map(&:id)).to eq %w[scale-quantiser arpeggiator synth channel]
    last = apply(two, "move_device", track_id: "bass", device_id: "arpeggiator").song
    expect(last.track("bass").devices.map(&:id)).to eq %w[scale-quantiser arpeggiator synth channel]
    chain = apply(two, "set_chain", track_id: "bass", devices: [{ "type" => "filter" }, { "type" => "arpeggiator" }]).song
    expect(chain.track("bass").devices.map(&:id)).to eq %w[arpeggiator synth filter channel]
    expect(faults { apply(arp, "add_device", track_id: "hall", type: "arpeggiator") }).to eq [["wrong_device", "/type"]]
    expect(faults { apply(arp, "add_device", clip_id: "line", type: "arpeggiator") }).to eq [["wrong_device", "/type"]]
    wrong = JSON.parse(json_of(two)).tap { |record| record["tracks"][0]["devices"].rotate!(1) }
    expect(faults { KindSatchel::Document.load(wrong) }.map(&:first)).to include "bad_order"
  end

  it "plays held notes one after the other, a note length each, by the place in the song, as long as the gate says" do
    # Bar 2 begins with the seventeenth sixteenth: the second of three notes.
    expect(played(arp).first(4)).to eq [[0, 192, 52], [240, 192, 55], [480, 192, 48], [720, 192, 52]]
    expect(played(arp).size).to eq 16
    expect(played(put(arp, "arpeggiator/gate", "50 %")).first).to eq [0, 120, 52]
    expect(played(put(arp, "arpeggiator/bypass", "on"))).to match_array(chord.map { |one| [0, BAR, one.pitch] })
  end

  it "goes down, up and down, as struck, over octaves, and at random the same way each time" do
    later = song_of([note.call(0, BAR, 48), note.call(480, BAR - 480, 43)], "arpeggiator")
    pitches = ->(some, count = 6) { played(some).first(count).map(&:last) }
    expect(pitches.call(put(arp, "arpeggiator/order", "down"), 3)).to eq [52, 48, 55]
    expect(pitches.call(put(arp, "arpeggiator/order", "up and down"))).to eq [48, 52, 55, 52, 48, 52]
    expect(pitches.call(put(later, "arpeggiator/order", "as struck"))).to eq [48, 48, 48, 43, 48, 43]
    expect(pitches.call(put(arp, "arpeggiator/octaves", "2"))).to eq [64, 67, 48, 52, 55, 60]
    random = put(arp, "arpeggiator/order", "random")
    expect(played(random).map(&:last).uniq).to contain_exactly(48, 52, 55)
    expect(played(random, BAR + 1000, 2 * BAR)).to eq(played(random).select { |start, length, _| start + length > 1000 })
  end

  # The published first outputs of splitmix64 begun at 0, from memory.
  it "draws random steps with splitmix64" do
    expect([0, 1].map { |count| KindSatchel::Heard::NoteEffects.mixed(count) }).to eq [0xE220A8397B1DCDAF, 0x6E789E6AA1B965F4]
  end

  it "takes a setting that moves at the tick of each step: the length changes in the middle of a bar" do
    moved = apply(arp, "embed_envelope", clip_id: "line", address: "bass/arpeggiator/note").song
    id = moved.clip("line").envelopes.first.id
    scale = moved.parameter(address("bass/arpeggiator/note")).scale
    halves = points([0, scale.parse("1/4"), "hold"], [1920, scale.parse("1/8"), "hold"])
    moved = KindSatchel::Edits::Envelopes.change(moved, id) { |envelope| envelope.with(points: halves) }
    expect(played(moved).map(&:first)).to eq [0, 960, 1920, 2400, 2880, 3360]
    expect([[BAR, BAR + 1000], [BAR + 1000, 2 * BAR]].flat_map { |from, to| played(moved, from, to) }.uniq).to eq played(moved)
  end

  # The steps of the major scale, 2 2 1 2 2 2 1 semitones (music theory).
  it "brings notes to a scale: the nearest, of two the lower; or always lower, or higher" do
    all = (60..71).map { |pitch| note.call((pitch - 60) * 240, 240, pitch) }
    quantised = put(song_of(all, "scale-quantiser"), "scale-quantiser/scale", "major")
    pitches = ->(some) { played(some).map(&:last) }
    expect(pitches.call(quantised)).to eq [60, 60, 62, 62, 64, 65, 65, 67, 67, 69, 69, 71]
    expect(pitches.call(put(quantised, "scale-quantiser/towards", "higher"))).to eq [60, 62, 62, 64, 64, 65, 67, 67, 69, 69, 71, 71]
    expect(pitches.call(put(quantised, "scale-quantiser/root", "D"))).to eq [59, 61, 62, 62, 64, 64, 66, 67, 67, 69, 69, 71]
  end

  describe "a step gate" do
    let(:gate) { apply(small_song, "add_device", track_id: "bass", type: "step-gate").song }

    def levels(some, from, to)
      flat = KindSatchel::Heard::StepGate.new(some, some.track("bass"), some.track("bass").device("step-gate")).flat(from, to)
      flat.each_slice(4).map { |start, level, finish, _| [start.round(6), finish.round(6), level] }
    end

    it "goes through its steps from the start of the song, also when begun in the middle of one" do
      expect(levels(gate, 0, 960)).to eq [[0, 0.125, 1.0], [0.125, 0.25, 0.0], [0.25, 0.375, 0.0], [0.375, 0.5, 1.0]]
      expect(levels(gate, 300, 500)).to eq [[0.15625, 0.25, 0.0], [0.25, 0.260417, 0.0]]
      expect(levels(gate, 8 * 240, (8 * 240) + 10)).to match [[1.0, be > 1.0, 1.0]]
      three = put(put(gate, "step-gate/count", "3"), "step-gate/step-3", "40 %")
      expect(levels(three, 0, 1440).map(&:last)).to eq [1.0, 0.0, 0.4, 1.0, 0.0, 0.4]
    end

    it "reads a level that moves where its step begins" do
      laned = apply(gate, "add_lane", address: "bass/step-gate/step-1").song
      id = laned.track("bass").lanes.first.id
      laned = KindSatchel::Edits::Envelopes.change(laned, id) { |lane| lane.with(points: points([0, 0.0], [4 * BAR, 1.0])) }
      expect(levels(laned, 2 * BAR, (2 * BAR) + 100).first.last).to eq 0.5
    end
  end

  # The integral of the length of a beat over the seconds, against the clock itself; scipy holds the clock (spec/reference).
  it "tells how long a quarter note lasts, right to 1/100000, also while the tempo moves" do
    tempo = KindSatchel::Timing::TempoMap.new(points: [[0, 96, "straight"], [2 * BAR, 72, "hold"], [3 * BAR, 140, "hold"]].map do |tick, bpm, shape|
      KindSatchel::Timing::TempoPoint.new(tick:, bpm:, shape:)
    end)
    corners = KindSatchel::Heard::Beat.flat(small_song.with(tempo:), 0, 4 * BAR).each_slice(2).to_a
    expect([corners.first, corners.last]).to match [[0.0, 60.0 / 96], [be_within(1e-9).of(tempo.seconds_at(4 * BAR)), 60.0 / 140]]
    (1..1999).map { |i| i * 4 * BAR / 2000 }.each do |tick|
      seconds = tempo.seconds_at(tick)
      (a, from), (b, to) = corners.each_cons(2).find { |(start, _), (finish, _)| start <= seconds && finish > seconds }
      expect(from + ((to - from) * (seconds - a) / (b - a))).to be_within(60.0 / tempo.bpm_at(tick) * 1e-5).of(60.0 / tempo.bpm_at(tick))
    end
  end
end
