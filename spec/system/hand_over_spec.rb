# frozen_string_literal: true

require "open3"
require "zip"

# Handing the demo over: made to fit another studio, with what that loses, and brought back in; sounds of it, and a way to call it off.
RSpec.describe "Handing over" do
  include Hands

  before { Server.workspaces.clear(0) }

  let(:id) { plant }

  def tick_box(hand, words)
    box = page.find("label", text: words, match: :prefer_exact)
    press_on(hand, box)
    expect(page).to have_css("label", text: words) { |label| label.find("input").checked? }
  end

  # The file behind the link, once it is ready.
  def saved
    link = page.find("a[download]", wait: 90)
    bytes = page.evaluate_async_script(<<~JS, link[:href])
      const [path, done] = arguments;
      fetch(path).then((answer) => answer.arrayBuffer()).then((buffer) => {
        let text = ""; for (const byte of new Uint8Array(buffer)) text += String.fromCharCode(byte);
        done(btoa(text));
      });
    JS
    bytes.unpack1("m")
  end

  def entries(zip) = Zip::File.open_buffer(zip).entries.to_h { |entry| [entry.name, entry.get_input_stream.read] }

  Hands::ALL.each do |name, hand|
    it "to a studio of lanes, straight lines and seven bits, by #{name}: what is lost is read, and the file comes back in", :long do
      open_song(id, size: hand[:size])
      feel_for(name)
      open_panel(hand, "Hand over")
      page.find("select[aria-label='What the other side can do']").select("Lanes of tracks, straight, 7 bits")
      expect(page).to have_css("[aria-label='What is lost'] li", text: /Cutoff of Mono synth on Rope Bass.*\d+ points, at most \d+ Hz off/m)
      press_on(hand, page.find("[aria-label='What is lost'] button", text: "Cutoff of Mono synth on Rope Bass"))
      expect(page).to have_css("[aria-label='Cutoff of Mono synth on Rope Bass as it is heard, and made to fit'] polyline", count: 2, visible: :all)
      tick_box(hand, "The song made to fit (JSON)")
      press_button(hand, "Hand over")
      files = entries(saved)
      expect(files.keys).to contain_exactly("README.txt", "low-tide-market.mid", "low-tide-market-baked.satchel.json")
      back = post_json("/api/songs/import", JSON.parse(files["low-tide-market-baked.satchel.json"]))["id"]
      limits = KindSatchel::HandOver::Limits.new(lanes_only: true, no_carriers: true, set_only: true, straight: true, bits: 7)
      expect(snapshot(back).song).to eq KindSatchel::HandOver::Bake.new(snapshot(id).song, limits).call.song
      expect(get_json("/api/songs/#{id}/hand_over")["choices"]).to include("baked" => true, "limits" => include("bits" => 7))
    end
  end

  it "says where two controllers clash, keeps the table, and hands out what was chosen last", :long do
    open_song(id)
    open_panel(Hands::ALL[:mouse], "Hand over")
    press_button(Hands::ALL[:mouse], "Controllers …")
    fill_in("Controller of Resonance of Mono synth on Rope Bass", with: "74")
    page.find("[aria-label='Controller of Resonance of Mono synth on Rope Bass']").send_keys(:enter)
    expect(page).to have_css("[role=alert]", text: "both go out by controller 74")
    fill_in("Controller of Resonance of Mono synth on Rope Bass", with: "21")
    page.find("[aria-label='Controller of Resonance of Mono synth on Rope Bass']").send_keys(:enter)
    expect(page).to have_no_css("[role=alert]")
    expect(get_json("/api/songs/#{id}/hand_over")["controllers"].find { |row| row["name"] == "Resonance of Mono synth on Rope Bass" }["number"]).to eq 21
  end

  it "as sound: the range at 16 bits, as long as it says, measured as ffmpeg measures it; called off, or its page left, with nothing of it left", :long do
    Server.edit_log.edit(id, revision(id), "set_range", { "on" => true, "start_tick" => 8 * BAR, "end_tick" => 10 * BAR })
    open_song(id)
    open_panel(Hands::ALL[:mouse], "Hand over")
    tick_box(Hands::ALL[:mouse], "The song as one sound (WAV)")
    page.find("[aria-label='Samples a second']").select("44.1 kHz")
    page.find("[aria-label='Bits of a sample']").select("16 bits")
    tick_box(Hands::ALL[:mouse], "Just the range, of song, MIDI and table")
    tick_box(Hands::ALL[:mouse], "Each clip as a loop, with its moves")
    press_button(Hands::ALL[:mouse], "Hand over")
    press_on(Hands::ALL[:mouse], page.find(:button, "Cancel", exact: true))
    expect(page).to have_css("[role=alert]", text: "Called off; nothing of it is left.")
    expect(Dir[File.join("#{Database.path}-hand-overs", "*")]).to eq []
    press_button(Hands::ALL[:mouse], "Hand over")
    left = -> { Dir[File.join("#{Database.path}-hand-overs", "*")] }
    expect(watch(left, ->(seen) { seen.last&.any? })).to be true
    visit "/"
    expect(watch(left, ->(seen) { seen.last == [] })).to be true
    open_song(id)
    open_panel(Hands::ALL[:mouse], "Hand over")
    tick_box(Hands::ALL[:mouse], "Just the range, of song, MIDI and table")
    press_on(Hands::ALL[:mouse], page.find("label", text: "Each clip as a loop, with its moves"))
    press_button(Hands::ALL[:mouse], "Hand over")
    wav = entries(saved).fetch("low-tide-market.wav")
    path = File.join(Dir.mktmpdir, "mix.wav")
    File.binwrite(path, wav)
    told, = Open3.capture2e("sox", "--i", path)
    expect(told).to include("Channels       : 2", "Sample Rate    : 44100", "Precision      : 16-bit")
    seconds = Open3.capture2("soxi", "-D", path)[0].to_f
    expect(seconds).to be_between(4 * 2 * 60 / 92.0, (4 * 2 * 60 / 92.0) + 12)
    measured = page.all("table tbody tr").map { |row| row.all("td").map(&:text) }.first.drop(1).map(&:to_f)
    ebu = Open3.capture2e("ffmpeg", "-nostats", "-hide_banner", "-i", path, "-af", "ebur128=peak=true", "-f", "null", "-")[0]
    peak = Open3.capture2e("sox", path, "-n", "stats")[0][/Pk lev dB\s+(-?[\d.]+)/, 1].to_f
    expect(measured[0]).to be_within(0.1).of(peak)
    expect(measured[2]).to be_within(0.15).of(ebu[/Summary.*?I:\s+(-[\d.]+) LUFS/m, 1].to_f)
  end
end
