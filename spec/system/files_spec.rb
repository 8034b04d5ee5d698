# frozen_string_literal: true

require "open3"
require "tmpdir"

# Files of one's own: taken in, placed, set right.
RSpec.describe "Files in the studio" do
  let(:id) { plant(StarterSong.build("Mine")) }
  let(:folder) { Dir.mktmpdir }

  after { FileUtils.rm_rf(folder) }

  # A loop of clicks, made by sox: four beats of half a second.
  def loop_file(name = "quay clicks.wav")
    path = File.join(folder, name)
    beat = ["synth", "0.05", "sine", "900", "pad", "0", "0.45"]
    out, status = Open3.capture2e("sox", "-n", "-r", "44100", "-b", "24", path, *beat, "repeat", "3")
    status.success? ? path : raise(out)
  end

  def song = standing(id).song
  def clip = song.clips.values.find { |one| one.kind == "audio" }

  # Lets go of a file over a place of the page, as a hand does that drags it in.
  def drop_file(path, test_id)
    page.execute_script(<<~JS, File.basename(path), [File.binread(path)].pack("m0"))
      const [name, text] = arguments;
      const bytes = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
      const carried = new DataTransfer();
      carried.items.add(new File([bytes], name, { type: "audio/wav" }));
      const box = document.querySelector('[data-testid="#{test_id}"]').getBoundingClientRect();
      const [clientX, clientY] = [box.x + 400, box.y + 300];
      for (const type of ["dragover", "drop"])
        document.elementFromPoint(clientX, clientY)
          .dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer: carried, clientX, clientY }));
    JS
  end

  before do
    page.visit("/songs/#{id}")
    expect(page).to have_css("[data-testid='ruler']")
  end

  it "shows how far a long file is, and calls it off: nothing is stored" do
    page.driver.browser.page.command("Network.enable")
    page.driver.browser.page.command("Network.emulateNetworkConditions", offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: 20_000)
    drop_file(loop_file("long clicks.wav"), "table")
    expect(page).to have_css("[aria-label='Files on their way']", text: "long clicks")
    within("[aria-label='Files on their way']") { click_on "Cancel" }
    expect(page).to have_css("[role=alert]", text: "Called off")
    expect(page).to have_no_css("[aria-label='Files on their way']")
    expect([clip, SoundRow.where(name: "long clicks").count]).to eq [nil, 0]
  end

  it "places a file that is dropped on the song, guesses how many beats it has, and lets one set them right" do
    drop_file(loop_file, "table")
    eventually(id) { clip }
    expect([clip.name, clip.length_ticks, clip.audio.bpm]).to match ["quay clicks", be_within(8).of(BAR), be_within(0.5).of(120)]
    track = song.directory.regions_of_clip(clip.id).first.track
    expect(track.kind).to eq "audio"
    region = track.regions.first.id
    expect(page).to have_css("[data-testid='#{region}']")
    mouse.click(x: name_row(region)[0], y: name_row(region)[1])
    show_panel("Clip")
    click_on "Twice the beats"
    eventually(id) { clip.audio.bpm.round == 240 && song.track(track.id).regions.first.length_ticks.between?((2 * BAR) - 16, (2 * BAR) + 16) }
    type_into "Beats", "4"
    eventually(id) { clip.audio.bpm.round == 120 }
    click_on "Play"
    expect(sounds?).to be true
    click_on "Stop"
  end

  it "says what is wrong with a file that is no sound, and takes nothing in" do
    path = File.join(folder, "notes.wav")
    File.write(path, "RIFF....WAVEthis is a shopping list")
    drop_file(path, "table")
    expect(page).to have_css(".notice", text: "notes.wav: This is no WAV file that can be read.")
    expect(clip).to be_nil
  end

  it "places a sound that is there already, from the list" do
    page.find("[aria-label='Add a track']").click
    page.find("[role=menuitem]", text: "A sound …", match: :prefer_exact).click
    page.find(".preset", text: "Gull loop").click
    eventually(id) { clip&.audio&.sound == "gull-loop" }
    expect(clip.audio.bpm).to be_within(0.5).of(92)
  end
end
