# frozen_string_literal: true

# What the keyboard reaches, and what whoever hears the page is told.
RSpec.describe "The keyboard" do
  let(:id) { plant }
  let!(:song) { snapshot(id).song }

  def notes = snapshot(id).song.clip("mooring").notes
  def focused = page.evaluate_script("document.activeElement.getAttribute('data-testid') || document.activeElement.getAttribute('aria-label')")
  def settles_on(what) = expect(watch(-> { focused }, ->(seen) { seen.last == what })).to be true
  def spoken = page.find("[data-testid='spoken']", visible: :all).text(:all)

  it "goes from a region down to its notes, walks, moves, stretches and removes them, types how loud they are, and goes up again" do
    open_song(id)
    page.find_button("Rope Bass", exact: true).click
    press_keys("d")
    region = song.track("rope-bass").regions.find { |one| one.clip_id == "mooring" }
    focus(region.id)
    press_keys(:Down)
    settles_on "note-mooring-0"
    press_keys(:Tab)
    settles_on "note-mooring-1"
    before = notes
    press_keys(:Up)
    eventually(id) { notes.map(&:pitch).sum == before.map(&:pitch).sum + 1 }
    settles_on "note-mooring-1"
    press_keys(%i[shift Right])
    eventually(id) { notes.sum(&:length_ticks) == before.sum(&:length_ticks) + 240 }
    settles_on "note-mooring-1"
    press_keys(:Enter)
    expect(page).to have_css("input#choice-value:focus")
    press_keys("77", :Enter)
    eventually(id) { notes[1].velocity == 77 }
    settles_on "note-mooring-1"
    press_keys(:Delete)
    eventually(id) { notes.size == before.size - 1 }
    settles_on "note-mooring-1"
    press_keys([:control, "z"])
    eventually(id) { notes.size == before.size }
    focus(region.id)
    press_keys(:Down)
    settles_on "note-mooring-0"
    press_keys(:Escape)
    settles_on region.id
  end

  it "goes from area to area by F6, and back to where it was in each" do
    open_song(id)
    page.execute_script("document.querySelector('[data-testid=\"knob-rope-bass/synth/sweep\"] [role=slider]').focus()")
    area = -> { page.evaluate_script("document.activeElement.closest('header, main, aside, .foot')?.getAttribute('aria-label')") }
    seen = Array.new(4) { press_keys(:F6) && area.call }
    expect(seen.sort).to eq ["Foot", "Panel", "Song", "Top bar"]
    expect(page.evaluate_script("document.activeElement.closest('[data-testid]').dataset.testid")).to eq "knob-rope-bass/synth/sweep"
    expect(page).to have_css("h1", text: song.name, visible: :all, count: 1)
  end

  it "is told every edit, undo and redo once, in a place that was there before" do
    open_song(id)
    expect(page).to have_css("[role=status][data-testid='spoken']", exact_text: "", visible: :all)
    mooring = song.clip("mooring").envelopes.first.id
    drag(middle("point-#{mooring}-1"), 0, 20)
    expect(watch(-> { spoken }, ->(seen) { seen.last&.start_with?("Done: move") })).to be true
    press_keys([:control, "z"])
    expect(watch(-> { spoken }, ->(seen) { seen.last&.start_with?("Undone: move") })).to be true
    press_keys([:control, "y"])
    expect(watch(-> { spoken }, ->(seen) { seen.last&.start_with?("Done again: move") })).to be true
    # What the place says, each time it changes.
    page.execute_script(<<~JS)
      window.toldTexts = [];
      const place = document.querySelector("[data-testid='spoken']");
      new MutationObserver(() => window.toldTexts.push(place.textContent.trim())).observe(place, { childList: true, characterData: true, subtree: true });
    JS
    focus("point-#{mooring}-1")
    2.times { |i| press_keys(:Up) && eventually(id) { revision(id) >= 4 + i } }
    mouse.click(**%i[x y].zip(name_row(song.track("rope-bass").regions.first.id)).to_h)
    in_choice_bar { click_on "Duplicate" }
    heard = nil
    expect(watch(-> { heard = page.evaluate_script("window.toldTexts") }, ->(seen) { seen.last.to_a.last.to_s.include?("duplicate") })).to be true
    expect(heard.map { |text| text[/\ADone: \w+/] }).to eq ["Done: move", "Done: move", "Done: duplicate"]
  end

  it "passes a device and what moves in one step of Tab; arrows across lead from knob to knob, those up and down turn" do
    open_song(id)
    first, second = %w[wave attack].map { |name| "knob-rope-bass/synth/#{name}" }
    page.execute_script("document.querySelector('[data-testid=\"#{first}\"] [role=slider]').focus()")
    inside = -> { page.evaluate_script("document.activeElement.closest('.device-card, .what-moves')?.getAttribute('aria-label') ?? ''") }
    at = -> { page.evaluate_script("document.activeElement.closest('[data-testid^=knob-]')?.dataset.testid") }
    card = inside.call
    20.times { press_keys(:Right) unless at.call == second }
    expect(at.call).to eq second
    before = snapshot(id).song.knob(address(second.delete_prefix("knob-")))
    press_keys(:Up)
    eventually(id) { |now| now.knob(address(second.delete_prefix("knob-"))) > before }
    press_keys(:Tab)
    expect(inside.call).not_to eq card
    press_keys(%i[shift Tab], %i[shift Tab])
    expect(inside.call).to start_with "What moves on Rope Bass"
    press_keys(%i[shift Tab])
    expect(inside.call).to eq ""
  end
end
