# frozen_string_literal: true

# Recorded sounds as clips: placed, set right, and in step with a tempo that moves.
RSpec.describe "Recorded loops" do
  let(:sound) { { sound: "clap", name: "Clap", seconds: 4.0, bpm: 120 } }
  let(:placed) { apply(small_song, "place_sound", start_tick: BAR, **sound).song }
  let(:track) { placed.tracks.find { |one| one.name == "Clap" } }
  let(:clip) { placed.clip(track.regions.first.clip_id) }

  def sound!(some) = expect(KindSatchel::Document.load(JSON.parse(json_of(some)))).to(eq some)

  it "become clips as long as their tempo says, on a new track or one that is there, over what lies under them" do
    expect([track.kind, track.regions.map { |one| [one.start_tick, one.length_ticks] }, clip.audio.bpm]).to eq ["audio", [[BAR, 2 * BAR]], 120.0]
    again = apply(placed, "place_sound", start_tick: 2 * BAR, track_id: track.id, **sound, start_seconds: 1.0)
    regions = again.song.track(track.id).regions
    expect([regions.map { |one| [one.start_tick, one.length_ticks] }, again.notices.map(&:code)]).to eq [[[BAR, BAR], [2 * BAR, (1.5 * BAR).to_i]], ["cut"]]
    expect(faults { apply(placed, "place_sound", start_tick: 0, track_id: "bass", **sound) }).to eq [["no_audio_here", "/track_id"]]
    expect(faults { apply(placed, "place_sound", start_tick: 0, **sound, start_seconds: 9) }).to eq [["out_of_range", "/start_seconds"]]
    [placed, again.song].each { |some| sound!(some) }
  end

  it "are set right: another tempo or start makes them longer or shorter, and regions as long as they are" do
    half = apply(placed, "set_audio", clip_id: clip.id, bpm: 60).song
    expect([half.clip(clip.id).length_ticks, half.track(track.id).regions.first.length_ticks]).to eq [BAR, BAR]
    later = apply(placed, "set_audio", clip_id: clip.id, start_seconds: 1.0).song
    expect(later.clip(clip.id).length_ticks).to eq 1.5 * BAR
    expect(apply(later, "set_audio", clip_id: clip.id, start_seconds: 0).song.clip(clip.id)).to eq clip
    expect(faults { apply(placed, "set_audio", clip_id: clip.id, start_seconds: 4.5) }).to eq [["out_of_range", "/start_seconds"]]
    expect(faults { apply(placed, "set_audio", clip_id: "line", bpm: 90) }).to eq [["wrong_kind", "/clip_id"]]
    [half, later].each { |some| sound!(some) }
  end

  # Where in the sound a player is that follows the speeds, straight between their corners, from its start on.
  def reached(rates, into, seconds)
    rates.each_slice(2).each_cons(2).reduce(into) do |sum, ((from, slow), (to, fast))|
      next sum if from >= seconds

      finish = [to, seconds].min
      at = to == from ? slow : slow + ((fast - slow) * (finish - from) / (to - from))
      sum + ((finish - from) * (slow + at) / 2)
    end
  end

  it "keep to the beat while the tempo moves, within 2 ms at every beat, also in a later pass" do
    points = [[0, 96, "straight"], [4 * BAR, 72, "hold"], [6 * BAR, 140, "straight"], [8 * BAR, 90, "hold"]]
    tempo = KindSatchel::Timing::TempoMap.new(points: points.map { |tick, bpm, shape| KindSatchel::Timing::TempoPoint.new(tick:, bpm:, shape:) })
    song = apply(placed.with(tempo:), "trim_region", region_id: track.regions.first.id, end_tick: 9 * BAR).song
    events = KindSatchel::Heard::Events.new(song).in_range(0, 9 * BAR).select { |one| one["kind"] == "audio" }
    expect(events.map { |one| one["start_tick"] }).to eq [BAR, 3 * BAR, 5 * BAR, 7 * BAR]
    events.each do |event|
      beats = (event["start_tick"]..event["end_tick"]).step(960).to_a
      beats.each do |tick|
        wanted = (tick - event["start_tick"]) * 60.0 / 960 / 120
        expect(reached(event.fetch("rates"), event["into_seconds"], tempo.seconds_at(tick))).to be_within(0.002).of(wanted)
      end
    end
    expect(KindSatchel::Heard::Events.new(placed).in_range(0, 4 * BAR).find { |one| one["kind"] == "audio" }).not_to have_key("rates")
  end

  it "keep their pitch, or run backwards, where that is asked for; the part they take of the sound stays" do
    back = apply(placed, "set_audio", clip_id: clip.id, backwards: true)
    kept = apply(back.song, "set_audio", clip_id: clip.id, stretched: true)
    expect([back.words, kept.words, kept.song.clip(clip.id).length_ticks]).to eq ["play Clap backwards", "keep the pitch of Clap", clip.length_ticks]
    sound!(kept.song)
    event = audio_events(kept.song).first
    expect(event.values_at("into_seconds", "stretched", "backwards")).to eq [4.0, true, true]
    plain = apply(apply(kept.song, "set_audio", clip_id: clip.id, stretched: false).song, "set_audio", clip_id: clip.id, backwards: false).song
    expect(plain).to eq placed
    later = apply(kept.song, "set_audio", clip_id: clip.id, start_seconds: 1.0).song
    expect(audio_events(later).first["into_seconds"]).to be_within(1e-9).of 4.0
  end

  it "play another sound where that is asked for, as long as it is" do
    other = apply(placed, "set_audio", clip_id: clip.id, sound: "gull-loop", seconds: 2.0, bpm: 60)
    made = other.song.clip(clip.id)
    expect([other.words, made.audio.sound, made.length_ticks]).to eq ["give Clap another sound", "gull-loop", BAR / 2]
    expect(faults { apply(placed, "set_audio", clip_id: clip.id, sound: "gull-loop") }).to eq [["bad_request", "/seconds"]]
  end

  it "run on backwards through a cut, and as a clip cropped to a part" do
    back = apply(placed, "set_audio", clip_id: clip.id, backwards: true).song
    region = track.regions.first
    halves = apply(back, "split_region", region_id: region.id, tick: 2 * BAR).song
    right = halves.track(track.id).regions.last
    # Bar 2 of two bars at 120 BPM, from second 2 down to 0.
    expect(audio_events(halves).map { |one| one["into_seconds"] }).to eq [4.0, 2.0]
    cropped = apply(halves, "consolidate_regions", region_ids: [right.id]).song
    expect(audio_events(cropped).map { |one| one["into_seconds"] }).to eq [4.0, 2.0]
    first = apply(halves, "consolidate_regions", region_ids: [region.id]).song
    expect(audio_events(first).map { |one| one["into_seconds"] }).to eq [4.0, 2.0]
    made = first.clip(first.track(track.id).regions.first.clip_id)
    expect([made.audio.start_seconds, made.length_ticks]).to eq [2.0, BAR]
  end

  def audio_events(some) = KindSatchel::Heard::Events.new(some).in_range(0, 9 * BAR).select { |one| one["kind"] == "audio" }
end
