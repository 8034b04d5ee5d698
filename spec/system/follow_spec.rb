# frozen_string_literal: true

# An envelope that follows: the pad ducks under the kick, made in the panel that says what moves a knob.
RSpec.describe "Following in the studio" do
  include Hands

  let(:id) { plant }

  def duck = snapshot(id).song.clip("fog").envelopes.find { |one| one.target == address("fog-pad/channel/volume") }

  Hands::ALL.each do |name, hand|
    it "lets the pad duck under the kit by #{name}, is set otherwise, heard in every copy, and undone", long: name == :finger do
      before = duck
      edit(id, "move_track", { track_id: "fog-pad", place: 0 })
      open_song(id, size: hand[:size])
      feel_for(name)
      press_on(hand, page.find(:button, "Fog Pad", exact: true, match: :first))
      at_hand("Value", hand)
      at_hand("Envelope", hand)
      expect(page).to have_css("[aria-label='Envelope'] h3", text: "in Fog")
      press_on(hand, page.find("[aria-label='Where its values come from'] button", text: "follow"))
      page.find("[aria-label='What it follows']").select("track Crate Kit, notes")
      eventually(id) { duck.followed? }
      page.find("[aria-label='Which notes open it']").select("only Kick")
      eventually(id) { duck.source.pitches == [36] }
      press_button(hand, "Turned over")
      eventually(id) { duck.source.over }
      page.execute_script("arguments[0].focus()", page.find("input[type=range][aria-label='Release']"))
      press_keys(:Right, :Right)
      eventually(id) { duck.source.release_ms == 160 }
      expect(page).to have_css("[aria-label^='Undo: let Volume in Fog follow Crate Kit']")
      fog = snapshot(id).song.directory.regions_of_clip("fog").map(&:region).select { |region| region.start_tick.between?(4 * BAR, 11 * BAR) }
      volume = KindSatchel::Heard::Resolver.new(snapshot(id).song, address("fog-pad/channel/volume"))
      heard = fog.map { |region| volume.at_each((0...3840).step(40).map { |tick| region.start_tick + tick }) }
      expect(heard.uniq.size).to eq 1
      expect(heard[0].min).to be < heard[0].max * 0.6
      5.times { Server.edit_log.undo(id, revision(id)) }
      expect(duck).to eq before
    end
  end
end
