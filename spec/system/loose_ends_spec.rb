# frozen_string_literal: true

# The list of loose ends: its count in the top bar, the way to a place, a fix that is seen before it is made.
RSpec.describe "Loose ends" do
  include Hands

  let(:id) { plant }

  Hands::ALL.each do |name, hand|
    it "are counted, led to and mended by #{name}; the count follows", long: name == :mouse do
      open_song(id, size: hand[:size])
      feel_for(name)
      press_on(hand, page.find("button[aria-label='4 loose ends']"))
      expect(page).to have_css("[aria-label='Loose ends'] h4", text: "A fade that does not start level")
      press_on(hand, page.find("[aria-label='Loose ends'] li button", text: "A fade of Volume on Master"))
      expect(page).to have_css("[data-testid='lane-master']")
      press_button(hand, "Make it level")
      eventually(id) { |now| KindSatchel::Checks::LooseEnds.of_check(now, "uneven_starts").empty? }
      expect(page).to have_css("button[aria-label='3 loose ends']")
      press_button(hand, "Come back right after it: all 2")
      expect(page).to have_css("button[aria-label='1 loose end']")
      press_button(hand, "Set aside …")
      fill_in("Why it is meant to be so", with: "for the stage")
      press_button(hand, "Set it aside")
      expect(page).to have_css("[aria-label='Loose ends'] summary", text: "1 set aside")
      expect(snapshot(id).song.set_aside.map(&:reason)).to eq ["for the stage"]
      3.times { Server.edit_log.undo(id, revision(id)) }
      expect(get_json("/api/songs/#{id}/loose_ends")["count"]).to eq 4
    end
  end
end
