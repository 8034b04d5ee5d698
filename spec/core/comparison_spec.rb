# frozen_string_literal: true

# Two states of one song: nothing differs only where all that is heard is the same.
RSpec.describe KindSatchel::HandOver::Comparison do
  let(:demo) { DemoSong.build }

  def compared(one, two) = described_class.new(one, two)
  def names(one, two) = compared(one, two).rows.map { |row| row.to_record(one).values_at("name", "largest_text") }
  def others(one, two) = compared(one, two).others
  def edited(name, **inputs) = apply(demo, name, **inputs).song
  def again(song) = KindSatchel::Document.load(JSON.parse(json_of(song)))

  # All that is played: notes, sounds, the values of every parameter at many ticks, devices in their order.
  def played(song)
    events = KindSatchel::Heard::Events.new(song).in_range(0, song.length_ticks).map { |event| event.except("region_id") }
    ticks = (0..song.length_ticks).step(331).to_a
    values = (song.automated | song.sounded).select { |address| song.parameter?(address) }.to_h do |address|
      [address.to_s, KindSatchel::Heard::Resolver.new(song, address).at_each(ticks).map { |value| value.round(9) }]
    end
    [events, values, song.tracks.map { |track| [track.output, track.devices.map(&:type)] }]
  end

  it "finds nothing where nothing differs, and where only what is not heard does" do
    expect([compared(demo, again(demo)).rows, others(demo, again(demo))]).to eq [[], []]
    silent = apply(edited("rename_song", name: "Ebb"), "split_region", region_id: demo.track("rope-bass").regions[0].id, tick: 20_000).song
    expect([compared(demo, silent).rows, others(demo, silent)]).to eq [[], []]
    expect(played(silent)).to eq played(demo)
  end

  it "tells another tempo, as it rests or from a place on" do
    expect(names(demo, edited("set_tempo", tick: 0, bpm: 120))).to include ["Tempo", "28 BPM"]
    later = edited("set_tempo", tick: 8 * BAR, bpm: 120)
    row = compared(demo, later).rows.find { |one| one.address.song? }
    expect([row.largest, row.tick]).to match [be_within(0.05).of(28), be_between(8 * BAR, demo.length_ticks)]
  end

  it "tells notes: softer, louder, longer, added, gone, moved, how many and where first" do
    clip = demo.clip("mooring")
    runs = [[0, clip.notes.size - 1]]
    heard = KindSatchel::Heard::Events.new(demo).in_range(0, demo.length_ticks).count { |event| event["clip_id"] == "mooring" && event["kind"] == "note" }
    softer = demo.with_clip(clip.with(notes: clip.notes.map { |note| note.with(velocity: note.velocity / 3) }))
    expect(others(demo, softer)).to eq ["Rope Bass: #{heard} notes softer, first at 5.1.0"]
    expect(others(softer, demo)).to eq ["Rope Bass: #{heard} notes louder, first at 5.1.0"]
    higher = edited("move_notes", clip_id: "mooring", runs:, steps: 12)
    expect(others(demo, higher)[0]).to match(/\d+ notes only in the version, \d+ notes not in the version, first at 5/)
    expect(others(demo, edited("move_notes", clip_id: "mooring", runs: [[3, 3]], ticks: 7))[0]).to match(/\ARope Bass: \d+ notes elsewhere, first at 5\./)
    expect(others(demo, edited("stretch_notes", clip_id: "mooring", runs: [[0, 0]], ticks: 30))[0]).to match(/\ARope Bass: \d+ notes of another length/)
    gone = others(demo, edited("remove_notes", clip_id: "mooring", runs: [[0, 0]]))[0]
    expect(gone).to match(/\ARope Bass: \d+ notes not in the version, first at 5\.1\.0/)
  end

  it "tells regions that lie elsewhere, sounds played otherwise, devices gone, new and in another order, and where tracks sound" do
    moved = edited("move_regions", region_ids: [demo.track("gull-chop").regions[0].id], ticks: 960)
    expect(others(demo, moved)).to match [/\AGull Chop: .* played otherwise/, /\AGull Chop: its regions lie otherwise in the version, first at/]
    turned = edited("set_audio", clip_id: "gulls", backwards: true)
    expect(others(demo, turned)).to match [/\AGull Chop: \d+ sounds are played otherwise in the version, first at/]
    expect(others(demo, edited("remove_device", track_id: "bell-buoy", device_id: "drive"))).to include("Bell Buoy: Drive is not in the version, or another")
    expect(others(demo, edited("add_device", track_id: "bell-buoy", type: "chorus"))).to eq ["Bell Buoy: Chorus is only in the version, or another"]
    first, second = demo.track("fog-pad").devices.select { |device| device.type_rules.role == "effect" }.first(2)
    expect(others(demo, edited("move_device", track_id: "fog-pad", device_id: second.id, before: first.id)))
      .to eq ["Fog Pad: its devices stand in another order in the version"]
    expect(others(demo, edited("set_output", track_ids: ["bell-buoy"], output: "master"))).to eq(
      demo.track("bell-buoy").output == "master" ? [] : ["Bell Buoy: its output goes to Master in the version"]
    )
  end

  it "tells how far a parameter is apart as a bound, and leaves none out that differs" do
    id = demo.clip("mooring").envelopes[0].id
    bent = edited("raise_envelope", envelope_id: id, amount: "+3 %")
    row = compared(demo, bent).rows.find { |one| one.address.to_s == "rope-bass/synth/cutoff" }
    scale = demo.parameter(row.address).scale
    ticks = (0...demo.length_ticks).step(7).to_a
    values = [demo, bent].map { |song| KindSatchel::Heard::Resolver.new(song, row.address).at_each(ticks).map { |value| scale.natural(value) } }
    off = values.transpose.map { |one, two| (one - two).abs }
    expect(row.largest).to be_between(off.max, off.max * 1.05)
    expect(row.mean).to be_within(off.sum / off.size * 0.03).of(off.sum / off.size)
  end

  Seeds.list(1, long: 40).each do |seed|
    it "finds something exactly where something played differs, after random edits (seed #{seed})" do
      maker = RandomSongs.new(seed)
      RandomEdits.new(maker).steps(maker.song, 6).each do |before, after, name|
        found = compared(before, after).then { |one| one.rows.any? { |row| row.largest.positive? } || one.others.any? }
        same = played(before) == played(after)
        expect(found).to be(true), name unless same || found
      end
    end
  end
end
