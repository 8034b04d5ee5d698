# frozen_string_literal: true

# From the song a new one starts with to tracks, sounds and effects of one's own, as a new user would go: by mouse, and by finger
# on a phone.
RSpec.describe "From a new song to one's own tracks and sounds" do
  include Hands

  let(:swept) { "clip-line/phaser/centre" }
  let(:gated) { "bass/channel/volume" }

  attr_reader :id

  def song = snapshot(id).song
  def named(name) = song.tracks.find { |track| track.name == name }
  def chain(name) = named(name).devices.map(&:type)
  def envelope(text) = song.clip("line").envelopes.find { |one| one.target.to_s == text }

  # Draws a move of two points, the second higher or lower by some pixels.
  def draw(hand, text, dy)
    id = eventually(self.id) { envelope(text) } && envelope(text).id
    close_sheet(hand)
    start = middle("point-#{id}-0")[0]
    hand[:press].call(self, on_line(id, start + 60))
    eventually(self.id) { envelope(text).points.size == 2 }
    hand[:drag].call(self, middle("point-#{id}-1"), 0, dy)
    eventually(self.id) { (envelope(text).points[1].value - envelope(text).points[0].value).abs > 0.15 }
  end

  Hands::ALL.each do |name, hand|
    it "goes by #{name}", :long do
      Capybara.current_driver = hand[:size]
      visit "/"
      feel_for(name)
      press_on(hand, page.find(:button, "New song"))
      expect(page).to have_css("[data-testid='ruler']")
      @id = page.current_path[/\d+/].to_i

      # A drum track, a bass from a preset, a return.
      from_menu(hand, "Add a track", "Drum kit")
      eventually(id) { named("Drum kit") }
      from_menu(hand, "Add a track", "Bass with a bite")
      eventually(id) { named("Bass with a bite")&.device("drive") }
      from_menu(hand, "Add a track", "Return")
      made = eventually(id) { named("Return") } && named("Return")
      expect(song.parameter?(address("bass/channel/send-#{made.id}"))).not_to be_nil

      # A filter and an equaliser; the filter before the drive.
      press_on(hand, page.find(:button, "Bass", exact: true))
      at_foot(hand, "Knobs") do
        from_menu(hand, "Add a device", "Filter")
        eventually(id) { chain("Bass") == %w[mono-synth drive filter channel] }
        from_menu(hand, "Add a device", "Equaliser")
        eventually(id) { chain("Bass") == %w[mono-synth drive filter equaliser channel] }
        from_menu(hand, "Filter of Bass", "Earlier in the chain")
        eventually(id) { chain("Bass") == %w[mono-synth filter drive equaliser channel] }
      end

      # An effect of the clip's own, its sweep embedded.
      region = named("Bass").regions.first.id
      page.execute_script("document.querySelector('[data-testid=table]').scrollTop = 0")
      hand[:press].call(self, name_row(region))
      at_foot(hand, "Knobs") do
        from_menu(hand, "Add an effect to Line", "Phaser")
        eventually(id) { song.clip("line").devices.map(&:type) == ["phaser"] }
        show_knob(swept)
        press_on(hand, page.find("[data-testid='knob-#{swept}'] [aria-label='Embed Centre in Line']"))
        eventually(id) { envelope(swept) }
      end
      draw(hand, swept, -30)

      # A copy of it: the sweep is heard there too.
      open_panel(hand, "Clip")
      press_on(hand, page.find(:button, "Duplicate", exact: true))
      eventually(id) { named("Bass").regions.size == 2 }
      second = named("Bass").regions[1]
      clip = song.clip(second.clip_id)
      own = "clip-#{clip.id}/phaser/centre"
      expect(heard(song, own, second.start_tick + 2000)).to be_within(1e-9).of(heard(song, swept, 2000)) if clip.id == "line"
      expect(clip.devices.map(&:type)).to eq ["phaser"]
      close_sheet(hand)

      # The fader follows in the mixer.
      hand[:press].call(self, name_row(region))
      at_foot(hand, "Knobs") do
        show_knob(gated)
        press_on(hand, page.find("[data-testid='knob-#{gated}'] [aria-label='Embed Volume in Line']"))
      end
      draw(hand, gated, 40)
      press_on(hand, page.find(:button, "Mixer", match: :first)) if name == :mouse
      open_panel(hand, "Mixer") if name == :finger
      press_on(hand, page.find("[aria-label='Play']"))
      place = -> { page.evaluate_script("document.querySelector('[data-testid=\"slide-#{gated}\"] .slide-face').style.getPropertyValue('--at')") }
      expect(watch(place, ->(seen) { seen.compact.uniq.size > 3 })).to be true
      press_on(hand, page.find("[aria-label='Stop']"))
    end
  end
end
