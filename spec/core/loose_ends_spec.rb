# frozen_string_literal: true

# Everything a song holds that nobody meant, in one list; each place made here, found, and mended by its own fix.
RSpec.describe KindSatchel::Checks::LooseEnds do
  def ends(song, check) = described_class.of_check(song, check)
  def texts(song, check) = ends(song, check).map { |one| one.tell(song).text }

  let(:changed_lane) { small_song(lanes: [envelope([0, 0.5], [2 * BAR, 0.2])]) }

  # The song with the first fix of the only one of its kind made.
  def mended(song, check)
    found = ends(song, check)
    expect(found.map(&:check)).to eq [check]
    fix = found[0].tell(song).fixes.first
    apply(song, fix.edit, **fix.inputs.transform_keys(&:to_sym)).song.tap { |after| expect(ends(after, check)).to eq [] }
  end

  it "finds the one that the demo has, and what its lanes leave; nothing in a song without moves" do
    expect(described_class.of(small_song)).to eq []
    demo = described_class.of(DemoSong.build)
    expect(demo.map(&:check).tally).to eq("uneven_starts" => 1, "off" => 1, "left_changed" => 2)
    expect(demo.first.tell(DemoSong.build).text).to eq "A fade of Volume on Master starts a hair off the value before it."
    expect(demo.map { |one| [one.check, one.key] }.uniq.size).to eq demo.size
    expect(described_class::ALL.map { |_, check| [check.title, check.meaning] }.flatten).to all(match(/\A[A-Z]/))
  end

  it "finds moves that are off, of nothing, out of reach, past their end, left changed, never heard, under muted regions; each is mended" do
    mended(small_song(lanes: [envelope([0, 0.5], on: false)]), "off")
    mended(small_song(clip: [envelope([0, 0.5], target: "bass/synth/none")]), "lost_targets")
    mended(small_song(clip: [envelope([0, 0.5], target: "hall/reverb/mix")]), "lost_targets")
    long = small_song(clip: [envelope([0, 0.5], [BAR - 480, 0.2], [BAR + 480, 0.9])])
    cropped = mended(long, "beyond")
    own = mended(small_song(clip: [envelope([0, 0.5], [BAR - 480, 0.2], [BAR + 480, 0.9], clock: "own_length")]), "beyond")
    expect(own.directory.envelope("e1").envelope.points.last.tick).to be <= BAR
    (BAR..(3 * BAR)).step(97) { |tick| expect(heard(cropped, CUTOFF, tick)).to be_within(1e-9).of(heard(long, CUTOFF, tick)) }
    expect(faults { apply(changed_lane, "crop_envelope", envelope_id: "e1") }).to eq [["no_clip", "/envelope_id"]]
    back = mended(changed_lane, "left_changed")
    expect([heard(back, CUTOFF, 2 * BAR), heard(back, CUTOFF, 3 * BAR)].map { |value| value.round(6) }).to eq [0.2, 0.5]
    whole = small_song(clip: [envelope([0, 0.5], id: "in")], lanes: [envelope([0, 0.2], id: "under")])
    track = whole.track("bass")
    covered = whole.with_track(track.with(regions: [track.regions[0].with(start_tick: 0, length_ticks: 8 * BAR)]))
    expect(ends(whole, "overruled")).to eq []
    mended(covered, "overruled")
    muted = covered.with_track(covered.track("bass").then { |one| one.with(regions: one.regions.map { |region| region.with(muted: true) }) })
    mended(muted, "muted_lanes")
  end

  it "takes no closing fade, nothing that the range repeats and nothing within a thousandth for a knob left changed" do
    count = ->(some) { ends(some, "left_changed").size }
    song = small_song
    fade = ->(finish, last) { envelope([BAR, 0.7], [finish, last], target: "bass/channel/volume") }
    volume = ->(finish, last) { small_song(lanes: [fade.call(finish, last)]) }
    fades = [[song.length_ticks, 0.0], [song.length_ticks, 0.3], [3 * BAR, 0.0]]
    expect(fades.map { |finish, last| count.call(volume.call(finish, last)) }).to eq [0, 1, 1]
    expect([0.4995, 0.4985].map { |last| count.call(small_song(lanes: [envelope([0, 0.5], [2 * BAR, last])])) }).to eq [0, 1]
    looped = apply(changed_lane, "set_range", on: true, start_tick: 0, end_tick: 2 * BAR).song
    expect([count.call(looped), count.call(apply(looped, "set_range", on: false).song)]).to eq [0, 1]
  end

  it "counts a start as uneven beyond a thousandth of the travel, of gains beyond a tenth of a decibel" do
    lane = ->(target, off) { envelope([0, 0.5], [BAR, 0.5 + off], [2 * BAR, 0.9], target:) }
    count = ->(target, off) { ends(small_song(lanes: [lane.call(target, off)]), "uneven_starts").size }
    expect([count.call(CUTOFF, 0.0009), count.call(CUTOFF, 0.0011)]).to eq [0, 1]
    # 40 log10 of 0.5029 / 0.5 is 0.10 dB.
    expect([count.call("bass/channel/volume", 0.0028), count.call("bass/channel/volume", 0.003)]).to eq [0, 1]
  end

  it "finds two that set at once, limits that are pushed against, and says where" do
    carrier = apply(small_song(clip: [envelope([0, 0.5])]), "make_carrier", start_tick: BAR, length_ticks: BAR).song
    clip = carrier.clips.values.find(&:carrier?)
    both = carrier.with_clip(clip.with(envelopes: [envelope([0, 0.8], id: "other")]))
    expect(texts(both, "two_setters"))
      .to eq ["Cutoff in #{clip.name} and Cutoff in Line both set Cutoff of Bass, 2.1.0 to 3.1.0; Cutoff in #{clip.name} is heard."]
    mended(both, "two_setters")
    pushed = small_song(clip: [envelope([0, 0.5]), envelope([0, 0.0], [BAR, 1.0], role: "shift", id: "up")])
    expect(ends(pushed, "limits").map { |one| one.tell(pushed) }.map { |one| [one.text, one.place["from_tick"]] })
      .to eq [["Cutoff of Bass is pushed against its limit for 6.0 beats, first at 2.3.0.", BAR + 1920]]
  end

  it "says of what is missing what of it is, in names" do
    { "bass/synth/high-nose" => "High nose (missing) in Line: Mono synth of Bass has no such knob.",
      "bass/organ/mix" => "Mix (missing) in Line: Bass has no device for it.", "gone/synth/cutoff" => "Cutoff (missing) in Line: its track is gone.",
      "clip-gone/tone-filter/cutoff" => "Cutoff (missing) in Line: its clip is gone.", "move/e9/depth" => "Depth (missing) in Line: that move is gone.",
      "move/e1/rate" => "Rate (missing) in Line: that move has no such setting." }.each do |target, text|
      song = small_song(clip: [envelope([0, 0.5]), envelope([0, 0.5], id: "e2", target:)])
      expect(texts(song, "lost_targets")).to eq [text]
    end
  end

  it "finds empty carriers, macros and drives of nothing, and jumps of the tempo inside a stretched loop" do
    mended(apply(small_song, "make_carrier", start_tick: 0, length_ticks: BAR).song, "empty_carriers")
    strip = apply(small_song, "add_device", track_id: "bass", type: "macro-strip").song
    idle = apply(strip, "add_lane", address: "bass/macro-strip/macro-1").song
    expect(texts(idle, "idle_macros")).to eq ["Macro 1 of Bass is moved, and drives nothing."]
    driven = apply(strip, "set_drive", macro: "bass/macro-strip/macro-1", target: "bass/synth/cutoff").song
    lost = driven.with_track(driven.track("bass").then { |one| one.with(devices: one.devices.reject { |device| device.id == "synth" }) })
    mended(lost, "lost_drives")
    expect(texts(lost, "lost_drives")).to eq ["Macro 1 of Bass drives Cutoff (missing): Bass has no device for it."]
    loop = apply(DemoSong.build, "set_audio", clip_id: "gulls", stretched: true).song
    expect(ends(loop, "tempo_jumps")).to eq []
    jumps = apply(loop, "set_tempo", tick: 9 * BAR, bpm: 110).song
    expect(texts(jumps, "tempo_jumps")).to eq ["The tempo jumps at 10.1.0, inside Gulls on Gull Chop."]
    expect([92.4, 92.6].map { |bpm| ends(apply(loop, "set_tempo", tick: 9 * BAR, bpm:).song, "tempo_jumps").size }).to eq [0, 1]
    muted = jumps.track("gull-chop").regions.reduce(jumps) { |some, one| apply(some, "mute_regions", region_ids: [one.id], muted: true).song }
    expect(ends(muted, "tempo_jumps")).to eq []
  end

  it "mends all of a kind in one edit, and some of them; each fix once where one mends another" do
    off = small_song(lanes: [envelope([0, 0.5], on: false, id: "one"), envelope([0, 0.5], on: false, id: "two", target: "bass/synth/resonance")])
    expect(apply(off, "mend_ends", check: "off").words).to eq "switch it on: 2 loose ends"
    expect(ends(apply(off, "mend_ends", check: "off").song, "off")).to eq []
    expect(ends(apply(off, "mend_ends", check: "off", keys: ["two"]).song, "off").map(&:key)).to eq ["one"]
    expect(apply(off, "mend_ends", check: "off", fix: 1).song.track("bass").lanes).to eq []
    expect(faults { apply(off, "mend_ends", check: "off", fix: 5) }).to eq [["no_fix", "/fix"]]
    expect(faults { apply(off, "mend_ends", check: "limits") }).to eq [["nothing_to_mend", "/check"]]
    expect(faults { apply(off, "mend_ends", check: "wild") }).to eq [["unknown_check", ""]]
    expect(faults { apply(off, "mend_ends", check: "off", keys: ["three"]) }).to eq [["unknown_end", "/keys/0"]]
    lanes = %w[cutoff resonance].map { |name| envelope([0, 0.5], id: name, target: "bass/synth/#{name}") }
    muted = small_song(lanes:).then { |song| apply(song, "mute_regions", region_ids: song.track("bass").regions.map(&:id), muted: true).song }
    expect(ends(muted, "muted_lanes").size).to eq 2
    expect(ends(apply(muted, "mend_ends", check: "muted_lanes").song, "muted_lanes")).to eq []
  end

  it "keeps what is set aside with its reason, in documents too, until it is taken back" do
    off = small_song(lanes: [envelope([0, 0.5], on: false, id: "one"), envelope([0, 0.5], on: false, id: "two", target: "bass/synth/resonance")])
    aside = apply(off, "set_ends_aside", check: "off", keys: ["one"], reason: " for the stage ").song
    expect(described_class.open(aside).map(&:key)).to eq ["two"]
    expect(described_class.of(aside).map { |one| one.to_record(aside)["reason"] }).to eq ["for the stage", nil]
    again = KindSatchel::Document.load(JSON.parse(JSON.generate(KindSatchel::Document.dump(aside))))
    expect(again).to eq aside
    expect(ends(apply(again, "mend_ends", check: "off").song, "off").map(&:key)).to eq ["one"]
    expect(apply(aside, "take_ends_back", check: "off", keys: ["one"]).song).to eq off
    expect(faults { apply(off, "take_ends_back", check: "off", keys: ["one"]) }).to eq [["not_aside", "/keys"]]
    expect(faults { apply(off, "set_ends_aside", check: "off", keys: ["none"]) }).to eq [["unknown_end", "/keys/0"]]
  end

  it "hears of missing sounds and of a mixdown that is too loud from outside" do
    demo = DemoSong.build
    outside = described_class::Outside.new([demo.clip("gulls").audio.sound], 1.3)
    found = described_class.of(demo, outside).select { |one| %w[missing_sounds too_loud].include?(one.check) }.map { |one| one.tell(demo) }
    expect(found.map(&:text)).to eq ["Gulls, Far Gulls play #{demo.clip('gulls').audio.sound}, which is not there.",
                                     "The mixdown of the song as it stands reached +1.3 dBFS."]
    quiet = small_song
    down = described_class::ALL.fetch("too_loud").tell(quiet, "peak", 2.0).fixes
    scale = quiet.parameter(address("master/channel/volume")).scale
    before, after = [quiet, apply(quiet, down[0].edit, **down[0].inputs.transform_keys(&:to_sym)).song].map do |song|
      scale.natural(song.knob(address("master/channel/volume")))
    end
    expect(before - after).to be_within(1e-9).of(2.3)
    expect(described_class.of(demo, described_class::Outside.new([], -0.1)).map(&:check)).not_to include("too_loud")
  end
end
