# frozen_string_literal: true

# Each edit done, undone and done again through the log, compared to the byte, in memory and as stored.
RSpec.describe "Every edit" do
  def stored(id) = [json_of(snapshot(id).song), json_of(SongRows.read(id))]
  def step(id, word) = Server.edit_log.public_send(word, id, revision(id))
  def made(id, name, inputs) = edit(id, name, JSON.parse(JSON.generate(inputs)))

  def there_and_back(id, name, inputs, first)
    first.each { |other, given| expect(made(id, other, given)).to have_key("revision"), -> { "#{name}: #{other} refused: #{made(id, other, given)}" } }
    before = stored(id)
    answer = made(id, name, inputs)
    expect(last_response.status).to eq(200), "#{name}: #{answer['faults']}"
    after = stored(id)
    step(id, "undo")
    found = [[name, "undone", stored(id) == before]]
    step(id, "redo")
    found << [name, "done again", stored(id) == after] << [name, "changed", after != before]
    (first.size + 1).times { step(id, "undo") }
    found
  end

  [8, 40].each do |count|
    it "is undone and done again to the byte, with clips and moves of #{count} entries", long: count == 40 do
      every = EveryEdit.new(count)
      id = plant(every.song)
      list = every.list(every.song)
      expect(list.map(&:first).uniq).to match_array KindSatchel::Edits::NAMES
      start = stored(id)
      found = list.flat_map { |name, inputs, first| there_and_back(id, name, inputs, first) }
      expect(found.reject(&:last)).to eq []
      expect(stored(id)).to eq start
    end
  end

  it "swaps every clip of the demo for every other that fits, and says so" do
    id = plant
    song = snapshot(id).song
    tried = song.tracks.flat_map { |track| track.regions.uniq(&:clip_id).product(song.clips.values.select { |clip| track.fits?(clip) }) }
    answers = tried.reject { |region, clip| region.clip_id == clip.id }.map do |region, clip|
      edit(id, "swap_clip", { region_ids: [region.id], clip_id: clip.id })
      last_response.status.tap { step(id, "undo") }
    end
    expect([answers.uniq, answers.size]).to match [[200], be > 20]
  end
end
