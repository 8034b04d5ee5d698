# frozen_string_literal: true

# An envelope as an LFO, in the panel that says what moves a knob: by mouse, keys and finger.
RSpec.describe "An LFO in a clip" do
  include Hands

  let(:id) { plant }

  def move = snapshot(id).song.clip("mooring").envelopes.find { |one| one.target.parameter_id == "cutoff" }
  def corners = told("[data-testid='heard-rope-bass/synth/cutoff'] path", "d")

  def make_one(hand)
    open_song(id, size: hand[:size])
    feel_for(:finger) if hand[:size] == :phone
    at_hand("Value", hand)
    press_on(hand, page.find("[data-testid='sum'] button", text: "clip Mooring"))
    expect(page).to have_css("[aria-label='Envelope'] h3", text: "Cutoff in Mooring")
    press_on(hand, page.find("[aria-label='Where its values come from'] button", text: "LFO"))
    eventually(id) { move.lfo? }
  end

  def typed(label, text)
    page.find("input[aria-label='#{label}'], [aria-label='#{label}'] input", match: :first).send_keys([:control, "a"], text, :enter)
  end

  Hands::ALL.each do |name, hand|
    it "is made of a drawn move by #{name}, goes as fast as is typed, in every copy of the clip, and comes back by undo", long: name == :finger do
      before = move
      make_one(hand)
      expect(move.depth).to eq 0.25
      typed("A cycle lasts", "1/8 triplet")
      eventually(id) { move.source.cycle_ticks == 320 }
      # The steps above may need another line for it.
      expect(page).to have_css("[data-testid='sum']", text: "sine, 1/8 triplet")
      press_button(hand, "square")
      eventually(id) { move.source.wave == "square" }
      expect(page).to have_css("[data-testid='sum']", text: "square, 1/8 triplet")
      press_on(hand, page.find("button[aria-label='Twice as fast']"))
      eventually(id) { move.source.cycle_ticks == 160 }
      typed("High", "+30 %")
      eventually(id) { move.limits == [-1.0, 0.3] }
      # Both regions of the clip do it.
      starts = snapshot(id).song.directory.regions_of_clip("mooring").map { |placed| placed.region.start_tick }.first(2)
      cutoff = KindSatchel::Heard::Resolver.new(snapshot(id).song, KindSatchel::Address.parse("rope-bass/synth/cutoff"))
      shapes = starts.map { |start| cutoff.amounts.spans(start, start + 640)["shift"].map { |span| [span.from - start, span.at(span.from)] } }
      expect(shapes[0]).to eq(shapes[1]).and have_attributes(size: 8)
      5.times { Server.edit_log.undo(id, revision(id)) }
      expect(move).to eq before
    end

    if name == :mouse
      it "shows the limits of a move that has none, and a first key on each changes it by one step" do
        open_song(id)
        at_hand("Value", hand)
        press_on(hand, page.find("[data-testid='sum'] button", text: "clip Mooring"))
        { "low" => [-1.0, :up, 0.02], "high" => [1.0, :down, -0.02] }.each do |limit, (start, key, step)|
          knob = page.find("[aria-label='Settings of the move'] [role='slider'][aria-label*='#{limit}']")
          expect([knob["aria-valuenow"].to_f, knob["aria-valuetext"]]).to eq [limit == "low" ? 0.0 : 1.0, limit == "low" ? "-100 %" : "+100 %"]
          knob.native.node.focus
          page.driver.browser.keyboard.type(key)
          eventually(id) { move.limits[limit == "low" ? 0 : 1] != start }
          expect(move.limits[limit == "low" ? 0 : 1]).to be_within(1e-9).of(start + step)
        end
      end
    end

    it "runs between two lines that are dragged by #{name}; points stay on the curve", long: name == :finger do
      open_song(id, size: hand[:size])
      feel_for(name)
      edit(id, "set_limits", { envelope_id: move.id, low: -0.5, high: 0.5 })
      line = "[data-testid='high-#{move.id}']"
      expect(page).to have_css(line, minimum: 1)
      point = -> { page.find("[data-testid='point-#{move.id}-0']", match: :first).native.node.find_position }
      before = point.call
      x, y = page.evaluate_script(<<~JS)
        (() => { const box = document.querySelector("#{line}").getBoundingClientRect();
                 return [box.left + 14, box.top + box.height / 2]; })()
      JS
      hand[:drag].call(self, [x, y], 0, -12)
      eventually(id) { move.limits[1] > 0.55 }
      expect(move.limits[0]).to eq(-0.5)
      expect(watch(point, ->(seen) { seen.last != before })).to be true
    end
  end

  Hands::ALL.to_a.reverse.each do |name, hand|
    it "has its rate moved beside it in the clip by #{name}, so that every copy does it too, and says why it is as it is", :long do
      make_one(hand)
      typed("A cycle lasts", "1/8")
      eventually(id) { move.source.cycle_ticks == 480 }
      from_menu(hand, "Let something move the Cutoff: rate", "In Mooring")
      eventually(id) { snapshot(id).song.directory.movers(setting).any? }
      close_sheet(hand)
      point = "[data-testid='point-#{mover.id}-0']"
      expect(page).to have_css(point, minimum: 1)
      hand[:drag].call(self, place_of(page.find(point, match: :first)), 0, -14)
      eventually(id) { mover.points[0].value > 0.66 }
      at_hand("Value", hand)
      expect(page).to have_css("[data-testid='at-hand'] h2", text: "Rate of Cutoff in Mooring")
      press_on(hand, page.find("[data-testid='sum'] button", text: "Cutoff in Mooring", match: :first))
      press_on(hand, page.find("[aria-label='Made with'] button", text: "rate"))
      expect(page).to have_css("[data-testid='sum']", text: "clip Mooring")
      starts = snapshot(id).song.directory.regions_of_clip("mooring").map { |placed| placed.region.start_tick }.first(2)
      cutoff = KindSatchel::Heard::Resolver.new(snapshot(id).song, KindSatchel::Address.parse("rope-bass/synth/cutoff"))
      edges = starts.map { |start| cutoff.amounts.spans(start, start + 1920)["shift"].map { |arc| (arc.from - start).round(4) } }
      expect(edges[0]).to eq edges[1]
      expect(edges[0].size).to be > 8
    end
  end

  def setting = KindSatchel::Address.setting(move.id, "rate")
  def mover = snapshot(id).song.directory.movers(setting)[0][1]

  it "is drawn by its bounds while a hand tries what would take long, and says so until it lets go", :long do
    lane = ->(target) { snapshot(id).song.tracks.flat_map(&:lanes).find { |one| one.target.to_s == target }.id }
    edit(id, "set_lfo", { envelope_id: move.id, wave: "sine", cycle_ticks: 320 })
    2.times.inject(move.id) do |moved, _|
      edit(id, "add_lane", { address: "move/#{moved}/rate" })
      lane.call("move/#{moved}/rate").tap { |mover| edit(id, "set_lfo", { envelope_id: mover, wave: "sine", cycle_ticks: 480 }) }
    end
    open_song(id)
    at_hand("Value")
    press_on(Hands::ALL[:mouse], page.find("[data-testid='sum'] button", text: "clip Mooring"))
    slider = page.find("[data-testid='knob-move/#{move.id}/depth'] [role=slider]")
    page.execute_script("arguments[0].scrollIntoView({ block: 'center' })", slider)
    x, y = place_of(slider)
    mouse.move(x:, y:).down
    8.times { |i| mouse.move(x:, y: y + (2 * i)) }
    expect(page).to have_css("[role=status]", text: "its bounds, until you let go", wait: 10)
    mouse.up
    expect(page).to have_no_css("[role=status]", text: "its bounds, until you let go")
    eventually(id) { move.depth < 0.25 }
  end

  it "is seen while a slider moves, says what is wrong with a rate, and turns into points to draw on", :long do
    make_one(Hands::ALL[:mouse])
    drawn = corners
    before = move.depth
    page.find("[data-testid='knob-move/#{move.id}/depth'] [role=slider]").send_keys(*([:up] * 3))
    eventually(id) { (move.depth - before - 0.03).abs < 0.001 }
    expect(watch(-> { corners }, ->(seen) { seen.last != drawn })).to be true
    typed("A cycle lasts", "quick")
    expect(page).to have_css("[role=alert]", text: '"quick" is not a length; write it like 1/8')
    expect(move.source.cycle_ticks).to eq 960
    click_on "random"
    eventually(id) { move.source.wave == "random" }
    click_on "Others"
    eventually(id) { move.source.seed != 1 }
    within("[aria-label='Where its values come from']") { click_on "points" }
    eventually(id) { !move.lfo? && move.points.size > 4 }
    expect(page).to have_css("[role=status]", text: "turn the LFO of Cutoff into points")
    press_keys([:control, "z"])
    eventually(id) { move.lfo? }
  end
end
