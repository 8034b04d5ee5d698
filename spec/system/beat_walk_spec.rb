# frozen_string_literal: true

require "open3"
require "tmpdir"

# From an empty song to a beat of one's own with a move in it, as a new user would go: by mouse, and by finger on a phone.
RSpec.describe "From an empty song to a beat of one's own" do
  include Hands

  attr_reader :id

  let(:folder) { Dir.mktmpdir }

  after { FileUtils.rm_rf(folder) }

  def song = snapshot(id).song
  def named(name) = song.tracks.find { |track| track.name == name }
  def clip_of(name) = song.clip(named(name).regions.first.clip_id)

  # Eight beats at 120 BPM, written by sox.
  def loop_file
    path = File.join(folder, "market.wav")
    out, status = Open3.capture2e("sox", "-n", "-r", "48000", "-c", "2", path, "synth", "0.06", "pinknoise", "pad", "0", "0.44", "repeat", "7")
    status.success? ? path : raise(out)
  end

  # An empty clip of a bar on a track, with some notes drawn in it.
  def draw_clip(hand, name, count)
    press_on(hand, page.find(:button, name, exact: true))
    open_panel(hand, "Clip")
    hand[:press].call(self, [5, 5]) if page.has_no_button?("New clip on #{name}", wait: 1)
    press_on(hand, page.find(:button, "New clip on #{name}"))
    eventually(id) { named(name).regions.size == 1 }
    close_sheet(hand)
    strip = "notes-#{clip_of(name).id}"
    page.execute_script("arguments[0].scrollIntoView({ block: 'center' })", page.find("[data-testid='#{strip}']", visible: :all))
    sleep 0.2
    x, y = middle(strip)
    count.times do |i|
      hand[:press].call(self, [x - 40 + (i * 26), y - 20])
      eventually(id) { clip_of(name).notes.size == i + 1 }
    end
  end

  Hands::ALL.each do |name, hand|
    it "goes by #{name}", :long do
      Capybara.current_driver = hand[:size]
      visit "/"
      feel_for(name)
      press_on(hand, page.find(:button, "Empty song"))
      expect(page).to have_css("[role=note]", text: "Drop a sound here, or add a track")
      @id = page.current_path[/\d+/].to_i

      # A loop from a file; it has eight beats.
      from_menu(hand, "Add a track", "A sound …")
      attach_file("Add a sound from a file", loop_file, make_visible: true)
      eventually(id) { named("market") }
      expect(clip_of("market").length_ticks).to be_within(20).of(8 * 960)
      hand[:press].call(self, name_row(named("market").regions.first.id))
      open_panel(hand, "Clip")
      press_on(hand, page.find(:button, "Twice the beats"))
      eventually(id) { clip_of("market").audio.bpm.round == 240 }
      press_on(hand, page.find(:button, "Half the beats"))
      eventually(id) { clip_of("market").audio.bpm.round == 120 }
      close_sheet(hand)

      # Drums, and a bass from a preset.
      from_menu(hand, "Add a track", "Drum kit")
      eventually(id) { named("Drum kit") }
      done_naming(hand)
      draw_clip(hand, "Drum kit", 3)
      from_menu(hand, "Add a track", "Bass with a bite")
      eventually(id) { named("Bass with a bite")&.device("drive") }
      done_naming(hand)
      draw_clip(hand, "Bass with a bite", 2)

      # A filter, its sweep in the clip, and the clip once more.
      at_foot(hand, "Knobs") do
        from_menu(hand, "Add a device", "Filter")
        eventually(id) { named("Bass with a bite").devices.map(&:id).include?("filter") }
        press_on(hand, page.find("[data-testid='knob-#{named('Bass with a bite').id}/filter/cutoff'] [aria-label^='Embed Cutoff in']"))
        eventually(id) { clip_of("Bass with a bite").envelopes.size == 1 }
      end
      press_on(hand, page.find("[data-testid='strip-switch-#{named('Bass with a bite').id}']"))
      move = clip_of("Bass with a bite").envelopes.first.id
      hand[:press].call(self, on_line(move, middle("point-#{move}-0")[0] + 60))
      eventually(id) { clip_of("Bass with a bite").envelopes.first.points.size == 2 }
      hand[:drag].call(self, middle("point-#{move}-1"), 0, 40)
      eventually(id) { clip_of("Bass with a bite").envelopes.first.points.then { |points| points[1].value < points[0].value - 0.1 } }
      open_panel(hand, "Clip")
      press_on(hand, page.find(:button, "Duplicate", exact: true))
      eventually(id) { named("Bass with a bite").regions.size == 2 }
      close_sheet(hand)
      press_on(hand, page.find("[aria-label='Play']"))
      expect(sounds?).to be true if name == :mouse
      press_on(hand, page.find("[aria-label='Stop']"))
    end
  end
end
