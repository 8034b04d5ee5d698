# frozen_string_literal: true

# What a preview sends of a long curve is put into the curve that the screen has; together they must be the new curve.
RSpec.describe "Stretches of curves that differ" do
  # The value of a chain of corners at a tick, from the right.
  def at(corners, tick)
    i = corners.rindex { |other, _| other <= tick } or return corners.first[1]
    (t0, v0), (t1, v1) = corners[i], corners[i + 1]
    t1 && t1 > t0 ? v0 + ((v1 - v0) * (tick - t0) / (t1 - t0)) : v0
  end

  def pairs(flat) = flat.each_slice(2).to_a

  def laid(chain, patches)
    patches.reduce(pairs(chain)) do |list, (from, to, middle)|
      left = list.take_while { |tick, _| tick < from } + list.select { |tick, _| tick == from && from.positive? }.first(1)
      left + pairs(middle) + list.select { |tick, _| tick == to }.last(1) + list.drop_while { |tick, _| tick <= to }
    end
  end

  # What the screen shows after an answer: the whole that was sent, or what was known with stretches put in.
  def now(answer, what, id, known)
    answer[what].key?(id) ? pairs(answer[what][id]) : laid(known, answer.dig("patches", what, id) || [])
  end

  def edit_of(random, envelope)
    last = envelope.points.size - 1
    runs = [[first = random.rand(envelope.points.size), [first + random.rand(3), last].min]]
    case random.rand(5)
    when 0 then ["shift_points", { runs:, ticks: random.rand(-900..900), value: (random.rand - 0.5) / 2 }]
    when 1 then ["remove_points", { runs: }]
    when 2 then ["add_point", { tick: random.rand(8000), value: random.rand }]
    when 3 then ["flip_points", { runs: }]
    else ["rub_out", { from_tick: from = random.rand(7000), to_tick: from + 1 + random.rand(2000) }]
    end
  end

  Seeds.list(10, long: 100).each do |seed|
    it "make the new curve and what is heard, with seed #{seed}" do
      maker = RandomSongs.new(seed + 500)
      song = maker.song
      home = song.directory.envelopes.values.select { |one| one.envelope.points.size > 1 && song.parameter?(one.envelope.target) }.sample(random: maker.random)
      name, inputs = edit_of(maker.random, home.envelope)
      after = apply(song, name, envelope_id: home.envelope.id, **inputs).song
      target = home.envelope.target.to_s
      tried = Answer.new(song, after, KindSatchel::Parts.between(song, after, points: false), 1, { "heard" => [target] }).preview
      old, new = Drawing.new(song), Drawing.new(after)
      curve = now(tried, "curves", home.envelope.id, old.curves([home.envelope])[home.envelope.id])
      band = now(tried, "heard", target, old.heard([target])[target])
      wanted = [pairs(new.curves([after.directory.envelopes[home.envelope.id].envelope])[home.envelope.id]), pairs(new.heard([target])[target])]
      # Away from jumps and steps, within what each chain may stray.
      ticks = (1..16_000).step(97).reject { |tick| wanted.any? { |chain| chain.any? { |other, _| (other - tick).abs < 2 } } }
      ticks.each do |tick|
        expect(at(curve, tick)).to be_within(0.0045).of(at(wanted[0], tick)) unless wanted[0].empty?
        expect(at(band, tick)).to be_within(0.0045).of(at(wanted[1], tick))
      end
    end
  end

  # Edits of regions: what is heard is sent for the time they touch.
  def region_edit(random, song)
    region = song.track("bass").regions.sample(random:)
    [["move_regions", { region_ids: [region.id], ticks: random.rand(0..3) * 960 }], ["mute_regions", { region_ids: [region.id], muted: !region.muted }],
     ["trim_region", { region_id: region.id, start_tick: region.start_tick + (region.length_ticks / 2) }],
     ["swap_clip", { region_ids: [region.id], clip_id: "b" }],
     ["split_region", { region_id: region.id, tick: region.start_tick + (region.length_ticks / 2) }]].sample(random:)
  end

  Seeds.list(7, long: 70).each do |seed|
    it "make what is heard after an edit of regions, with seed #{seed}" do
      maker = RandomSongs.new(seed + 900)
      song = maker.song
      name, inputs = region_edit(maker.random, song)
      after = apply(song, name, **inputs).song
      answer = Answer.new(song, after, KindSatchel::Parts.between(song, after), 1, { "heard" => RandomSongs::TARGETS }).change
      RandomSongs::TARGETS.each do |target|
        wanted = pairs(Drawing.new(after).heard([target])[target])
        known = Drawing.new(song).heard([target])[target]
        band = now(answer, "heard", target, known)
        ticks = (1...after.length_ticks).step(113).reject { |tick| wanted.any? { |other, _| (other - tick).abs < 2 } }
        ticks.each { |tick| expect(at(band, tick)).to be_within(0.0045).of(at(wanted, tick)) }
      end
    end
  end
end
