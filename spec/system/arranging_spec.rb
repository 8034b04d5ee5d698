# frozen_string_literal: true

RSpec.describe "Arranging in the studio" do
  let(:id) { plant }
  let(:move_id) { snapshot(id).song.clip("mooring").envelopes.first.id }

  before { open_song(id) }

  def regions = snapshot(id).song.track("rope-bass").regions
  def ends = regions.map { |region| [region.start_tick / 960, region.end_tick / 960] }

  def select_first
    focus(regions.first.id)
    press_keys(:Enter)
    show_panel("Clip")
  end

  it "splits at the playhead, hears no difference, joins again" do
    before = heard(snapshot(id).song, "rope-bass/synth/cutoff", 25_000)
    select_first
    press_ruler(bar_x(7))
    expect(page).to have_css("[data-testid='position']", text: /\A7\.1/)
    in_choice_bar { click_on "Split" }
    song = eventually(id) { ends.first(2) == [[16, 24], [24, 32]] }
    expect(heard(song, "rope-bass/synth/cutoff", 25_000)).to eq before
    in_choice_bar { click_on "Join" }
    eventually(id) { ends.first == [16, 32] }
  end

  it "trims and extends by the edges and by typing, and says what cannot be", :long do
    x, y = middle("end-of-#{regions.first.id}")
    drag([x, y], -208, 0)
    eventually(id) { ends.first == [16, 24] }
    drag(middle("start-of-#{regions.first.id}"), 104, 0)
    eventually(id) { ends.first == [20, 24] && regions.first.offset_ticks == 4 * 960 }
    select_first
    type_into "End", "10.1"
    eventually(id) { ends.first(2) == [[20, 36], [36, 48]] }
    type_into "Start", "1.1"
    eventually(id) { ends.first == [0, 36] }
    type_into "End", "1.1"
    expect(page).to have_css("[role=alert]", text: "ends after it starts")
  end

  it "lets an envelope run stretched, or in a length of its own that meets the loop again", :long do
    at_hand("Envelope")
    click_on "stretched to fit"
    eventually(id) { |song| song.clip("mooring").envelopes.first.clock == "stretched" }
    click_on "own length"
    type_into "Own length", "7"
    eventually(id) { |song| song.clip("mooring").envelopes.first.own_length_ticks == 7 * 960 }
    expect(page).to have_css("[data-testid='meeting']", text: "after 56 beats (14 bars)")
    type_into "Own length", "0"
    expect(page).to have_css("[role=alert]", text: "Own length is a number")
  end
end
