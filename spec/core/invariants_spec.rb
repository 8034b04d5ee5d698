# frozen_string_literal: true

# What must hold for any song. The seed is in each description: `SEED=n bin/test spec/core/invariants_spec.rb` runs one.
RSpec.describe "Invariants" do
  targets = RandomSongs::TARGETS
  define_method(:targets) { targets }

  def resolver(song, target) = KindSatchel::Heard::Resolver.new(song, address(target))
  def curve(song, target, ticks) = resolver(song, target).at_each(ticks)
  def apart(one, other) = one.zip(other).map { |a, b| (a - b).abs }.max
  def steps(maker, song, count) = RandomEdits.new(maker).steps(song, count)

  Seeds.list(12, long: 250).each do |seed|
    context "with seed #{seed}" do
      let(:maker) { RandomSongs.new(seed) }
      let(:song) { maker.song }
      let(:ticks) { (0..song.length_ticks).step(331).to_a }

      it "plays from any tick what playing from the start gives, stays within 0 and 1, and explains what it hears" do
        targets.each do |target|
          resolver = resolver(song, target)
          whole = resolver.at_each(ticks)
          tick = ticks.sample(random: maker.random)
          expect(resolver.at(tick)).to be_within(1e-12).of whole[ticks.index(tick)]
          expect(apart(resolver.at_each(ticks.select { |other| other >= tick }), whole[ticks.index(tick)..])).to be < 1e-12
          expect(KindSatchel::Heard::Explanation.new(song, address(target), tick).heard).to be_within(1e-12).of(whole[ticks.index(tick)]).and be_between(0, 1)
        end
      end

      it "gives one value whoever asks: at one tick, at many, by pieces, by explanation, of settings and macros too" do
        some = ticks.each_slice(7).map(&:first)
        song.automated.select { |address| song.parameter?(address) }.each do |address|
          resolver = KindSatchel::Heard::Resolver.new(song, address)
          each = resolver.at_each(ticks)
          some.each do |tick|
            told = [resolver.at(tick), resolver.at_each([tick])[0], KindSatchel::Heard::Explanation.new(song, address, tick).heard]
            expect(told).to all(be_within(1e-9).of(each[ticks.index(tick)])), "#{address} at #{tick}"
          end
        end
      end

      it "hears after an edit what a song without anything kept hears" do
        steps(maker, song, 6).each do |before, after, name, inputs|
          there = targets.select { |target| [before, after].all? { |one| one.parameter?(address(target)) } }
          there.each { |target| curve(before, target, ticks) }
          bare = KindSatchel::Song.new(**after.to_h)
          KindSatchel::Heard::Evaluation.carry(before, after)
          there.each { |target| expect(apart(curve(after, target, ticks), curve(bare, target, ticks))).to be < 1e-9, "#{target} after #{name} #{inputs}" }
        end
      end

      # Semantics, "Roles and the heard value": one value is set, then everything scales it, then everything shifts it.
      it "sets one value, then scales, then shifts, wherever the envelopes live" do
        tick = maker.some_tick(song)
        compared = targets.count do |target|
          # The start of a cycle lies on a grid of 1/65536 tick where nothing moves the LFO.
          catch(:moving_rate) { expect(heard(song, target, tick)).to be_within(2e-8).of by_hand(song, address(target), tick) }
        end
        expect(compared).to be > 2
      end

      it "hears a moved or copied region just as it was" do
        region = maker.some_region(song)
        start = (song.length_ticks / BAR * BAR) + (maker.random.rand(4) * 960)
        clip_only = song.with(tracks: song.tracks.map { |track| track.with(lanes: [], regions: track.kind == "carrier" ? [] : track.regions) })
        into = (0...region.length_ticks).step(173).to_a
        before = targets.map { |target| curve(clip_only, target, into.map { |tick| region.start_tick + tick }) }
        %w[move_regions copy_regions].each do |name|
          after = apply(clip_only, name, region_ids: [region.id], ticks: start - region.start_tick).song
          later = targets.map { |target| curve(after, target, into.map { |tick| start + tick }) }
          expect(later.zip(before).map { |one, other| apart(one, other) }.max).to be < 1e-12
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
          expect(apart(curve(split, target, ticks), before)).to be < 1e-12
          expect(curve(apart, target, ticks)).to eq before
        end
      end

      it "goes back by its patches byte for byte, and forth again, and survives the document" do
        steps = steps(maker, song, 14)
        steps.each do |before, after|
          log = JSON.parse(JSON.generate(KindSatchel::Deltas.compact(KindSatchel::Parts.between(before, after))))
          expect(json_of(KindSatchel::Parts.apply(after, KindSatchel::Deltas.expand(log, after, 0), 0))).to eq json_of(before)
          expect(json_of(KindSatchel::Parts.apply(before, KindSatchel::Deltas.expand(log, before, 1), 1))).to eq json_of(after)
        end
        expect(steps.size).to be > 3
        [song, steps.last[1]].each { |one| expect(KindSatchel::Document.load(JSON.parse(json_of(one)))).to eq one }
      end

      it "hears what an edit changed only where the core says it may, and the clock likewise" do
        found = steps(maker, song, 16).map do |before, after, name|
          changes = KindSatchel::Heard::Changes.between(before, after)
          outside!(before, after, changes, name)
          seconds = ticks.select { |tick| changes.clock_from.nil? || tick < changes.clock_from }
          expect(seconds.map { |tick| (after.tempo.seconds_at(tick) - before.tempo.seconds_at(tick)).abs }.max.to_f).to be < 1e-9
          changes
        end
        expect(found.map(&:addresses)).to include(be_any)
      end

      it "hears what travels in song time, and what is held, as it was" do
        from, length = maker.random.rand(20) * 960, (1 + maker.random.rand(4)) * 960
        opened = apply(song, "insert_time", tick: from, length_ticks: length).song
        back = apply(opened, "delete_time", from_tick: from, to_tick: from + length).song
        later = ticks.select { |tick| tick >= from }
        # Corners of waves lie on a grid of 1/65536 tick, and restarts keep phases to 12 digits.
        targets.each do |target|
          before = curve(song, target, ticks)
          room = song.directory.envelopes.each_value.any? { |home| home.envelope.lfo? } ? 1e-6 : 1e-11
          expect(apart(curve(back, target, ticks), before)).to be < room
          expect(apart(curve(opened, target, later.map { |tick| tick + length }), before.last(later.size))).to be < room
          held = song.owned(address(target)).held(0.3)
          expect(curve(held, target, ticks).uniq).to eq [song.parameter(address(target)).scale.heard(0.3)]
        end
      end

      it "keeps ramps within what the ear is promised, also while the tempo moves" do
        targets.each do |target|
          resolver = resolver(song, target)
          next if resolver.scale.steps

          pieces = resolver.pieces(0, song.length_ticks)
          corners = KindSatchel::Heard::Ramps.new(resolver).corners(0, song.length_ticks)
          expect(largest_error(song, resolver.scale, pieces, corners)).to be <= KindSatchel::Heard::Ramps::TOLERANCE + 1e-9
        end
      end
    end
  end

  # The rule of combination said once more, from the song itself.
  def by_hand(song, target, tick)
    parameter = song.parameter(target)
    scale = parameter.scale
    driver = song.directory.driver(target)
    knob = driver ? driver.drive.at(by_hand(song, driver.macro, tick)) : song.knob(target)
    amounts = acting(song, target, tick).group_by { |envelope, _| envelope.role }
    set = amounts.fetch("set", []).last
    value = set ? set_value(parameter, knob, *set) : knob
    amounts.fetch("scale", []).map(&:last).each { |share| value = scale.gain? ? value * Math.sqrt(share) : scale.origin + ((value - scale.origin) * share) }
    amounts.fetch("shift", []).map(&:last).each { |more| value = scale.gain? ? value * (10**(more * 24 / 40.0)) : value + more }
    scale.heard(value)
  end

  def set_value(parameter, knob, envelope, amount)
    return amount unless envelope.fader == "trim"

    parameter.scale.gain? ? amount * knob * Math.sqrt(parameter.scale.peak) : amount + knob - parameter.default
  end

  # [envelope, amount] of the lane, the own region, then the carriers further down.
  def acting(song, target, tick)
    holding = song.clips.each_value.find { |clip| clip.envelopes.any? { |one| target.setting? && one.id == target.device_id } }
    holds = ->(track) { track.regions.any? { |one| one.clip_id == holding.id && one.cover?(tick) } }
    own, others = song.tracks.partition { |track| holding ? holds.call(track) : track.id == target.owner_id }
    lanes = song.tracks.flat_map(&:lanes).select { |lane| lane.target == target && lane.on }.map { |lane| [lane, amount(song, lane, tick, tick)] }
    lanes + (own + others).flat_map do |track|
      region = track.regions.find { |one| one.cover?(tick) && !one.muted } or next []
      clip = song.clip(region.clip_id)
      next [] unless clip.kind == "carrier" || (holding ? clip.id == holding.id : track.id == target.owner_id)

      clip.envelopes.select { |one| one.target == target && one.on }
          .map { |one| [one, amount(song, one, tick, position(region, clip, one, tick))] }
    end
  end

  # An amount with the settings of its move as they are heard at that tick: where a region sounds, its frame and the song hear the same.
  # Not with a rate that moves, whose phase has a check of its own.
  def amount(song, envelope, tick, position)
    moved = KindSatchel::Settings.names(envelope).select { |name| song.directory.moved_settings.fetch(envelope.id, []).include?(name) }
    return envelope.at(position) if moved.empty?

    throw :moving_rate if moved.include?("rate")
    now = moved.reduce(envelope) do |one, name|
      KindSatchel::Settings.turned(one, name, by_hand(song, KindSatchel::Address.setting(envelope.id, name), tick))
    end
    now.at(position)
  end

  def position(region, clip, envelope, tick)
    e = tick - region.start_tick + region.offset_ticks
    case envelope.clock
    when "each_loop" then region.looped ? e % clip.length_ticks : e
    when "once" then e
    when "own_length" then e % envelope.own_length_ticks
    else e * Rational(envelope.own_length_ticks, region.span_ticks)
    end
  end

  # Outside the stretches that may have changed, nothing has.
  def outside!(before, after, changes, name)
    targets.each do |target|
      next unless after.directory.tracks.key?("bass") && after.parameter?(address(target))

      stretches = changes.heard.fetch(address(target), [])
      outside = (0..before.length_ticks).step(577).reject { |tick| stretches.any? { |from, to| tick >= from && tick < to } }
      next if outside.empty?

      expect(apart(curve(after, target, outside), curve(before, target, outside))).to be < 1e-12, "#{name} changed #{target} elsewhere"
    end
  end

  # The largest distance of a chain of ramps from the exact value, as a share of the knob's travel, looked at inside of every
  # piece, from its very ends on.
  def largest_error(song, scale, pieces, corners)
    at = 0
    pieces.flat_map do |piece|
      [0.0001, 0.003, 0.11, 0.23, 0.37, 0.5, 0.61, 0.74, 0.93, 0.9999].map do |share|
        tick = piece.from + ((piece.to - piece.from) * share)
        second = song.tempo.seconds_at(tick)
        at += 1 while corners[at + 1] && corners[at + 1][0] <= second
        (s0, v0), (s1, v1) = corners[at], corners[at + 1] || corners[at]
        value = s1 > s0 ? v0 + ((v1 - v0) * (second - s0) / (s1 - s0)) : v0
        (to_share(scale, value) - piece.at(tick)).abs
      end
    end.max
  end

  def to_share(scale, engine) = scale.gain? ? Math.sqrt([engine, 0].max / scale.peak) : scale.normalised(engine / scale.unit.engine_factor)
end
