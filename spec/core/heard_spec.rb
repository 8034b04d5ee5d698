# frozen_string_literal: true

RSpec.describe KindSatchel::Heard do
  let(:volume) { "bass/channel/volume" }

  def explain(song, text, tick) = KindSatchel::Heard::Explanation.new(song, address(text), tick)

  describe "combination" do
    it "rests on the knob where nothing acts" do
      song = small_song(clip: [envelope([0, 0.9])], knobs: { "cutoff" => "1 kHz" })
      expect(song.parameter(address(CUTOFF)).text(heard(song, CUTOFF, 0))).to eq "1 kHz"
    end

    it "lets a clip envelope sound from its region's start to just before its end" do
      song = small_song(clip: [envelope([0, 0.9])])
      knob = song.knob(address(CUTOFF))
      expect([BAR - 1, BAR, (3 * BAR) - 1, 3 * BAR].map { |tick| heard(song, CUTOFF, tick) }).to eq [knob, 0.9, 0.9, knob]
    end

    it "sets, then scales, then shifts, whatever the order in the list" do
      set, half, up = envelope([0, 0.8]), envelope([0, 0.5], id: "e2", role: "scale"), envelope([0, 0.1], id: "e3", role: "shift")
      [set, half, up].permutation.each { |list| expect(heard(small_song(clip: list), CUTOFF, BAR)).to be_within(1e-12).of(0.5) }
    end

    it "lets the clip act on what the lane made" do
      song = small_song(clip: [envelope([0, 0.2], role: "shift")], lanes: [envelope([0, 0.3], id: "l1", clock: "once")])
      expect([heard(song, CUTOFF, 0), heard(song, CUTOFF, BAR)]).to match [0.3, be_within(1e-12).of(0.5)]
    end

    it "multiplies the amplitude of gains: a half is 6.02 dB less" do
      song = small_song(clip: [envelope([0, 0.5], target: volume, role: "scale")])
      expect(song.parameter(address(volume)).scale.natural(heard(song, volume, BAR))).to be_within(1e-9).of(20 * Math.log10(0.5))
    end

    it "stays within the limits and on the steps" do
      over = small_song(clip: [envelope([0, 0.9], role: "shift")], lanes: [envelope([0, 0.8], id: "l1")])
      expect(heard(over, CUTOFF, BAR)).to eq 1.0
      pitch = small_song(clip: [envelope([0, 0.511], target: "bass/synth/pitch")])
      expect(heard(pitch, "bass/synth/pitch", BAR)).to eq 25.fdiv(48)
    end

    it "leaves out envelopes that are off or empty" do
      song = small_song(clip: [envelope([0, 0.9], on: false)], lanes: [envelope(id: "l1")])
      expect(heard(song, CUTOFF, BAR)).to eq song.knob(address(CUTOFF))
    end
  end

  describe "clocks" do
    let(:ramp) { [[0, 0.0], [2 * BAR, 1.0]] }

    def over(clock, **more) = small_song(clip: [envelope(*ramp, clock:, **more)])

    it "restarts with each loop" do
      expect(heard(over("each_loop"), CUTOFF, BAR + 960)).to eq heard(over("each_loop"), CUTOFF, (2 * BAR) + 960)
    end

    it "runs once over all the repeats" do
      expect(heard(over("once"), CUTOFF, (2 * BAR) + 1920)).to be_within(1e-12).of(0.75)
    end

    it "is stretched to the region" do
      song = over("stretched", own_length_ticks: 2 * BAR)
      expect([heard(song, CUTOFF, 2 * BAR), heard(song, CUTOFF, (5 * BAR) + 1920)]).to all(be_within(1e-12).of(0.5))
    end

    # Least common multiple: 3 beats over a loop of 4 meet again after 12 (music theory).
    it "repeats by a length of its own" do
      song = over("own_length", own_length_ticks: 3 * 960)
      expect(heard(song, CUTOFF, BAR + (3 * 960) + 480)).to eq heard(song, CUTOFF, BAR + 480)
    end
  end

  describe "over time" do
    it "gives the same at a tick as over any range that holds it" do
      song = small_song(clip: [envelope([0, 0.1, 0.5], [1920, 0.9, "hold"], [2880, 0.2])], lanes: [envelope([0, 0.2, -0.3], [9000, 0.7], id: "l1")])
      ticks = (0..(7 * BAR)).step(97).to_a
      resolver = KindSatchel::Heard::Resolver.new(song, address(CUTOFF))
      expect(resolver.at_each(ticks)).to eq(ticks.map { |tick| resolver.at(tick) })
    end

    it "has pieces in order without gaps" do
      pieces = KindSatchel::Heard::Resolver.new(small_song(clip: [envelope([0, 0.1], [900, 0.4])]), address(CUTOFF)).pieces(0, 7 * BAR)
      expect([pieces.first.from, pieces.last.to]).to eq [0, 7 * BAR]
      pieces.each_cons(2) { |a, b| expect(a.to).to eq b.from }
    end
  end

  describe KindSatchel::Heard::Explanation do
    let(:song) { small_song(clip: [envelope([0, 0.125], role: "shift")], lanes: [envelope([0, 0.5], id: "l1")], knobs: { "cutoff" => "800 Hz" }) }

    it "tells the steps in order, with numbers, and ends on what is heard" do
      steps = explain(song, CUTOFF, BAR).steps
      expect(steps.map(&:kind)).to eq %w[knob lane clip heard]
      expect(steps.map(&:text)).to eq ["800 Hz", "735 Hz", "1.63 kHz", "1.63 kHz"]
      expect(steps.last.value).to eq heard(song, CUTOFF, BAR)
    end

    it "says what was overruled" do
      song = small_song(clip: [envelope([0, 0.7])], lanes: [envelope([0, 0.5], id: "l1")])
      expect(explain(song, CUTOFF, BAR).steps.select(&:overruled).map(&:kind)).to eq ["lane"]
      expect(explain(song, CUTOFF, BAR).lines.join).to include "overruled"
    end

    it "names the limits where they act" do
      song = small_song(clip: [envelope([0, 1.0], role: "shift")])
      expect(explain(song, CUTOFF, BAR).lines).to include(/limits stays within 30 Hz to 18 kHz/)
    end
  end

  describe KindSatchel::Heard::Events do
    it "repeats notes with the loop and cuts them at the region's end" do
      song = small_song
      starts = described_class.new(song).in_range(0, 8 * BAR).map { |event| event["start_tick"] }
      expect(starts).to eq [BAR, 2 * BAR, 5 * BAR]
    end

    it "brings along what began before and still sounds" do
      expect(described_class.new(small_song).in_range(BAR + 240, BAR + 300).map { |event| event["start_tick"] }).to eq [BAR]
      expect(described_class.new(small_song).in_range(BAR + 480, BAR + 900)).to eq []
    end

    it "plays a loop at the song's tempo over its own, from the right place" do
      event = described_class.new(DemoSong.build).in_range(8 * BAR, 9 * BAR).find { |entry| entry["kind"] == "audio" }
      expect(event).to include("sound" => "gull-loop", "rate" => 1.0, "into_seconds" => 0.0)
    end
  end

  describe KindSatchel::Heard::Ramps do
    def ramps(song, text, **more) = described_class.new(KindSatchel::Heard::Resolver.new(song, address(text)), **more)

    it "needs one ramp for a straight move on a linear scale" do
      song = small_song(lanes: [envelope([0, 0.1], [BAR, 0.9], target: "bass/synth/sub", id: "l1")])
      expect(described_class.count(ramps(song, "bass/synth/sub").corners(0, 2 * BAR))).to eq 1
    end

    it "keeps steps as steps" do
      song = small_song(lanes: [envelope([0, 0.5], [BAR, 0.5 + (2 / 48.0)], target: "bass/synth/pitch", id: "l1")])
      corners = ramps(song, "bass/synth/pitch").corners(0, 2 * BAR)
      expect(corners.map(&:last).uniq).to eq [0.0, 1.0, 2.0]
      expect(corners.each_cons(2).count { |(s0, v0), (s1, v1)| s1 > s0 && v0 != v1 }).to eq 0
    end

    it "refuses a tolerance that is none" do
      expect { ramps(small_song, CUTOFF, tolerance: 0) }.to raise_error(KindSatchel::InvalidInput, /tolerance/)
    end
  end
end
