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

  def table = "[data-testid='table']"
  def song = snapshot(id).song
  def clip = song.clips.values.find { |one| one.kind == "audio" }

  # Lets go of a file over a place of the page, as a hand does that drags it in.
  def drop_file(path, place, dx: 400, dy: 300)
    page.execute_script(<<~JS, File.basename(path), [File.binread(path)].pack("m0"))
      const [name, text] = arguments;
      const bytes = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
      const carried = new DataTransfer();
      carried.items.add(new File([bytes], name, { type: "audio/wav" }));
      const box = document.querySelector(`#{place}`).getBoundingClientRect();
      const [clientX, clientY] = [box.x + #{dx}, box.y + #{dy}];
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
    drop_file(loop_file("long clicks.wav"), table)
    expect(page).to have_css("[aria-label='Files on their way']", text: "long clicks")
    within("[aria-label='Files on their way']") { click_on "Cancel" }
    expect(page).to have_css("[role=alert]", text: "Called off")
    expect(page).to have_no_css("[aria-label='Files on their way']")
    expect([clip, SoundRow.where(name: "long clicks").count]).to eq [nil, 0]
  end

  it "places a file that is dropped on the song, guesses how many beats it has, and lets one set them right" do
    drop_file(loop_file, table)
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
    drop_file(path, table)
    expect(page).to have_css(".notice", text: "notes.wav: This is no WAV file that can be read.")
    expect(clip).to be_nil
  end

  it "takes what the browser can decode, and knows before it does that a sound is too long" do
    tone, long = %w[tone.flac long.flac].map { |name| File.join(folder, name) }
    system("sox", "-n", "-r", "22050", tone, "synth", "2", "sine", "200", exception: true)
    system("sox", "-n", "-r", "8000", long, "trim", "0", (21 * 60).to_s, exception: true)
    drop_file(long, table)
    expect(page).to have_css(".notice", text: "long.flac: The sound lasts 21 minutes; at most 20 are taken.")
    drop_file(tone, table)
    eventually(id) { clip }
    expect([clip.name, SoundRow.find_by(name: "tone").seconds]).to match ["tone", be_within(0.01).of(2)]
  end

  it "places a sound that is there already, from the list" do
    page.find("[aria-label='Add a track']").click
    page.find("[role=menuitem]", text: "A sound …", match: :prefer_exact).click
    page.find(".preset", text: "Gull loop").click
    eventually(id) { clip&.audio&.sound == "gull-loop" }
    expect(clip.audio.bpm).to be_within(0.5).of(92)
  end

  it "gives a clip the sound that is dropped on its panel, keeps its pitch and turns it round" do
    drop_file(loop_file, table)
    eventually(id) { clip }
    region = song.directory.regions_of_clip(clip.id).first.region.id
    mouse.click(x: name_row(region)[0], y: name_row(region)[1])
    show_panel("Clip")
    before = clip.audio.sound
    drop_file(loop_file("other clicks.wav").tap { |path| system("sox", path, "#{path}.wav", "repeat", "1") && FileUtils.mv("#{path}.wav", path) },
              "section[aria-label='Clip quay clicks']", dx: 60, dy: 60)
    eventually(id) { clip.audio.sound != before && clip.length_ticks.between?((2 * BAR) - 16, (2 * BAR) + 16) }
    click_on "Keep the pitch"
    click_on "Backwards"
    eventually(id) { clip.audio.stretched && clip.audio.backwards }
    type_into "Tempo", "97"
    click_on "Play"
    expect(sounds?).to be true
    click_on "Stop"
    press_keys(*[[:control, "z"]] * 4)
    eventually(id) { clip.audio.sound == before }
  end

  it "takes the tracks of a MIDI file in where it is dropped, with the controllers the table names" do
    path = File.join(folder, "tide.mid")
    script = "import mido\nm=mido.MidiFile(ticks_per_beat=480)\nt=mido.MidiTrack();m.tracks.append(t)\n" \
             "t.append(mido.MetaMessage('track_name',name='Low rope'))\n" \
             "for i in range(8): t.append(mido.Message('control_change',control=1,value=i*16,time=60))\n" \
             "t.append(mido.Message('note_on',note=40,velocity=90));t.append(mido.Message('note_off',note=40,time=240))\nm.save('#{path}')"
    expect(system("/usr/bin/python3", "-c", script)).to be true
    page.find("[aria-label='Add a track']").click
    page.find("[role=menuitem]", text: "What MIDI controllers move").click
    page.find("[aria-label='Number of a controller']").set("1")
    click_on "Add this controller"
    page.find("[aria-label='What controller 1 moves']").select("Cutoff")
    page.find("[role=dialog]").click_on "Close"
    drop_file(path, table, dx: 200 + (2 * BAR * 0.027).round)
    made = eventually(id) { |now| now.tracks.find { |one| one.name == "Low rope" } }.tracks.find { |one| one.name == "Low rope" }
    moves = song.clip(made.regions.first.clip_id).envelopes
    expect([song.meters.bar_at(made.regions.first.start_tick), moves.map { |one| one.target.parameter_id }]).to eq [3, ["cutoff"]]
    press_keys([:control, "z"])
    eventually(id) { |now| now.tracks.none? { |one| one.name == "Low rope" } }
  end

  it "carries a clip that was copied in another song to the playhead, on the track at hand, moves and all", :long do
    other = plant
    open_song(other)
    page.find_button("Rope Bass", exact: true).click
    bass = snapshot(other).song.track("rope-bass").regions.find { |one| page.has_css?("[data-testid='#{one.id}']", wait: 0) }
    mouse.click(x: name_row(bass.id)[0], y: name_row(bass.id)[1])
    press_keys([:control, "c"])
    expect(page).to have_css(".notice", text: "in another song")
    page.visit("/songs/#{id}")
    target = song.tracks.find { |one| one.devices.any? { |device| device.type == "mono-synth" } }
    page.find_button(target.name, exact: true).click
    press_keys([:control, "v"])
    eventually(id) { |now| now.clips.values.any? { |one| one.name == "Mooring" && one.envelopes.any?(&:on) } }
  end
end
