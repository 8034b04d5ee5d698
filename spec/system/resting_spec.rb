# frozen_string_literal: true

# Moves rest for a listen: of a clip, a track, the song; one press each, and another brings them back.
RSpec.describe "Moves at rest" do
  include Hands

  let(:id) { plant }
  let(:target) { "rope-bass/synth/cutoff" }
  let!(:song) { snapshot(id).song }

  # How many values are heard over the song, as the page has it.
  def heard_values = page.find("[data-testid='curve-of-#{target}'] path:last-child", visible: :all)["d"].scan(/[\d.]+/).each_slice(2).map(&:last).uniq.size
  def resting = Server.listened_to.of(id).resting

  Hands::ALL.each do |name, hand|
    it "lets all rest at one press, tells it where it matters, and brings them back at another, by #{name}", long: name == :finger do
      open_song(id, size: hand[:size])
      feel_for(name)
      page.find_button("Rope Bass", exact: true).click if hand[:size] == :desk
      before = json_of(song)
      press_button(hand, "Rest")
      expect(page).to have_button("Moves rest")
      expect(page).to have_css(".region-name", text: "rests", minimum: 3)
      expect(resting).to eq ["song"]
      at_foot(hand, "Knobs") do
        expect(page).to have_css("[data-testid='moving-#{target}']", text: song.parameter(KindSatchel::Address.parse(target)).text(song.knob(KindSatchel::Address.parse(target))))
        eventually(id) { heard_values <= 2 }
        expect(page).to have_css("[aria-label='Cutoff in Mooring: on, rests']", visible: :all)
      end
      press_button(hand, "Moves rest")
      expect(page).to have_no_button("Moves rest")
      at_foot(hand, "Knobs") { eventually(id) { heard_values > 4 } }
      expect([resting, json_of(snapshot(id).song) == before, snapshot(id).undo]).to eq [[], true, nil]
    end
  end

  it "lets one clip rest at its region, a track from its menu, and hears of another tab" do
    open_song(id)
    x, y = place_of(page.find("[data-testid='region-11'] .rest-mark", visible: :all))
    mouse.move(x:, y:)
    expect(page).to have_css("[data-testid='region-11'] .rest-mark")
    mouse.click(x:, y:)
    eventually(id) { resting == ["clip/mooring"] }
    expect(page).to have_css("[data-testid^='region-1'] .rest-mark[data-rests]", minimum: 2)
    expect(page).to have_css("[data-testid='sum']", text: "lane")
    expect(page).to have_no_css("[data-testid='sum']", text: "clip Mooring")
    url = URI("#{Capybara.current_session.server.base_url}/api/songs/#{id}/listening")
    told = Net::HTTP.post(url, { rest: "track/rope-bass", rests: true, tab: "another" }.to_json, "Content-Type" => "application/json")
    expect(told.code).to eq "200"
    expect(page).to have_no_css("[data-testid='sum']", text: "lane")
    edit(id, "set_knob", { address: target, value: "700 Hz" })
    expect(page).to have_css("[data-testid='sum-heard']", text: "700 Hz")
    click_on "Moves rest"
    expect(page).to have_css("[data-testid='sum']", text: "clip Mooring")
    x, y = place_of(page.find_button("Rope Bass", exact: true))
    mouse.click(x:, y:, button: :right)
    page.find("[role=menuitem]", text: "Rest its moves").click
    eventually(id) { resting == ["track/rope-bass"] }
  end
end
