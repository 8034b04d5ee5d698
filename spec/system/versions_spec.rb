# frozen_string_literal: true

# Two states of a song compared, and a single move taken back from the earlier one.
RSpec.describe "Versions" do
  include Hands

  let(:id) { plant }

  def lane = standing(id).song.track("rope-bass").lanes.find { |one| one.target.parameter_id == "cutoff" }

  Hands::ALL.each do |name, hand|
    it "are kept, compared with now, and give one move back, by #{name}" do
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
      press_on(hand, page.find("[aria-label='Versions'] li button", text: /Cutoff of Rope Bass.*at most .* Hz apart/m))
      expect(page).to have_css("[aria-label='Cutoff of Rope Bass now, and in Before the fog'] polyline", count: 2, visible: :all)
      press_button(hand, "Take it back onto the lane")
      eventually(id) { lane == old }
      expect(page).to have_css("[aria-label='Versions'] li", text: "Nothing that is heard differs from now.")
    end
  end
end
