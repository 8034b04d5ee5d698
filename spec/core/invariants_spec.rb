# frozen_string_literal: true

# What must hold for any song. The seed is in each description: `SEED=n bin/test spec/core/invariants_spec.rb` runs one.
RSpec.describe "Invariants" do
  first = ENV.fetch("SEED") { Random.new_seed % 1_000_000 }.to_i
  seeds = ENV["SEED"] ? [first] : (first...(first + 40)).to_a

  targets = RandomSongs::TARGETS

  def curve(song, target, ticks) = KindSatchel::Heard::Resolver.new(song, address(target)).at_each(ticks)

  # One random edit of a kind that the songs can bear.
  def random_edit(maker, song)
    random = maker.random
    region = maker.some_region(song)
    envelope = song.directory.envelopes.values.sample(random:).envelope
    some = { envelope_id: envelope.id, runs: [[0, random.rand(envelope.points.size.clamp(1..))]] }
    case random.rand(28)
    when 0 then ["move_regions", { region_ids: [region.id], ticks: (random.rand(20) * 960) - region.start_tick }]
    when 1 then ["copy_regions", { region_ids: [region.id], ticks: (random.rand(20) * 960) - region.start_tick }]
    when 2 then ["add_point", { envelope_id: envelope.id, tick: random.rand(8000), value: random.rand }]
    when 3 then ["remove_points", { **some, push: random.rand < 0.5 }]
    when 4 then ["switch_envelope", { envelope_id: envelope.id, on: random.rand < 0.5 }]
    when 5 then ["set_knob", { address: targets.sample(random:), value: random.rand }]
    when 6 then ["shape_segments", { **some, shape: { "shape" => "curved", "curve" => random.rand.round(3) } }]
    when 7 then ["flip_points", some]
    when 8 then ["reverse_points", some]
    when 9 then ["shift_points", { **some, ticks: random.rand(-900..900), value: random.rand - 0.5, push: random.rand < 0.5 }]
    when 10 then ["scale_points", { **some, factor: random.rand * 2 }]
    when 11 then ["rub_out", { envelope_id: envelope.id, from_tick: from = random.rand(7000), to_tick: from + 1 + random.rand(3000), push: random.rand < 0.5 }]
    when 12 then ["duplicate_stretch", { envelope_id: envelope.id, from_tick: from = random.rand(7000), to_tick: from + 1 + random.rand(3000) }]
    when 13 then ["move_regions",
                  { region_ids: song.directory.regions.keys.sample(3, random:), ticks: random.rand(-4..8) * 960, track_steps: random.rand(-1..1) }]
    when 14 then ["duplicate_regions", { region_ids: song.directory.regions.keys.sample(2, random:) }]
    when 15 then ["mute_regions", { region_ids: song.directory.regions.keys.sample(2, random:), muted: random.rand < 0.5 }]
    when 16 then ["separate_regions", { region_ids: song.directory.regions.keys.sample(3, random:), each: random.rand < 0.5 }]
    when 17 then ["swap_clip", { region_ids: [region.id], clip_id: song.clips.keys.sample(random:) }]
    when 18 then ["set_points_follow", { on: random.rand < 0.7 }]
    when 19 then ["set_fader", { envelope_id: envelope.id, fader: %w[follow trim].sample(random:) }]
    when 20 then ["hand_back", {}]
    when 21 then ["delete_time", { from_tick: from = random.rand(20) * 960, to_tick: from + ((1 + random.rand(4)) * 960) }]
    when 22 then ["insert_time", { tick: random.rand(20) * 960, length_ticks: (1 + random.rand(4)) * 960 }]
    when 23 then ["paste_time", { tick: random.rand(20) * 960, over: random.rand < 0.5, stretch: stretch_of(song, random.rand(12) * 960) }]
    when 24 then ["duplicate_track", { track_id: "bass", moves: random.rand < 0.5 }]
    when 25 then ["make_group", { track_ids: song.tracks.map(&:id).sample(2, random:) }]
    when 26 then ["lay_out", { region_ids: song.directory.regions.keys.sample(4, random:) }]
    when 27 then ["pack", { envelope_id: envelope.id, from_tick: from = random.rand(20) * 960, to_tick: from + 7680 }]
    else ["fade",
          { envelope_id: envelope.id, from_tick: from = random.rand(7000), to_tick: from + 1 + random.rand(3000), direction: %w[in out].sample(random:) }]
    end
  end
  define_method(:targets) { targets }

  def stretch_of(song, from) = JSON.parse(JSON.generate(KindSatchel::Records.stretch(KindSatchel::Transfer::SongStretch.of(song, from, from + 7680))))

  def random_steps(maker, song, count)
    Array.new(count) do
      name, inputs = random_edit(maker, song)
      next if name == "remove_points" && song.directory.envelope(inputs[:envelope_id]).envelope.points.empty?

      before = song
      song = apply(song, name, **inputs).song
      [before, song]
    rescue KindSatchel::InvalidInput
      nil
    end.compact
  end

  seeds.each do |seed|
    context "with seed #{seed}" do
      let(:maker) { RandomSongs.new(seed) }
      let(:song) { maker.song }
      let(:ticks) { (0..song.length_ticks).step(331).to_a }

      it "plays from any tick what playing from the start gives" do
        targets.each do |target|
          resolver = KindSatchel::Heard::Resolver.new(song, address(target))
          whole = resolver.at_each(ticks)
          tick = ticks.sample(random: maker.random)
          expect(resolver.at(tick)).to eq whole[ticks.index(tick)]
          expect(resolver.at_each(ticks.select { |other| other >= tick })).to eq whole[ticks.index(tick)..]
        end
      end

      it "stays within 0 and 1, and explains what it hears" do
        tick = maker.some_tick(song)
        targets.each do |target|
          explanation = KindSatchel::Heard::Explanation.new(song, address(target), tick)
          expect(explanation.heard).to eq(heard(song, target, tick)).and be_between(0, 1)
        end
      end

      it "hears a moved or copied region just as it was" do
        region = maker.some_region(song)
        start = (song.length_ticks / BAR * BAR) + (maker.random.rand(4) * 960)
        clip_only = song.with_track(song.track("bass").with(lanes: [])).with_track(song.track("carriers").with(regions: []))
        %w[move_regions copy_regions].each do |name|
          after = apply(clip_only, name, region_ids: [region.id], ticks: start - region.start_tick).song
          into = (0...region.length_ticks).step(173).to_a
          targets.each do |target|
            expect(curve(after, target, into.map { |tick| start + tick })).to eq curve(clip_only, target, into.map { |tick| region.start_tick + tick })
          end
        end
      end

      it "hears no difference when a region is split or separated" do
        region = maker.some_region(song)
        track = song.track("bass")
        halves = region.split(region.start_tick + 1 + maker.random.rand(region.length_ticks - 1), "right-half")
        split = song.with_track(track.with(regions: track.regions.flat_map { |other| other == region ? halves : other }))
        shared = track.regions.find { |other| track.regions.count { |one| one.clip_id == other.clip_id } > 1 }
        apart = shared ? apply(song, "separate_regions", region_ids: [shared.id]).song : song
        targets.each do |target|
          before = curve(song, target, ticks)
          expect(curve(split, target, ticks).zip(before).map { |a, b| (a - b).abs }.max).to be < 1e-12
          expect(curve(apart, target, ticks)).to eq before
        end
      end

      it "goes back by its patches byte for byte, and forth again" do
        steps = random_steps(maker, song, 12)
        steps.each do |before, after|
          patch = JSON.parse(JSON.generate(KindSatchel::Parts.between(before, after).map { |key, pair| [*key, *pair] })).to_h { |kind, id, *pair| [[kind, id], pair] }
          expect(json_of(KindSatchel::Parts.apply(after, patch, 0))).to eq json_of(before)
          expect(json_of(KindSatchel::Parts.apply(before, patch, 1))).to eq json_of(after)
        end
        expect(steps).not_to be_empty
      end

      it "survives the document, also after edits" do
        [song, *random_steps(maker, song, 10).map(&:last)].each { |one| expect(KindSatchel::Document.load(JSON.parse(json_of(one)))).to eq one }
      end

      it "hears what travels in song time, and what is held, as it was" do
        from, length = maker.random.rand(20) * 960, (1 + maker.random.rand(4)) * 960
        opened = apply(song, "insert_time", tick: from, length_ticks: length).song
        back = apply(opened, "delete_time", from_tick: from, to_tick: from + length).song
        targets.each do |target|
          before = curve(song, target, ticks)
          expect(curve(back, target, ticks).zip(before).map { |a, b| (a - b).abs }.max).to be < 1e-7
          later = ticks.select { |tick| tick >= from }
          expect(curve(opened, target, later.map { |tick| tick + length }).zip(curve(song, target, later)).map { |a, b| (a - b).abs }.max).to be < 1e-7
          held = KindSatchel::Edits::Moves.with_device(song, address(target)) { |device| device.with(held: [address(target).parameter_id]) }
          expect(curve(held, target, ticks).uniq).to eq [song.parameter(address(target)).scale.heard(song.knob(address(target)))]
        end
      end

      it "keeps outlines within what the eye is promised, ramps within what the ear is" do
        targets.each do |target|
          resolver = KindSatchel::Heard::Resolver.new(song, address(target))
          next if resolver.scale.steps

          corners = KindSatchel::Heard::Ramps.new(resolver).corners(0, song.length_ticks)
          probe = ticks.reject { |tick| resolver.pieces(0, song.length_ticks).any? { |piece| (piece.from - tick).abs < 2 } }
          expect(largest_error(song, resolver, corners, probe)).to be <= KindSatchel::Heard::Ramps::TOLERANCE
        end
      end
    end
  end

  # The largest distance of a chain of ramps from the exact value, as a share of the knob's travel.
  def largest_error(song, resolver, corners, ticks)
    scale = resolver.scale
    ticks.zip(resolver.at_each(ticks)).map do |tick, exact|
      seconds = song.tempo.seconds_at(tick)
      i = corners.rindex { |at, _| at <= seconds } || 0
      (s0, v0), (s1, v1) = corners[i], corners[i + 1] || corners[i]
      value = s1 > s0 ? v0 + ((v1 - v0) * (seconds - s0) / (s1 - s0)) : v0
      (to_share(scale, value) - exact).abs
    end.max
  end

  def to_share(scale, engine) = scale.gain? ? Math.sqrt(engine / scale.peak) : scale.normalised(engine / scale.unit.engine_factor)
end
