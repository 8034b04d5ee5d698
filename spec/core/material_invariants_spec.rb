# frozen_string_literal: true

# What has to hold for any material: notes settled, played in again, taken over from another song, time signatures moved with time.
RSpec.describe "Material" do
  def note(tick, length, pitch) = KindSatchel::Note.new(tick:, length_ticks: length, pitch:, velocity: 90)
  def some_notes(random, count) = Array.new(count) { note(random.rand(200) * 60, 15 + random.rand(900), 36 + random.rand(6)) }

  # The rule as it is written: at one pitch one note at a time, of two that begin together the touched one.
  def settled_plainly(kept, touched)
    by_pitch = (kept + touched).group_by(&:pitch)
    list = by_pitch.flat_map do |pitch, notes|
      next notes unless touched.any? { |one| one.pitch == pitch }

      starts = notes.to_h { |one| [one.tick, one] }.values.sort_by(&:tick)
      starts.each_with_index.map { |one, i| starts[i + 1] ? one.with(length_ticks: [one.length_ticks, starts[i + 1].tick - one.tick].min) : one }
    end
    list.sort_by { |one| [one.tick, one.pitch] }
  end

  Seeds.list(20, long: 300).each do |seed|
    it "settles a few notes among many as the rule says, with seed #{seed}" do
      random = Random.new(seed)
      kept = KindSatchel::Notes.settled([], some_notes(random, 20 + random.rand(200)))
      touched = some_notes(random, 1 + random.rand(6))
      expect(KindSatchel::Notes.settled(kept, touched)).to eq settled_plainly(kept, touched)
    end
  end

  Seeds.list(12).each do |seed|
    it "played in as it is heard is the same again, in any tempo and signatures, with seed #{seed}" do
      maker = RandomSongs.new(seed)
      song = maker.song
      heard = KindSatchel::Heard::Events.new(song).in_range(0, song.length_ticks).select { |one| one["track_id"] == "bass" }
      played = heard.map { |one| one.slice("start_seconds", "end_seconds", "pitch", "velocity") }
      bare = song.with_track(song.track("bass").with(regions: []))
      made = apply(bare, "record_notes", track_id: "bass", from_seconds: 0, to_seconds: song.tempo.seconds_at(song.length_ticks), notes: played).song
      again = KindSatchel::Heard::Events.new(made).in_range(0, song.length_ticks).select { |one| one["track_id"] == "bass" }
      brief = ->(list) { list.map { |one| one.values_at("start_tick", "pitch", "velocity") }.sort }
      expect(brief.call(again)).to eq brief.call(heard.uniq { |one| one.values_at("start_tick", "pitch") })
    end

    it "taken over by a song with the same instruments moves them as it did, with seed #{seed}" do
      maker = RandomSongs.new(seed)
      song = maker.song
      made = apply(song, "take_tracks", document: JSON.parse(json_of(song)), track_ids: ["bass"]).song
      taken = made.tracks.find { |track| track.name == "Bass 2" }
      # What carriers and lanes of other tracks do to the track it came from stays there.
      bare = song.with(tracks: song.tracks.map { |track| track.id == "bass" ? track : track.with(lanes: [], regions: []) })
      ticks = (0..song.length_ticks).step(211).to_a
      %w[synth/cutoff synth/sweep channel/pan drive/mix].each do |name|
        before, after = [[bare, "bass/#{name}"], [made, "#{taken.id}/#{name}"]].map { |some, text| KindSatchel::Heard::Resolver.new(some, address(text)).at_each(ticks) }
        expect(before.zip(after).map { |one, other| (one - other).abs }.max).to be < 1e-9
      end
      expect(KindSatchel::Document.load(JSON.parse(json_of(made)))).to eq made
    end

    it "keeps its time signatures where bars are put in and taken out again, with seed #{seed}" do
      maker = RandomSongs.new(seed)
      song = maker.song
      bar = 1 + maker.random.rand(14)
      tick = song.meters.start_of(bar)
      length = song.meters.at([tick - 1, 0].max).bar_ticks * (1 + maker.random.rand(3))
      opened = apply(song, "insert_time", tick:, length_ticks: length).song
      closed = apply(opened, "delete_time", from_tick: tick, to_tick: tick + length).song
      expect(closed.meters).to eq song.meters
      later = song.meters.sections.select { |one| one.tick >= tick && one.tick.positive? }
      expect(later.map { |one| one.tick + length } - opened.meters.sections.map(&:tick)).to eq []
    end
  end
end
