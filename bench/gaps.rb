# frozen_string_literal: true

require "capybara"
require "capybara/cuprite"

# How long the sound stays away at the output while devices come and go. What reaches the loudspeaker is recorded beside it.
class Gaps
  # Whatever is connected to the output is also heard by a recorder.
  TAP = <<~JS
    window.recorded = [];
    const connect = AudioNode.prototype.connect;
    AudioNode.prototype.connect = function (to, ...more) {
      if (to instanceof AudioDestinationNode && this.context instanceof AudioContext && !this.taken) {
        this.taken = true;
        const blocks = [];
        window.recorded.push(blocks);
        const ear = this.context.createScriptProcessor(256, 2, 1);
        ear.onaudioprocess = ({ inputBuffer }) => blocks.push(inputBuffer.getChannelData(0).slice());
        connect.call(this, ear);
        connect.call(ear, this.context.destination);
      }
      return connect.call(this, to, ...more);
    };
  JS

  # Of what was recorded: the longest stretch without sound, in milliseconds, and how much of it there is, in seconds.
  LONGEST = <<~JS
    (() => {
      let [run, longest, count] = [0, 0, 0];
      const loud = (block) => block.some((sample) => Math.abs(sample) > 1e-3);
      const heard = window.recorded.find((blocks) => blocks.some(loud));
      for (const block of heard.slice(heard.findIndex(loud))) for (const sample of block) {
        run = Math.abs(sample) < 2e-4 ? run + 1 : 0;
        if (run > longest) longest = run;
        count++;
      }
      return [longest / 48, count / 48000];
    })()
  JS

  def initialize(server)
    @server = server
    @session = Capybara::Session.new(:gaps)
    @session.driver.browser.page.command("Page.addScriptToEvaluateOnNewDocument", source: TAP)
  end

  Capybara.register_driver(:gaps) do |app|
    options = { "no-sandbox" => nil, "disable-gpu" => nil, "autoplay-policy" => "no-user-gesture-required" }
    Capybara::Cuprite::Driver.new(app, window_size: [1280, 800], browser_path: "/usr/bin/chromium", timeout: 60, process_timeout: 60, browser_options: options)
  end

  # @param song_id [Integer] of a song that sounds without a pause
  # @param edits [Array<Array(String, Hash)>] made one after the other while it plays
  # @return [Hash]
  def measure(song_id, edits)
    @session.visit("http://127.0.0.1:#{@server.port}/songs/#{song_id}")
    @session.click_on("Play")
    sleep 3
    edits.each_with_index do |(name, inputs), i|
      @server.post("/api/songs/#{song_id}/edits", { revision: i + 1, edit: name, inputs: })
      sleep 0.7
    end
    longest, seconds = @session.evaluate_script(LONGEST)
    { "longest_gap_ms" => longest.round(1), "recorded_s" => seconds.round(1), "edits" => edits.size }
  end

  def quit = @session.driver.quit
end
