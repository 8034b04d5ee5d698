# frozen_string_literal: true

# One walk through travel and combination, as a new user would take it: by mouse, and by finger on a phone.
RSpec.describe "From a sweep in a clip to points on the track" do
  include Hands

  let(:id) { plant }
  let(:swept) { "rope-bass/drive/amount" }
  let(:gated) { "rope-bass/channel/volume" }
  let(:cutoff) { "rope-bass/synth/cutoff" }

  def first_region = snapshot(id).song.track("rope-bass").regions.first
  def clip = snapshot(id).song.clip(first_region.clip_id)
  def envelope(text, song = snapshot(id).song) = song.clip(song.track("rope-bass").regions.first.clip_id).envelopes.find { |one| one.target.to_s == text }
  def lane = snapshot(id).song.track("rope-bass").lanes.find { |one| one.target.to_s == cutoff }

  def curves(song)
    [swept, gated, cutoff].to_h { |text| [text, KindSatchel::Heard::Resolver.new(song, address(text)).at_each((0..song.length_ticks).step(241).to_a)] }
  end

  def alike?(now, before, within: 1e-9)
    curves(now).all? { |text, values| values.zip(before[text]).all? { |a, b| (a - b).abs <= within } }
  end

  # Knobs are a panel of their own on a phone, and hide the song the less.
  def embed(hand, text, words)
    open_panel(hand, "Knobs") if hand[:size] == :phone
    show_knob(text)
    press_button(hand, words)
    eventually(id) { envelope(text) }
  end

  Hands::ALL.each do |name, hand|
    it "goes by #{name}", long: name == :mouse do
      open_song(id, size: hand[:size])
      feel_for(name)
      region = first_region.id

      # A sweep in the clip, which is made this region's own first.
      hand[:press].call(self, name_row(region))
      open_panel(hand, "Clip")
      press_on(hand, page.find("aside button, .sheet button", text: "Separate", match: :first))
      eventually(id) { snapshot(id).song.directory.regions_of_clip(first_region.clip_id).size == 1 }
      embed(hand, swept, "Embed Amount in Mooring 2")
      show_parameter("Rope Bass", swept)
      close_sheet(hand)
      move = envelope(swept).id
      hand[:press].call(self, on_line(move, 250))
      eventually(id) { envelope(swept).points.size == 2 }
      hand[:drag].call(self, middle("point-#{move}-1"), 0, -40)
      eventually(id) { envelope(swept).points[1].value > envelope(swept).points[0].value + 0.2 }

      # Eight bars, over which the sweep runs once.
      open_panel(hand, "Clip")
      page.find_field("End").set("13.1")
      press_keys(:Enter)
      eventually(id) { first_region.end_tick == 12 * BAR }
      at_hand("Value", hand)
      at_hand("Envelope", hand)
      press_button(hand, "once, over all")
      song = eventually(id) { |now| envelope(swept, now).clock == "once" }

      # Split in the middle: no difference.
      before = curves(song)
      hand[:press].call(self, [bar_x_in(hand, 6), middle("ruler")[1] - 6])
      open_panel(hand, "Clip")
      press_on(hand, page.find("aside button, .sheet button", text: "Split", match: :first))
      song = eventually(id) { |now| now.track("rope-bass").regions[1].clip_id == first_region.clip_id }
      expect(alike?(song, before)).to be true

      # A gate of seven beats.
      embed(hand, gated, "Embed Volume in Mooring 2")
      show_parameter("Rope Bass", gated)
      at_hand("Value", hand)
      at_hand("Envelope", hand)
      press_button(hand, "own length")
      page.find_field("Own length").set("7")
      press_keys(:Enter)
      eventually(id) { envelope(gated).clock == "own_length" && envelope(gated).own_length_ticks == 7 * 960 }
      expect(page).to have_css("[data-testid='meeting']", text: "after 56 beats")

      # A swell on the lane of the cutoff.
      show_parameter("Rope Bass", cutoff)
      count = lane.points.size
      close_sheet(hand)
      x = bar_of_lane(hand)
      hand[:press].call(self, on_line(lane.id, x))
      eventually(id) { lane.points.size == count + 1 }
      added = lane.points.index { |point| point.tick.between?(4 * BAR, (8 * BAR) - 1) && point.tick % (4 * BAR) != 0 }
      hand[:drag].call(self, middle("point-#{lane.id}-#{added}"), 0, -14)
      eventually(id) { lane.points[added].value > lane.points[added - 1].value + 0.02 }

      # Why the cutoff is what it is at bar 6.
      page.execute_script("document.querySelector('[data-testid=table]').scrollTop = 0")
      hand[:press].call(self, [bar_x_in(hand, 6), middle("ruler")[1] - 6])
      at_hand("Value", hand)
      expect(page).to have_css("[data-testid='at-hand']", text: /Cutoff of Rope Bass.*heard at 6\.1\.0/m)
      told = page.find("[data-testid='sum-heard']").text
      expect(told).to eq snapshot(id).song.parameter(address(cutoff)).text(heard(snapshot(id).song, cutoff, 5 * BAR))
      expect(told("[data-testid='sum'] li").join(" ")).to match(/knob.*lane.*clip Mooring 2.*heard/m)

      # All of it laid out on the track, and back.
      laid_from = snapshot(id).song
      open_panel(hand, "Track")
      press_button(hand, "Lay all clip moves out")
      press_button(hand, "Go on") if page.has_button?("Go on", wait: 1)
      song = eventually(id) { |now| now.track("rope-bass").regions.all? { |one| now.clip(one.clip_id).envelopes.none?(&:acts?) } }
      expect(alike?(song, curves(laid_from), within: 0.002)).to be true
      expect(page).to have_css(".notice", text: /nothing heard changes|largest difference/)
      press_on(hand, page.find("button[aria-label^='Undo: lay']"))
      eventually(id) { |now| json_of(now) == json_of(laid_from) }
    end
  end

  # A place across that lies in bars 5 to 8 and in view.
  def bar_of_lane(hand) = bar_x_in(hand, 6) + 20
  def bar_x_in(hand, bar) = bar_x(bar) - (hand[:size] == :phone ? 64 : 0)
end
