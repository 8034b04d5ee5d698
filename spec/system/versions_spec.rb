# frozen_string_literal: true

# Two states of a song compared, and a single move taken back from the earlier one.
RSpec.describe "Versions" do
  include Hands

  let(:id) { plant }

  def lane = snapshot(id).song.track("rope-bass").lanes.find { |one| one.target.parameter_id == "cutoff" }

  Hands::ALL.each do |name, hand|
    it "are kept, compared with now, and give one move back, by #{name}", long: name == :mouse do
      old = lane
      open_song(id, size: hand[:size])
      feel_for(name)
      open_panel(hand, "Versions")
      fill_in("Keep the song as it stands, under a name", with: "Before the fog")
      page.find("[aria-label='Keep the song as it stands, under a name']").send_keys(:enter)
      expect(page).to have_css("[aria-label='Versions'] li", text: "Before the fog")
      Server.edit_log.edit(id, revision(id), "scale_points", { "envelope_id" => old.id, "runs" => [[0, old.points.size - 1]], "factor" => 0.5 })
      page.refresh
      open_panel(hand, "Versions")
      press_on(hand, page.find("[aria-label='Versions'] li button", text: "Before the fog"))
      press_on(hand, page.find("[aria-label='Versions'] li button", text: /Cutoff of Mono synth on Rope Bass.*at most .* Hz apart/m))
      expect(page).to have_css("[aria-label='Cutoff of Mono synth on Rope Bass now, and in Before the fog'] polyline", count: 2, visible: :all)
      press_button(hand, "Take it back onto the lane")
      eventually(id) { lane == old }
      expect(page).to have_css("[aria-label='Versions'] li", text: "Nothing that is heard differs from now.")
      press_button(hand, "Rename")
      page.find_field("Name of the version Before the fog").send_keys([:control, "a"], "At dawn", :enter)
      expect(page).to have_css("[aria-label='Versions'] li button", text: "At dawn")
    end
  end

  it "are heard in place of the song while it plays, until somebody edits", :long do
    loud = VersionShelf.keep(id, "Loud")
    Server.edit_log.edit(id, revision(id), "set_knob", { "address" => "master/channel/volume", "value" => 0.0 })
    VersionShelf.keep(id, "Hushed")
    open_song(id)
    show_panel("Versions")
    page.find("[aria-label='Versions'] li button", text: "Loud").click
    click_on "Play"
    expect(falls_silent?).to be true
    place = -> { told("[data-testid='position']")[0].to_s.split(".").map(&:to_i) }
    before = place.call
    click_on "Hear it"
    expect(page).to have_button("Hearing Loud; hear the song as it stands")
    expect([sounds?, place.call <=> before]).to eq [true, 1]
    press_keys([:shift, "h"])
    expect(falls_silent?).to be true
    press_keys([:shift, "h"])
    expect(sounds?).to be true
    edit(id, "rename_song", { name: "Elsewhere" })
    expect(page).to have_field("Name of the song", with: "Elsewhere")
    expect(sounds?).to be true
    page.find("[aria-label='Compare Loud with']").select("Hushed")
    expect(page).to have_css("[aria-label='Versions'] li", text: /Volume of Master/)
    expect(page).to have_no_button("Hand its knob back")
    page.find("[aria-label='Compare Loud with']").select("the song now")
    click_on "Hand its knob back"
    eventually(id) { |song| song == VersionShelf.song(id, loud["id"]).with(name: "Elsewhere") }
    expect(page).to have_no_button("Hearing Loud; hear the song as it stands")
  end
end
