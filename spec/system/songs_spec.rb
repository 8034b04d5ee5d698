# frozen_string_literal: true

RSpec.describe "Songs in the studio" do
  let(:id) { plant }

  def regions = snapshot(id).song.track("rope-bass").regions
  def position = page.find("[data-testid='position']").text

  # How often something is seen to change while a block's time runs.
  def seen(times)
    Array.new(times) do
      sleep 0.06
      yield
    end
  end

  it "plays: the sound is there, the playhead runs inside the range, knobs move with it, and it stops" do
    open_song(id)
    click_on "Play"
    expect(page).to have_button("Stop")
    expect(sounds?).to be true
    expect(watch(-> { position }, ->(seen) { seen.uniq.size > 5 })).to be true
    expect(watch(-> { page.find("[data-testid='value-rope-bass/synth/cutoff']").text }, ->(seen) { seen.uniq.size > 3 })).to be true
    click_on "Stop"
    stopped = position
    expect(seen(4) { position }.uniq).to eq [stopped]
    expect(snapshot(id).song.meters.parse(stopped)).to be_between(4 * BAR, 12 * BAR)
  end

  it "repeats the range without a gap", :long do
    open_song(id)
    drag([bar_x(6) + 1, middle("ruler")[1] - 6], 26, 0)
    eventually(id) { |song| song.range.end_tick - song.range.start_tick == 960 }
    click_on "Play"
    ticks = []
    expect(watch(-> { ticks << snapshot(id).song.meters.parse(position) }, ->(_) { ticks.each_cons(2).count { |a, b| b < a } >= 2 })).to be true
    expect(ticks.max).to be < snapshot(id).song.range.end_tick
  end

  it "goes on playing through an edit, a mute and a jump" do
    open_song(id)
    click_on "Play"
    expect(sounds?).to be true
    show_knob("rope-bass/channel/mute")
    page.find("[data-testid='knob-rope-bass/channel/mute'] [role=slider]").click
    eventually(id) { |song| song.knob(address("rope-bass/channel/mute")) == 1.0 }
    press_ruler(680)
    expect(sounds?).to be true
    expect(page).to have_button("Stop")
  end

  it "moves a region, copies it with a key held, duplicates it, and its moves come along" do
    open_song(id)
    first = regions.first
    press_ruler(680)
    drag([middle(first.id)[0], middle("material-rope-bass")[1] - 52], 104, 0)
    song = eventually(id) { |now| now.directory.region(first.id).region.start_tick == 5 * BAR }
    expect(heard(song, "rope-bass/synth/cutoff", (5 * BAR) + 4800)).not_to eq song.knob(address("rope-bass/synth/cutoff"))
    click_on "Undo: move Mooring to 6.1.0"
    eventually(id) { |now| now.directory.region(first.id).region.start_tick == 4 * BAR }
    drag([middle(first.id)[0], middle("material-rope-bass")[1] - 52], 832, 0, control: true)
    eventually(id) { |now| now.directory.regions_of_clip("mooring").size == 5 && now.directory.region(first.id).region.start_tick == 4 * BAR }
    known = regions.map(&:id)
    focus(regions.first.id)
    press_keys("a")
    eventually(id) { |now| now.directory.regions_of_clip("mooring").any? { |placed| placed.region.start_tick == 8 * BAR && !known.include?(placed.region.id) } }
  end

  it "copies and pastes at the playhead, separates, and removes" do
    open_song(id)
    focus(regions.first.id)
    press_keys(:Enter)
    show_panel("Clip")
    expect(page).to have_text("shared by 4 regions")
    click_on "Copy"
    show_bar(9)
    press_ruler(bar_x(13))
    click_on "Paste"
    eventually(id) { |now| now.directory.regions_of_clip("mooring").any? { |placed| placed.region.start_tick == 12 * BAR } }
    in_choice_bar { click_on "Separate" }
    song = eventually(id) { |now| now.clips.values.map(&:name).include?("Mooring 2") }
    expect(song.directory.regions_of_clip("mooring").size).to eq 4
    click_on "Remove"
    eventually(id) { |now| now.track("rope-bass").regions.none? { |entry| entry.start_tick == 4 * BAR } }
    within(".notice") { click_on "Undo" }
    eventually(id) { |now| now.track("rope-bass").regions.any? { |entry| entry.start_tick == 4 * BAR } }
  end

  it "is as it was left after a reload, undo included", :long do
    open_song(id)
    click_on "Unfold Fog Pad"
    type_into "Name of the song", "High Tide Market"
    eventually(id) { |song| song.name == "High Tide Market" }
    sleep 0.4
    Server.open_songs.forget(id)
    visit current_path
    expect(page).to have_button("Fold Fog Pad").and have_button("Fold Rope Bass")
    expect(page).to have_field("Name of the song", with: "High Tide Market")
    click_on "Undo: rename the song to High Tide Market"
    expect(page).to have_field("Name of the song", with: "Low Tide Market").and have_button("Redo: rename the song to High Tide Market")
    page.find("body").send_keys([:control, :shift, "z"])
    eventually(id) { |song| song.name == "High Tide Market" }
  end

  it "shows in one tab what another has done" do
    open_song(id)
    edit(id, "rename_song", { name: "From elsewhere" })
    expect(page).to have_field("Name of the song", with: "From elsewhere")
    expect(page).to have_text("Done in another tab: rename the song")
    type_into "Tempo", "100"
    eventually(id) { |song| song.tempo.bpm_at(0) == 100 }
  end

  it "says what is wrong with a tempo, next to it, and changes nothing" do
    open_song(id)
    type_into "Tempo", "fast"
    expect(page).to have_css("[role=alert]", text: "Tempo is a number from 10 to 400")
    expect([page.find_field("Tempo").value, snapshot(id).revision]).to eq ["92", 1]
  end

  it "tells when the server refuses, and goes on" do
    open_song(id)
    type_into "Meter", "4/5"
    expect(page).to have_css("[role=alert]")
    expect(page).to have_field("Meter", with: "4/4")
  end

  it "changes the time signature from a bar on: by the menu and on the bar numbers; the grid and positions follow" do
    open_song(id)
    press_ruler(bar_x(6) + 2)
    page.find("[aria-label='Bars']").click
    page.find("[role=menuitem]", text: "Meter from this bar").click
    page.find("[aria-label='Meter from bar 6']", match: :first).set("3/4")
    press_keys(:Enter)
    eventually(id) { |now| now.meters.sections.map { |one| [one.bar, one.meter.beats] } == [[1, 4], [6, 3]] }
    press_ruler(bar_x(6) + 2 + (2880 * 0.027))
    expect(position).to eq "7.1.0"
    expect(page).to have_field("Meter from bar 6", with: "3/4")
    page.find("button[aria-label='Meter 3/4 from bar 6']").click
    page.find("[aria-label='Take the meter of bar 6 out']").click
    eventually(id) { |now| now.meters.sections.size == 1 }
    press_keys([:control, "z"])
    expect(page).to have_css("button[aria-label='Meter 3/4 from bar 6']")
  end

  it "makes, renames, duplicates, deletes, brings back, exports and imports songs in the list", :long do
    song = plant(DemoSong.build.with(name: "Quay #{id}"))
    Capybara.current_driver = :desk
    visit "/"
    row = ->(name) { page.find("li[aria-label='#{name}']") }
    row.call("Quay #{id}").click_button("Duplicate Quay #{id}")
    expect(page).to have_css("li[aria-label='Quay #{id} copy']")
    type_into "Name of Quay #{id}", "Pier #{id}"
    expect(page).to have_css("li[aria-label='Pier #{id}']")
    expect(row.call("Pier #{id}").find_link("Export Pier #{id}")[:href]).to end_with "/api/songs/#{song}/export"
    row.call("Pier #{id}").click_button("Delete Pier #{id}")
    expect(page).to have_no_css("li[aria-label='Pier #{id}']")
    click_on "Bring it back"
    expect(page).to have_css("li[aria-label='Pier #{id}']", text: "92 BPM · 4/4 · today")
    page.find("[aria-label='Find a song']").set("pier #{id}")
    expect(page).to have_css("[aria-label='Songs'] li", count: 1)
    row.call("Pier #{id}").click_button("Delete Pier #{id}")
    expect(page).to have_text("No song has these words").or have_text("No songs yet")
    page.find("section[aria-label='Bin'] button", text: "Bin ·").click
    page.find("li[aria-label='Pier #{id}, in the bin']").click_on("Delete for good")
    click_on "Yes, for good"
    expect(page).to have_no_css("li[aria-label='Pier #{id}, in the bin']")
    expect(SongRow.exists?(song)).to be false
    page.find("[aria-label='Find a song']").set("")
    import_file(json_of(DemoSong.build.with(name: "Imported #{id}")))
    expect(page).to have_css("li[aria-label='Imported #{id}']")
    import_file('{"format": "kind-satchel-song"}')
    expect(page).to have_css("[role=alert]", text: "version, name")
    page.find("button[aria-label='What MIDI controllers move']").click
    expect(page).to have_select("What controller 74 moves", selected: "Cutoff")
    page.find("[role=dialog]").click_on "Close"
    click_on "New song"
    expect(page).to have_field("Name of the song", with: "New song").and have_button("Play")
  end

  it "packs a song with its sounds and takes it in; says which sounds are missing where they are", :long do
    song = DemoSong.build
    clip = song.clips.values.find(&:audio)
    lost = plant(song.with(name: "Lost horn #{id}").with_clip(clip.with(audio: clip.audio.with(sound: "a" * 64))))
    visit("/")
    expect(page.find("a[aria-label='Pack Lost horn #{id}']")["href"]).to end_with "/api/songs/#{lost}/packed"
    pack = Tempfile.create("pack").tap { |file| PackedSong.write(file.path, json_of(song.with(name: "Packed #{id}")), song.sounds, Server.sounds) }
    import_file(File.binread(pack.path), "song.zip")
    expect(page).to have_css("li[aria-label='Packed #{id}']")
    import_file("nothing", "song.zip")
    expect(page).to have_css("[role=alert]", text: "no packed song")
    open_song(lost)
    expect(page).to have_css("[role=alert]", text: "A sound is missing here, so #{clip.name} will be silent")
  end

  it "finds and orders the sounds there are", :long do
    visit("/")
    click_on "Sounds"
    names = -> { told("ul[aria-label='Sounds'] > li .preset").map { |text| text.lines.first.strip } }
    expect(page).to have_css("ul[aria-label='Sounds'] > li", minimum: 5)
    expect(names.call).to eq names.call.sort_by(&:downcase)
    fill_in "Find a sound", with: "GUL loo"
    expect(page).to have_css("ul[aria-label='Sounds'] > li", count: 1, text: "Gull loop")
    fill_in "Find a sound", with: ""
    page.select("by length", from: "Order of the sounds")
    seconds = told("ul[aria-label='Sounds'] > li").map { |text| text[/[\d.]+(?= s)/].to_f }
    expect(seconds).to eq seconds.sort
    fill_in "Find a sound", with: "nowhere"
    expect(page).to have_text("No sound has a name like that")
    fill_in "Find a sound", with: ""
    %w[abcd efgh].each { |tail| Server.sounds.take(another("gull-loop", tail), name: "Gulls nobody plays") }
    click_on "Close"
    click_on "Sounds"
    expect(page).to have_text("Gulls nobody plays")
    click_on "Let go of all"
    expect(page).to have_no_text("Gulls nobody plays")
  end

  # The same file with a few bytes after it, so that it is another.
  def another(word, tail)
    bytes = File.binread(File.join(Server.shipped_sounds, "#{word}.wav"))
    File.join(Dir.mktmpdir, "#{word}.wav").tap { |copy| File.binwrite(copy, "#{bytes}junk\x04\0\0\0#{tail}") }
  end

  def import_file(text, name = "song.json")
    path = File.join(Dir.mktmpdir, name)
    File.binwrite(path, text)
    attach_file("Song document, packed song or MIDI file to import", path, make_visible: true)
  end

  it "works on a phone: unfold, drag a point by touch, read the sum, play" do
    open_song(id, size: :phone)
    page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
    move_id = snapshot(id).song.clip("mooring").envelopes.first.id
    tap(middle("point-#{move_id}-1"))
    expect(page).to have_css(".mark.chosen", visible: :all)
    x, y = middle("point-#{move_id}-1")
    touch("touchStart", x, y)
    5.times { |i| touch("touchMove", x, y + ((i + 1) * 6)) }
    touch("touchEnd")
    eventually(id) { |song| points_of(song, move_id)[1].value < 0.3 }
    at_hand("Value")
    expect(page).to have_css("[data-testid='sum-heard']")
    show_panel("Knobs")
    expect(page).to have_css("[data-testid='knob-rope-bass/synth/cutoff']")
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
    click_on "Play"
    expect(watch(-> { position }, ->(seen) { seen.uniq.size > 4 })).to be true
  end
end
