# frozen_string_literal: true

# The list of what was done, and the way to any place of it.
RSpec.describe "What was done" do
  include Hands

  let(:id) { plant }

  def open_list(hand)
    return press_on(hand, page.find("button[aria-label='What was done']")) if hand[:size] == :desk

    open_panel(hand, "Song")
    press_on(hand, page.find("summary", text: "What was done"))
  end

  Hands::ALL.each do |name, hand|
    it "is gone back in and on again by #{name}", long: name == :finger do
      names = %w[One Two Three]
      names.each { |one| Server.edit_log.edit(id, revision(id), "rename_song", { "name" => one }) }
      open_song(id, size: hand[:size])
      feel_for(name)
      open_list(hand)
      press_on(hand, page.find("[aria-label='What was done'] li button", text: "rename the song to One"))
      eventually(id) { |song| song.name == "One" }
      expect(page).to have_css("[aria-label='What was done'] [aria-current='step']", text: "One")
      expect(page).to have_css("[aria-label='What was done'] li", text: "undone", count: 2)
      press_on(hand, page.find("[aria-label='What was done'] li button", text: "rename the song to Three"))
      eventually(id) { |song| song.name == "Three" }
      press_on(hand, page.find("[aria-label='What was done'] li button", text: "the song as it came"))
      eventually(id) { |song| song == DemoSong.build }
    end
  end
end
