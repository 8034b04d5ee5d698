# frozen_string_literal: true

# The foot begins with what moves on the track at hand; its devices are narrow cards that open.
RSpec.describe "The foot" do
  let(:id) { plant }
  let!(:song) { snapshot(id).song }

  # The knobs among what moves, by address, in order.
  def moving = told(".what-moves [data-testid^='moving-']", "data-testid").map { |name| name.delete_prefix("moving-") }

  # The numbers of the first and the last bar on the screen.
  def bars_in_view
    page.evaluate_script(<<~JS).minmax
      [...document.querySelectorAll("[data-number]")].filter((one) => {
        const { x } = one.getBoundingClientRect(), main = document.querySelector("main").getBoundingClientRect();
        return x > 180 && x < main.right;
      }).map((one) => Number(one.textContent))
    JS
  end

  # Read from the song itself: what has a lane, a macro, or a move of a clip that a region plays in some bars.
  def movers(track_id, from, to, now = song)
    placed = now.tracks.flat_map(&:regions).select { |one| one.start_tick < to && one.start_tick + one.length_ticks > from && !one.muted }
    lists = placed.map { |one| now.clips.fetch(one.clip_id).envelopes } + now.tracks.map(&:lanes)
    (lists.flatten.map { |one| one.target.to_s } + now.tracks.flat_map(&:devices).flat_map(&:macros).flat_map(&:drives).map { |one| one.target.to_s })
      .select { |address| address.start_with?("#{track_id}/") }.uniq
  end

  it "shows volume, pan and what moves in the bars in view, as heard; other bars show others" do
    open_song(id)
    page.find_button("Rope Bass", exact: true).click
    always = %w[rope-bass/channel/volume rope-bass/channel/pan]
    expect(moving.first(2)).to eq always
    from, to = bars_in_view
    expect(moving.sort).to eq((always | movers("rope-bass", (from - 1) * BAR, to * BAR)).sort)
    curve = page.find("[data-testid='curve-of-rope-bass/synth/cutoff'] path:last-child", visible: :all)["d"]
    expect(curve.scan(/[\d.]+/).map(&:to_f).uniq.size).to be > 6
    expect(moving).not_to include "rope-bass/synth/resonance"
    edit(id, "embed_envelope", { clip_id: "mooring", address: "rope-bass/synth/resonance" })
    eventually(id) { moving.include?("rope-bass/synth/resonance") }
  end

  it "switches a move off and on by its mark, one step of undo each" do
    open_song(id)
    page.find_button("Rope Bass", exact: true).click
    on = -> { snapshot(id).song.clip("mooring").envelopes.find { |one| one.target.to_s == "rope-bass/synth/cutoff" }.on }
    page.find_button("Cutoff in Mooring: on").click
    eventually(id) { !on.call }
    page.find_button("Cutoff in Mooring: off").click
    eventually(id) { on.call }
    expect(revision(id)).to eq 3
  end

  it "opens devices by a press and closes them by another; what is led to is opened" do
    open_song(id)
    page.find_button("Rope Bass", exact: true).click
    shown = -> { told(".device-card [data-testid^='knob-']", "data-testid").map { |name| name.split("/")[1] }.uniq }
    expect(shown.call).to eq ["synth"]
    page.find_button("Open Channel of Rope Bass, 6 knobs").click
    page.find_button("Close Mono synth of Rope Bass").click
    expect(page).to have_css("[data-testid='open-rope-bass/synth']", text: "knobs")
    expect(shown.call).to eq ["channel"]
    page.find_button("Close Channel of Rope Bass").click
    expect(page).to have_no_css(".device-card [data-testid^='knob-']")
    show_panel "Finder"
    fill_in "Find a parameter", with: "rope bass sweep"
    page.find("[data-testid='found-rope-bass/synth/sweep']").click
    expect(page).to have_css("[data-testid='knob-rope-bass/synth/sweep']")
  end

  it "has a chip at the strips for each parameter that moves: one press shows it" do
    open_song(id)
    expect(parameter_shown?("Rope Bass", "Cutoff")).to be true
    show_parameter("Rope Bass", "Resonance")
    expect(parameter_shown?("Rope Bass", "Resonance")).to be true
    moves = -> { snapshot(id).song.directory.envelopes.values.map(&:envelope).select { |one| one.target.to_s == "rope-bass/synth/cutoff" } }
    on = moves.call.select(&:on).map(&:id)
    chip = page.find("[data-testid='chip-rope-bass/synth/cutoff']")
    x, y = place_of(chip)
    before = revision(id)
    mouse.move(x:, y:).down
    eventually(id) { moves.call.none?(&:on) }
    mouse.up
    expect(chip[:class]).to include "chip-off"
    expect(parameter_shown?("Rope Bass", "Resonance")).to be true
    mouse.down
    eventually(id) { moves.call.select(&:on).map(&:id).sort == on.sort }
    mouse.up
    expect([on.size, revision(id)]).to eq [3, before + 2]
    expect(page).to have_css("[data-testid='at-hand'] h2", text: "Resonance of Rope Bass")
  end
end
