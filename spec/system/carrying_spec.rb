# frozen_string_literal: true

RSpec.describe "Many regions in the studio" do
  let(:id) { plant }

  before { open_song(id) }

  def regions(track = "rope-bass") = snapshot(id).song.track(track).regions
  def chosen = told("[data-testid^='region-'][aria-pressed='true']", "data-testid")
  def cutoff(song, bar) = heard(song, "rope-bass/synth/cutoff", ((bar - 1) * BAR) + 2000)

  def choose_two
    first, second = regions.first(2).map(&:id)
    mouse.click(x: name_row(first)[0], y: name_row(first)[1])
    holding(8) { |press| press.call(name_row(second)) }
    expect(page).to have_css("[data-testid='#{second}'][aria-pressed='true']")
    [first, second]
  end

  it "chooses by shift, by ctrl and by a loop over empty ground, and lets go of all" do
    pair = choose_two
    expect(chosen).to match_array pair
    holding(2) { |press| press.call(name_row(pair.last)) }
    expect(page).to have_css("[data-testid^='region-'][aria-pressed='true']", count: 1)
    y = middle("track-bell-buoy")[1]
    drag([bar_x(7), y], 420, 25 - y + middle("track-fog-pad")[1] - 20) { expect(page).to have_css("[data-testid='loop']") }
    expect(page).to have_css("[data-testid^='region-'][aria-pressed='true']", minimum: 2)
    expect(chosen & regions("gull-chop").map(&:id)).not_to be_empty
    expect(chosen & regions("fog-pad").map(&:id)).not_to be_empty
    mouse.click(x: bar_x(6), y:)
    expect(page).to have_no_css("[data-testid^='region-'][aria-pressed='true']")
  end

  it "carries them to another track: shown before the drop with what goes along and what is cut; undone at once" do
    pair = choose_two
    before = json_of(snapshot(id).song)
    drag(name_row(pair.last), 0, middle("track-fog-pad")[1] - name_row(pair.last)[1]) do
      expect(page).to have_css("[data-testid='carry']", text: "Cutoff goes along")
      expect(page).to have_css("[data-testid='carry']", text: "replaces Fog at 5.1.0")
      expect(json_of(snapshot(id).song)).to eq before
    end
    song = eventually(id) { |now| pair.all? { |one| now.directory.region(one).track.id == "fog-pad" } }
    expect(heard(song, "fog-pad/filter/cutoff", (5 * BAR) + 2000)).not_to eq heard(song_before(before), "fog-pad/filter/cutoff", (5 * BAR) + 2000)
    click_on "Undo: move 2 regions to 5.1.0"
    eventually(id) { |now| json_of(now) == before }
  end

  def song_before(text) = KindSatchel::Document.load(JSON.parse(text))

  it "says why a drop cannot be, and drops nothing" do
    first = regions.first.id
    before = json_of(snapshot(id).song)
    drag(name_row(first), 0, middle("track-gull-chop")[1] - name_row(first)[1]) do
      expect(page).to have_css("[data-testid='carry']", text: "takes no clip of notes")
    end
    expect(page).to have_css("[role=alert]", text: "takes no clip of notes")
    expect(json_of(snapshot(id).song)).to eq before
  end

  it "moves, mutes, duplicates and separates by keys" do
    pair = choose_two
    focus(pair.last)
    press_keys("q")
    song = eventually(id) { regions.first(2).all?(&:muted) }
    expect(cutoff(song, 5)).not_to eq cutoff(apply(song, "mute_regions", region_ids: pair, muted: false).song, 5)
    press_keys("q")
    eventually(id) { regions.none?(&:muted) }
    press_keys("o")
    eventually(id) { regions.first(2).map(&:clip_id).uniq.size == 1 && regions.map(&:clip_id).uniq.size == 3 }
    press_keys(:Down)
    eventually(id) { |now| now.directory.region(pair.first).track.id == "fog-pad" }
  end

  it "mutes and swaps from the panel; Each apart makes every one its own" do
    choose_two
    show_panel("Clip")
    expect(page).to have_css("h3", text: "2 regions")
    in_choice_bar { click_on "Mute" }
    eventually(id) { regions.first(2).all?(&:muted) }
    in_choice_bar { click_on "Mute" }
    click_on "Each apart"
    eventually(id) { regions.first(2).map(&:clip_id).uniq.size == 2 }
    page.select("Mooring", from: "Swap the clip")
    eventually(id) { regions.first(2).map(&:clip_id) == %w[mooring mooring] }
  end

  it "makes one clip of two regions, by the panel and back; crops one by key" do
    before = snapshot(id).song
    ticks = (0..before.length_ticks).step(4801).to_a
    choose_two
    show_panel("Clip")
    click_on "One clip"
    eventually(id) { regions.size == before.track("rope-bass").regions.size - 1 }
    expect(page).to have_css("[role=status]", text: "nothing heard changes")
    ticks.each { |tick| expect(heard(snapshot(id).song, "rope-bass/synth/cutoff", tick)).to be_within(1e-6).of(heard(before, "rope-bass/synth/cutoff", tick)) }
    press_keys([:control, "z"])
    eventually(id) { |now| json_of(now) == json_of(before) }
    drag(name_row(regions.first.id), 0, 0)
    press_keys([:shift, "t"])
    eventually(id) { |now| now.clip(regions.first.clip_id).length_ticks == regions.first.length_ticks }
  end

  it "splits at the pointer" do
    mouse.click(x: bar_x(5) + 3, y: middle("track-bell-buoy")[1])
    mouse.move(x: bar_x(7), y: name_row(regions.first.id)[1])
    holding(8) { press_keys([:shift, "s"]) }
    eventually(id) { regions.first.end_tick == 6 * BAR }
  end

  it "lets lane points follow where the song says so", :long do
    click_on "Bars"
    page.find("[role=menuitem]", text: "Let lane points go along").click
    song = eventually(id, &:points_follow)
    first = regions.first.id
    was = heard(song, "rope-bass/synth/cutoff", (4 * BAR) + 2000)
    drag(name_row(first), 0, 0)
    focus(first)
    16.times { |i| press_keys(:Right) && eventually(id) { |now| now.directory.region(first).region.start_tick == (5 + i) * BAR } }
    expect(heard(snapshot(id).song, "rope-bass/synth/cutoff", (20 * BAR) + 2000)).to be_within(1e-9).of was
  end
end
