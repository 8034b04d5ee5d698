# frozen_string_literal: true

RSpec.describe "A clip's own chain" do
  let(:plain) { small_song }
  let(:song) { apply(plain, "add_device", clip_id: "line", type: "filter").song }
  let(:own) { "clip-line/filter/cutoff" }
  let(:moved) { drawn(apply(song, "embed_envelope", clip_id: "line", address: own).song, own) }

  # A sweep from 0.2 to 0.8 over the bar for what was embedded last.
  def drawn(some, target)
    id = some.directory.envelopes.values.find { |home| home.envelope.target.to_s == target }.envelope.id
    KindSatchel::Edits::Envelopes.change(some, id) { |envelope| envelope.with(points: points([0, 0.2], [3840, 0.8])) }
  end

  # Two tracks of notes, with all regions of the clip on the first.
  def two_tracks(some) = apply(some, "add_track", kind: "notes", name: "Lead").song
  def clips_on(some, name) = some.tracks.find { |track| track.name == name }.regions.map { |region| some.clip(region.clip_id) }.uniq
  def sound!(some) = expect(KindSatchel::Document.load(JSON.parse(json_of(some)))).to(eq some)

  it "is moved by the clip's own envelopes where its regions sound, and rests on its knobs elsewhere" do
    expect([BAR + 960, (2 * BAR) + 960, (5 * BAR) + 1920].map { |tick| heard(moved, own, tick).round(9) }).to eq [0.35, 0.35, 0.5]
    turned = apply(moved, "set_knob", address: own, value: 0.9)
    expect(turned.notices.map(&:code)).to eq ["held"]
    free = apply(song, "set_knob", address: own, value: 0.9).song
    expect([0, BAR, 4 * BAR].map { |tick| heard(free, own, tick) }).to eq [0.9] * 3
    expect(heard(moved, own, 4 * BAR)).to eq moved.knob(address(own))
    [moved, turned.song, free].each { |some| sound!(some) }
  end

  it "is moved by carriers too, by no lane, and by no other clip" do
    some = apply(moved, "make_carrier", start_tick: 0, length_ticks: 8 * BAR).song
    carrier = some.clips.values.find(&:carrier?)
    carried = apply(some, "embed_envelope", clip_id: carrier.id, address: own, role: "shift").song
    id = carried.clip(carrier.id).envelopes.first.id
    raised = KindSatchel::Edits::Envelopes.change(carried, id) { |envelope| envelope.with(points: points([0, -0.1])) }
    expect([heard(raised, own, BAR + 960), heard(raised, own, 0) - raised.knob(address(own))]).to match [be_within(1e-9).of(0.25), be_within(1e-9).of(-0.1)]
    expect(faults { apply(song, "add_lane", address: own) }).to eq [["no_lane_here", "/address"]]
    other = apply(song, "separate_regions", region_ids: [song.track("bass").regions[1].id]).song
    second = other.track("bass").regions[1].clip_id
    expect(faults { apply(other, "embed_envelope", clip_id: second, address: own) }).to eq [["out_of_reach", "/address"]]
    explained = KindSatchel::Heard::Explanation.new(moved, address(own), BAR + 960)
    expect(explained.lines).to match [/\ALine, Cutoff at 2\.2/, /\Aknob/, /\Aclip Line sets/, /\Aheard/]
  end

  it "tells what an edit changes in it" do
    changes = KindSatchel::Heard::Changes.between(song, moved)
    expect(changes.heard.transform_keys(&:to_s)).to eq(own => [[BAR - 1, (3 * BAR) + 1], [(5 * BAR) - 1, (6 * BAR) + 1]])
    turned = apply(song, "set_knob", address: own, value: 0.1).song
    expect(KindSatchel::Heard::Changes.between(song, turned).addresses.map(&:to_s)).to eq [own]
  end

  it "goes with a copy of its clip, each moved by its own" do
    other = apply(moved, "separate_regions", region_ids: [moved.track("bass").regions[1].id]).song
    copy = other.clip(other.track("bass").regions[1].clip_id)
    expect(copy.envelopes.map { |envelope| envelope.target.to_s }).to eq ["clip-#{copy.id}/filter/cutoff"]
    turned = apply(other, "remove_device", clip_id: "line", device_id: "filter")
    expect([turned.notices.map(&:code), heard(turned.song, "clip-#{copy.id}/filter/cutoff", (5 * BAR) + 1920).round(9)]).to eq [["loose"], 0.5]
    doubled = apply(moved, "duplicate_track", track_id: "bass", moves: true).song
    targets = doubled.directory.envelopes.values.map { |home| [home.clip.id, home.envelope.target.clip_id] }
    expect([targets.size, targets.all? { |clip, target| clip == target }]).to eq [2, true]
    [other, turned.song, doubled].each { |some| sound!(some) }
  end

  it "sounds on one track: placed on another, the clip is made separate, and that is said" do
    some = two_tracks(moved)
    first = some.track("bass").regions.first.id
    steps = { region_ids: [first], ticks: 0, track_steps: 1 }
    copied = apply(some, "copy_regions", **steps)
    expect(copied.notices.map(&:code)).to include "separated"
    expect([clips_on(copied.song, "Bass").size, clips_on(copied.song, "Lead").map(&:id)]).to match [1, [not_eq("line")]]
    expect(clips_on(copied.song, "Lead").first.devices.map(&:id)).to eq ["filter"]
    all = apply(some, "move_regions", **steps, region_ids: some.track("bass").regions.map(&:id))
    expect([all.notices.map(&:code).include?("separated"), clips_on(all.song, "Lead").map(&:id)]).to eq [false, ["line"]]
    shared = apply(two_tracks(plain), "copy_regions", **steps).song
    split = apply(shared, "add_device", clip_id: "line", type: "delay")
    expect([split.notices.map(&:code), [*clips_on(split.song, "Bass"), *clips_on(split.song, "Lead")].map { |clip| clip.devices.map(&:id) }])
      .to eq [["separated"], [["delay"], ["delay"]]]
    [copied, all, split].each { |result| sound!(result.song) }
    wrong = JSON.parse(json_of(shared))
    wrong["clips"][0]["devices"] = [{ "id" => "filter", "type" => "filter", "values" => {}, "held" => {} }]
    expect(faults { KindSatchel::Document.load(wrong) }).to eq [["two_tracks", "/clips/0/devices"]]
  end

  RSpec::Matchers.define_negated_matcher :not_eq, :eq

  it "becomes effects of the track and goes back, with what moves them; what is heard stays" do
    some = apply(moved, "set_knob", address: "clip-line/filter/resonance", value: 0.4).song
    raised = apply(some, "chain_to_track", clip_id: "line").song
    expect([raised.clip("line").devices, raised.track("bass").devices.map(&:id)]).to eq [[], %w[synth filter channel]]
    ticks = [0, BAR + 960, (5 * BAR) + 1920]
    expect(ticks.map { |tick| heard(raised, "bass/filter/cutoff", tick) }).to eq(ticks.map { |tick| heard(some, own, tick) })
    back = apply(raised, "chain_to_clip", track_id: "bass", device_id: "filter", clip_id: "line").song
    expect(back).to eq some
    driven = apply(raised, "add_device", track_id: "bass", type: "drive").song
    laned = apply(driven, "add_lane", address: "bass/drive/amount").song
    both = apply(laned, "chain_to_clip", track_id: "bass", device_id: "drive", clip_id: "line")
    expect([both.song.clip("line").devices.map(&:id), both.notices.map(&:code)]).to eq [%w[filter drive], ["loose"]]
    [raised, both.song].each { |one| sound!(one) }
  end

  it "answers to what moves another clip's" do
    other = apply(moved, "separate_regions", region_ids: [moved.track("bass").regions[1].id]).song
    bare = other.clip(other.track("bass").regions[1].clip_id)
    bare_song = other.with_clip(bare.with(envelopes: []))
    copied = apply(bare_song, "copy_moves", from_clip_id: "line", to_clip_id: bare.id).song
    expect(copied.clip(bare.id).envelopes.map { |envelope| envelope.target.to_s }).to eq ["clip-#{bare.id}/filter/cutoff"]
  end

  it "is heard while its regions sound; between them its dials stay where they were, so that tails ring on" do
    chain = KindSatchel::Heard::OwnChain.new(moved, moved.clip("line"))
    expect(chain.stretches).to eq [[BAR, 3 * BAR], [5 * BAR, 6 * BAR]]
    expect(chain.gate(0, 4 * BAR)).to eq [0.0, 0, 2.0, 0, 2.0, 1, 6.0, 1, 6.0, 0, 8.0, 0]
    resolver = KindSatchel::Heard::Resolver.new(moved, address(own))
    low, high = [0.2, 0.8 - (0.6 / BAR)].map { |value| resolver.scale.engine(value) }
    ramps = chain.ramps(resolver, 0, 5 * BAR).each_slice(2).to_a
    expect([ramps.first, ramps.last(2)]).to match [[0.0, be_within(1e-6).of(low)], [[6.0, be_within(1e-6).of(high)], [10.0, be_within(1e-6).of(high)]]]
    cut = [[0, 2 * BAR], [2 * BAR, 5 * BAR]].flat_map { |from, to| chain.ramps(resolver, from, to).each_slice(2).to_a }
    expect(cut.first(2) + cut.last(2)).to eq ramps.first(2) + ramps.last(2)
    mute = apply(moved, "mute_regions", region_ids: moved.track("bass").regions.map(&:id), muted: true).song
    expect(KindSatchel::Heard::OwnChain.new(mute, mute.clip("line")).gate(0, BAR)).to eq [0.0, 0, 2.0, 0]
  end

  it "says what cannot be" do
    some = apply(plain, "make_carrier", start_tick: 0, length_ticks: BAR).song
    carrier = some.clips.values.find(&:carrier?).id
    expect(faults { apply(some, "add_device", clip_id: carrier, type: "filter") }).to eq [["wrong_device", "/clip_id"]]
    expect(faults { apply(plain, "add_device", clip_id: "line", type: "mono-synth") }).to eq [["wrong_device", "/type"]]
    expect(faults { apply(plain, "add_device", clip_id: "line", track_id: "bass", type: "filter") }).to eq [["bad_request", ""]]
    expect(faults { apply(plain, "add_device", clip_id: "gone", type: "filter") }).to eq [["unknown_clip", "/clip_id"]]
    expect(faults { apply(plain, "chain_to_track", clip_id: "line") }).to eq [["nothing_there", "/clip_id"]]
    expect(faults { apply(plain, "chain_to_clip", clip_id: "line", track_id: "bass", device_id: "synth") }).to eq [["wrong_device", "/device_id"]]
    expect(faults { apply(plain, "chain_to_clip", clip_id: "line", track_id: "hall", device_id: "reverb") }).to eq [["out_of_reach", "/clip_id"]]
    full = apply(plain, "set_chain", clip_id: "line", devices: Array.new(100) { { "type" => "gain" } }).song
    expect(faults { apply(full, "add_device", clip_id: "line", type: "gain") }).to eq [["too_many_devices", "/devices"]]
    expect(apply(song, "set_tails", clip_id: "line", tails: "stop").song.clip("line").tails).to eq "stop"
  end
end
