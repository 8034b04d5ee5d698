# frozen_string_literal: true

RSpec.describe KindSatchel::AtRest do
  def rested(song, *owners) = described_class.new(song, owners).song
  def curve(song, target) = (0..song.length_ticks).step(331).to_a.then { |ticks| KindSatchel::Heard::Resolver.new(song, address(target)).at_each(ticks) }

  # The same song with moves taken out by hand.
  def without(song, &gone)
    song = song.tracks.reduce(song) { |one, track| one.with_track(track.with(lanes: track.lanes.reject(&gone))) }
    song.clips.values.reduce(song) { |one, clip| one.with_clip(clip.with(envelopes: clip.envelopes.reject(&gone))) }
  end

  Seeds.list(20).each do |seed|
    it "leaves what is heard without the moves that rest, with seed #{seed}" do
      song = RandomSongs.new(seed).song
      track, clip = song.tracks.first, song.clips.values.first
      own = clip.envelopes.map(&:id)
      RandomSongs::TARGETS.each do |target|
        expect(curve(rested(song, "song"), target)).to eq(curve(without(song) { |one| !one.target.song? }, target))
        expect(curve(rested(song, "clip/#{clip.id}"), target)).to eq(curve(without(song) { |one| own.include?(one.id) }, target))
      end
      mine = track.lanes.map(&:id) | song.directory.envelopes.each_value.filter_map { |home| home.envelope.id if home.envelope.target.owner_id == track.id }
      quiet = rested(song, "track/#{track.id}")
      RandomSongs::TARGETS.select { |target| target.start_with?("#{track.id}/") }.each do |target|
        expect(curve(quiet, target)).to eq(curve(without(song) { |one| mine.include?(one.id) }, target))
      end
    end
  end

  it "takes what a track carries with it, and leaves alone what it shares with others, the tempo and what is off" do
    song = DemoSong.build
    carrier = song.tracks.find { |track| track.kind == "carrier" }
    carried = carrier.regions.flat_map { |one| song.clip(one.clip_id).envelopes.map(&:id) }
    expect(described_class.new(song, ["track/#{carrier.id}"]).ids).to include(*carried)
    shared = apply(song, "add_track", kind: "carrier").song
    tempo = apply(shared, "set_tempo", tick: 4 * BAR, bpm: 80).song
    expect(rested(tempo, "song").tempo.bpm_at(5 * BAR)).to eq 80
    off = apply(song, "switch_envelope", envelope_id: carried[0], on: false).song
    expect(described_class.new(off, ["song"]).ids).not_to include carried[0]
    expect([rested(song), rested(song, "clip/gone")]).to all be song
  end

  it "is asked for by name, and all come back with those of the song" do
    song = DemoSong.build
    one = KindSatchel::Listening::ALL.with_rest(song, "clip/mooring", true).with_rest(song, "track/rope-bass", true)
    expect([one.resting, one.with_rest(song, "clip/mooring", false).resting]).to eq [%w[clip/mooring track/rope-bass], %w[track/rope-bass]]
    expect(one.with_rest(song, "song", false)).to eq KindSatchel::Listening::ALL
    expect(faults { one.with_rest(song, "boat", true) }).to eq [["bad_owner", "/rest"]]
    expect { one.with_rest(song, "track/boat", true) }.to raise_error(KindSatchel::NotFound)
  end
end
