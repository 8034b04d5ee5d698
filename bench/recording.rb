# frozen_string_literal: true

require "capybara"
require "capybara/cuprite"

# How far notes that are played in lie from where they were heard. An ear beside the loudspeaker hears each click of the beat and has
# the simulated keyboard press a key at the moment that click is heard; what is recorded is held against the beats.
class Recording
  BEATS = 40
  # Hears where a click begins, to the sample, and presses a key when the loudspeaker gives it.
  EAR = <<~JS
    const source = `registerProcessor("ear", class extends AudioWorkletProcessor {
      quiet = 0;
      process([[samples]]) {
        if (samples) for (let i = 0; i < samples.length; i++) {
          if (Math.abs(samples[i]) < 0.02) this.quiet++;
          else { if (this.quiet > 4800) this.port.postMessage(currentTime + i / sampleRate); this.quiet = 0; }
        }
        return true;
      }
    })`;
    const url = URL.createObjectURL(new Blob([source], { type: "text/javascript" }));
    window.heard = 0;
    const send = (bytes, at) => dispatchEvent(new CustomEvent("satchel-keyboard", { detail: { bytes, at } }));
    const connect = AudioNode.prototype.connect;
    AudioNode.prototype.connect = function (to, ...more) {
      const { context } = this;
      if (to instanceof AudioDestinationNode && context instanceof AudioContext && !this.taken) {
        this.taken = true;
        context.audioWorklet.addModule(url).then(() => {
          const ear = new AudioWorkletNode(context, "ear");
          ear.port.onmessage = ({ data }) => {
            const { contextTime, performanceTime } = context.getOutputTimestamp();
            const at = performanceTime + (data - contextTime) * 1000;
            window.heard++;
            setTimeout(() => send([0x90, 60, 90], at), Math.max(0, at - performance.now()));
            setTimeout(() => send([0x80, 60, 0], at + 100), Math.max(0, at + 100 - performance.now()));
          };
          connect.call(this, ear);
        });
      }
      return connect.call(this, to, ...more);
    };
  JS

  Capybara.register_driver(:recording) do |app|
    options = { "no-sandbox" => nil, "disable-gpu" => nil, "autoplay-policy" => "no-user-gesture-required" }
    Capybara::Cuprite::Driver.new(app, window_size: [1280, 800], browser_path: "/usr/bin/chromium", timeout: 60, process_timeout: 60, browser_options: options)
  end

  def initialize(server)
    @server = server
    @session = Capybara::Session.new(:recording)
    page = @session.driver.browser.page
    page.command("Page.enable")
    page.command("Page.setBypassCSP", enabled: true)
    page.command("Page.addScriptToEvaluateOnNewDocument", source: EAR)
  end

  # @param song_id [Integer] of a song without material, at 120 BPM
  # @return [Hash]
  def measure(song_id, track)
    @session.visit("http://127.0.0.1:#{@server.port}/songs/#{song_id}")
    @session.click_on(track)
    @session.click_on("Keys", exact: true)
    @session.find("select[aria-label='Keyboard']").select("simulated controller")
    @session.find("button[aria-label^='Record']", match: :first).click
    sleep 0.2 until @session.evaluate_script("window.heard") >= BEATS
    press("Stop recording")
    sleep 2
    result(JSON.parse(@server.get("/api/songs/#{song_id}/export")))
  end

  def quit = @session.driver.quit

  private

  def press(name) = @session.find("button[aria-label='#{name}']", match: :first).click

  def result(document)
    clip = document["clips"].first
    start = document["tracks"].first["regions"].first["start_tick"]
    ticks = clip["notes"].map { |note| start + note["tick"] }
    errors = ticks.map { |tick| (((tick + 480) % 960) - 480).abs / 1.92 }.sort
    { "notes" => ticks.size, "median_ms" => errors[errors.size / 2].round(2), "worst_ms" => errors.last.round(2) }
  end
end
