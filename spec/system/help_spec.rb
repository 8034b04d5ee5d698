# frozen_string_literal: true

# What panels are for, told where they are.
RSpec.describe "Help" do
  include Hands

  let(:id) { plant }

  Hands::ALL.each do |name, hand|
    it "says what the panel in view is for, and leads into the guide, by #{name}", long: name == :finger do
      open_song(id, size: hand[:size])
      feel_for(name)
      first, told = hand[:size] == :phone ? ["All", /At hand Goes with what is chosen/] : ["Versions", /Versions .*kept under a name/]
      open_panel(hand, first)
      press_on(hand, page.find("button[title='What this is for']"))
      expect(page).to have_css("[aria-label='Help']", text: told)
      open_panel(hand, "Clip")
      expect(page).to have_css("[aria-label='Help']", text: /Clip .*chosen region/)
      address = page.find("[aria-label='Help'] a", match: :first)["href"]
      press_on(hand, page.find("button[aria-label='Close the help']"))
      expect(page).to have_no_css("[aria-label='Help']")
      visit address
      expect(page).to have_css("h2#clip", text: "Clip")
      click_on "Tracks and devices →"
      expect(page).to have_css("h1", text: "Tracks and devices")
      expect(page.evaluate_script("document.querySelector('img').naturalWidth")).to eq 1280
    end
  end
end
