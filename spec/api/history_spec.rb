# frozen_string_literal: true

# The list of what was done, and going to any place of it.
RSpec.describe "What was done" do
  let(:id) { plant }

  def list = get_json("/api/songs/#{id}/history")
  def go(place) = post_json("/api/songs/#{id}/history", { revision: revision(id), place: })

  describe "by nudges" do
    let(:region) { snapshot(id).song.track("rope-bass").regions.last.id }

    def nudge(ticks, pass) = edit(id, "move_regions", { region_ids: [region], ticks:, pass: })
    def start_tick = snapshot(id).song.directory.region(region).region.start_tick

    it "is one step while they follow each other, another after anything else, and none once nothing is left of it" do
      first = start_tick
      3.times { nudge(960, "one") }
      expect([list["done"], start_tick]).to eq [1, first + 2880]
      edit(id, "rename_song", { name: "Between" })
      2.times { nudge(960, "one") }
      nudge(960, "two")
      expect(list["done"]).to eq 4
      go(0)
      expect([start_tick, go(3)["words"], start_tick]).to match [first, /3 steps/, first + 4800]
      go(0)
      nudge(960, "three")
      nudge(-960, "three")
      expect([list["done"], list["entries"], start_tick]).to eq [0, [], first]
    end
  end

  it "is listed with its words, gone back in and on again, each place the very same song; a new edit ends what was undone", :long do
    songs = [snapshot(id).song]
    %w[One Two Three Four].each do |name|
      edit(id, "rename_song", { name: })
      songs << snapshot(id).song
    end
    expect([list["done"], list["entries"].map { |entry| entry["words"] }.last]).to match [4, /Four/]
    [1, 3, 0, 4, 2].each do |place|
      go(place)
      expect([list["done"], snapshot(id).song]).to eq [place, songs[place]]
      Server.open_songs.forget(id)
      expect(snapshot(id).song).to eq songs[place]
    end
    stub_const("EditLog::MANY_STEPS", 1)
    [0, 4, 2].each { |place| expect([go(place)["words"], snapshot(id).song]).to match [/\A(undo|redo) \d steps\z/, songs[place]] }
    expect(go(90)["faults"][0]["path"]).to eq "/place"
    expect(get_json("/api/songs/#{id}").slice("undo", "redo").values).to match [/Two/, /Three/]
    edit(id, "rename_song", { name: "Five" })
    expect(list["entries"].map { |entry| entry["place"] }).to eq [1, 2, 3]
    [5, -1, "x", nil].each { |place| expect([go(place)["faults"][0]["path"], last_response.status]).to eq ["/place", 422] }
    expect(post_json("/api/songs/#{id}/history", { revision: 1, place: 0 })["faults"][0]["code"]).to eq "stale"
    expect(get_json("/api/songs/999999/history")["faults"][0]["code"]).to eq "unknown_song"
  end

  # Through clips and moves with so many entries that the log keeps only what differs of them.
  Seeds.list(1, long: 30).each do |seed|
    it "comes to the same by folded patches as step by step, with seed #{seed}", :long do
      maker = RandomSongs.new(seed)
      songs = [maker.song]
      id = plant(songs[0])
      RandomEdits.new(maker).steps(songs[0], 60).each do |_, _, name, inputs|
        Server.edit_log.edit(id, revision(id), name, inputs.transform_keys(&:to_s))
        songs[SongRow.find(id).done_edits] = snapshot(id).song
      rescue KindSatchel::InvalidInput
        nil
      end
      last = songs.size - 1
      expect(last).to be > 10
      [0, last, last / 3, last - 1, 1, last / 2, last].each do |place|
        Server.edit_log.go_to(id, revision(id), place)
        expect(json_of(snapshot(id).song)).to eq json_of(songs[place])
        Server.open_songs.forget(id)
        expect(json_of(snapshot(id).song)).to eq json_of(songs[place])
      end
    end
  end
end
