# frozen_string_literal: true

# Notes drawn and moved in the strip of their clip; clips made, named, doubled.
RSpec.describe "Notes in the studio" do
  let(:id) { plant }
  let(:count) { DemoSong.build.clip("mooring").notes.size }

  def song = snapshot(id).song
  def notes(clip = "mooring") = song.clip(clip).notes
  def box = page.evaluate_script("(b => [b.x, b.y, b.width, b.height])(document.querySelector('[data-testid=\"notes-mooring\"]').getBoundingClientRect())")
  def at(index) = notes[index].to_h

  def show_notes
    page.find("[data-testid='strip-switch-rope-bass']").click
    expect(page).to have_css("[aria-label='Notes of Rope Bass']")
  end

  it "draws a note as long as the hand goes, moves it in time and pitch, stretches it, makes it softer, and undoes" do
    open_song(id)
    show_notes
    x, y, = box
    drag([x + 62, y + 24], 52, 0) { expect(page).to have_css(".note", minimum: count + 1) }
    eventually(id) { notes.size == count + 1 }
    made = notes.index { |one| one.velocity == 96 }
    expect(at(made)[:length_ticks]).to be_between(1680, 2160)
    before = at(made)
    drag(middle("note-mooring-#{made}"), 26, 12)
    eventually(id) { notes.none? { |one| one.tick == before[:tick] && one.pitch == before[:pitch] } }
    moved = notes.index { |one| one.velocity == 96 }
    expect([at(moved)[:tick] - before[:tick], at(moved)[:pitch] < before[:pitch]]).to eq [960, true]
    drag(middle("velocity-mooring-#{moved}"), 0, 12)
    eventually(id) { notes[moved].velocity < 90 }
    4.times { press_keys([:control, "z"]) }
    eventually(id) { notes.size == count }
  end

  it "foretells the note that a press would make: its row, its place, and in words what it is" do
    open_song(id)
    show_notes
    x, y, = box
    mouse.move(x: x + 62, y: y + 24)
    expect(page).to have_css("[data-testid='note-foretold']")
    words = page.find("[data-testid='words']", visible: :all, text: /\A[A-G]#?\d at 5\.\d/).text(:all)
    mouse.click(x: x + 62, y: y + 24)
    eventually(id) { notes.size == count + 1 }
    made = notes.index { |one| one.velocity == 96 }
    expect(page.find("[data-testid='note-mooring-#{made}']", match: :first)["aria-label"]).to start_with words
  end

  it "chooses by a loop and by keys, moves, copies, pastes and removes; the panel quantises and transposes", :long do
    open_song(id)
    show_notes
    mouse.click(x: middle("note-mooring-0")[0], y: middle("note-mooring-0")[1])
    press_keys([:control, "a"])
    press_keys(:Up)
    eventually(id) { notes.map(&:pitch).sum == DemoSong.build.clip("mooring").notes.sum { |one| one.pitch + 1 } }
    was = notes.map { |one| [one.velocity, one.length_ticks] }
    press_keys(%i[control down], %i[control shift down], %i[control shift left])
    eventually(id) { notes.map { |one| [one.velocity, one.length_ticks] } == was.map { |velocity, length| [[velocity - 9, 1].max, [length - 10, 15].max] } }
    show_panel("At hand")
    expect(page).to have_css("[data-testid='notes-panel'] h3", text: "#{count} notes of Mooring")
    click_on "Octave down"
    eventually(id) { notes.first.pitch == 33 + 1 - 12 }
    in_choice_bar { click_on "Quantise" }
    eventually(id) { notes.all? { |one| (one.tick % 240).zero? } }
    press_keys([:control, "c"], :Delete)
    eventually(id) { notes.empty? }
    press_keys([:control, "v"])
    eventually(id) { notes.size == count }
  end

  it "makes a clip by a double press on bare ground, draws a beat in it, names and doubles it", :long do
    open_song(id)
    page.find_button("Bell Buoy", exact: true).click
    press_keys("w")
    row = place_of(page.find_button("Bell Buoy", exact: true))
    x = page.evaluate_script("document.querySelector('[data-testid=\"table\"]').getBoundingClientRect().x") + 188 + 60
    2.times { mouse.click(x:, y: row[1]) }
    made = eventually(id) { |now| now.clips.values.find { |clip| clip.name == "Bell Buoy" } } && song.clips.values.find { |clip| clip.name == "Bell Buoy" }
    expect(page).to have_css("[data-testid='notes-#{made.id}']")
    spot = middle("notes-#{made.id}")
    mouse.click(x: spot[0], y: spot[1] - 20)
    eventually(id) { notes(made.id).size == 1 }
    show_panel("Clip")
    type_into "Name of the clip", "Harbour bell"
    eventually(id) { song.clip(made.id).name == "Harbour bell" }
    click_on "Double"
    eventually(id) { song.clip(made.id).length_ticks == 2 * BAR && notes(made.id).size == 2 }
    page.find("[aria-label='Colour of the clip']").select("weld")
    eventually(id) { song.clip(made.id).hue == "weld" }
    click_on "Play once"
    eventually(id) { song.directory.regions_of_clip(made.id).first.region.looped == false }
  end

  it "adds a note by a tap and drags it by a finger; a swipe over bare ground scrolls" do
    open_song(id, size: :phone)
    page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
    page.find("[data-testid='strip-switch-rope-bass']").click
    x, y, = box
    tap([x + 70, y + 20])
    eventually(id) { notes.size == count + 1 }
    made = notes.index { |one| one.velocity == 96 }
    pitch = notes[made].pitch
    swipe(middle("note-mooring-#{made}"), 0, 14)
    eventually(id) { notes.find { |one| one.velocity == 96 }.pitch < pitch }
    revision = snapshot(id).revision
    swipe([x + 120, y + 40], -60, 0)
    sleep 0.3
    expect(snapshot(id).revision).to eq revision
  end
end
