# frozen_string_literal: true

# The next song's directory is made from the one before; it must hold just what a new one would.
RSpec.describe KindSatchel::Directory do
  def tables(directory, song)
    { tracks: directory.tracks.transform_values(&:id), envelopes: directory.envelopes.transform_values(&:to_a).sort.to_h,
      regions: directory.regions.transform_values(&:to_a).sort.to_h,
      placed: song.clips.keys.to_h { |id| [id, directory.regions_of_clip(id).map { |placed| placed.region.id }] },
      movers: targets(song).to_h { |target| [target.to_s, directory.movers(target).map { |clip, one| [clip.id, one] }.sort_by(&:first)] } }
  end

  # From the song itself, not from what is to be held against it.
  def targets(song) = song.clips.values.flat_map { |clip| clip.envelopes.map(&:target) }.uniq

  def random_step(maker, song)
    random = maker.random
    region = maker.some_region(song)
    envelope = song.directory.envelopes.values.sample(random:).envelope
    case random.rand(8)
    when 0 then ["move_regions", { region_ids: [region.id], ticks: (random.rand(30) * 960) - region.start_tick }]
    when 1 then ["copy_regions", { region_ids: [region.id], ticks: (random.rand(30) * 960) - region.start_tick }]
    when 2 then ["split_region", { region_id: region.id, tick: region.start_tick + 1 + random.rand([region.length_ticks - 1, 1].max) }]
    when 3 then ["separate_regions", { region_ids: [region.id] }]
    when 4 then ["remove_regions", { region_ids: [region.id] }]
    when 5 then ["remove_envelope", { envelope_id: envelope.id }]
    when 6 then ["embed_envelope", { clip_id: region.clip_id, address: RandomSongs::TARGETS.sample(random:) }]
    else ["add_point", { envelope_id: envelope.id, tick: random.rand(8000), value: random.rand }]
    end
  end

  20.times do |seed|
    it "holds after any edits what a new one holds, with seed #{seed}" do
      maker = RandomSongs.new(seed)
      song = maker.song.tap(&:directory)
      made = 0
      25.times do
        break if song.track("bass").regions.empty? || song.directory.envelopes.empty?

        name, inputs = random_step(maker, song)
        song = apply(song, name, **inputs).song
        made += 1
        expect(tables(song.directory, song)).to eq tables(described_class.new(song), song)
      rescue KindSatchel::InvalidInput
        next
      end
      expect(made).to be > 3
    end
  end

  it "leaves the directory of the song before as it was" do
    song = small_song(clip: [envelope([0, 0.2])]).tap(&:directory)
    before = tables(song.directory, song)
    apply(song, "remove_envelope", envelope_id: "e1")
    apply(song, "move_regions", region_ids: [song.track("bass").regions.first.id], ticks: -BAR)
    expect(tables(song.directory, song)).to eq before
  end

  it "names what is not there" do
    directory = small_song.directory
    expect { directory.envelope("nothing") }.to raise_error(KindSatchel::NotFound, /no envelope "nothing"/)
    expect([directory.regions_of_clip("nothing"), directory.movers(address(CUTOFF))]).to eq [[], []]
  end

  it "still finds regions and envelopes that come back from where they went" do
    song = RandomSongs.new(3).song
    ids = song.track("bass").regions.first(2).map(&:id)
    song.directory
    gone = apply(song, "move_regions", region_ids: ids, ticks: 0, track_steps: 1).song
    patch = KindSatchel::Parts.between(song, gone)
    expect(gone.directory.region(ids.first).track.id).to eq "lead"
    [[gone, 0, "bass"], [song, 1, "lead"]].each do |from, side, track|
      directory = KindSatchel::Parts.apply(from, patch, side).directory
      expect(ids.map { |id| directory.region(id).track.id }).to eq [track, track]
      expect(directory.envelopes.keys).to match_array(KindSatchel::Directory.new(side.zero? ? song : gone).envelopes.keys)
    end
  end
end
