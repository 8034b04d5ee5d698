# frozen_string_literal: true

# Renders a song from the shell: serves it to a browser without a window, which sounds it faster than it plays. Run as
# a program of its own by bin/satchel: ruby app/mixdown.rb OPTIONS, as JSON: "song", "goal", "rate", "bits",
# "from_tick", "to_tick", "store".
require_relative "packages"
require_relative "one_song"
require "ferrum"

# One mixdown, in a database of its own.
class Mixdown
  BROWSERS = %w[/usr/bin/chromium /usr/bin/chromium-browser].freeze
  # Longer than any song takes.
  LONGEST_SECONDS = 3600
  PAGE = <<~JS
    (async () => {
      const [songId, path, job, bits] = arguments;
      window.share = 0;
      try {
        const { encode, render, withTail } = await import("/assets/devices.js");
        const told = (share) => { window.share = share; };
        const rendered = await render({ ...job, taps: [], silent: [] }, told, new AbortController().signal);
        const { file, measured, frames } = await encode({ channels: withTail(rendered, 0), rate: job.rate, bits });
        const headers = { "Content-Type": "audio/wav" };
        const answer = await fetch(`${path}&frames=${frames}&rate=${job.rate}`, { method: "POST", headers, body: file });
        window.done = answer.ok ? { measured } : { fault: (await answer.json()).faults[0].message };
      } catch (error) { window.done = { fault: String(error.message || error) }; }
    })();
  JS

  # How far it is: one line that grows on a terminal, else a line for every tenth.
  class Progress
    def initialize(out)
      @out = out
      @told = -1
    end

    # @param share [Float] 0..1
    def tell(share)
      step = @out.tty? ? (share * 100).floor : (share * 10).floor * 10
      return if step <= @told

      @told = step
      @out.tty? ? @out.print("\r#{step} %  ") : @out.puts("#{step} %")
    end

    # Ends the line that told how far it is.
    def done = @out.tty? && @out.puts
  end

  # @param options [Hash]
  def initialize(options)
    @options = options
  end

  # @return [String] the browser; installed when it is first asked for
  # @raise [RuntimeError]
  def self.browser
    find = -> { BROWSERS.find { |one| File.exist?(one) } }
    find.call || begin
      warn "installing Chromium"
      system({ "ROOT" => Server::ROOT }, "bash", "-c", 'source "$ROOT/bin/prepare"; apt_packages chromium', out: :err)
      find.call or raise "There is no Chromium, and it could not be installed."
    end
  end

  # @return [Hash] what it measures
  # @raise [KindSatchel::InvalidInput], [RuntimeError]
  def call
    @browser = Mixdown.browser
    OneSong.new(@options.fetch("song"), @options.fetch("store")).served { |song, id, base| written(song, id, base) }
  end

  private

  def written(song, id, base)
    measured = nil
    token = Server.workspaces.open do |folder|
      measured = sounded(song, id, base, "/api/hand_overs/#{File.basename(File.dirname(folder))}/sounds?name=mix.wav")
    end
    FileUtils.mv(Server.workspaces.file(token, "mix.wav"), @options.fetch("goal"))
    measured
  end

  def sounded(song, id, base, path)
    browser = Ferrum::Browser.new(browser_path: @browser, timeout: 60, process_timeout: 60,
                                  browser_options: { "no-sandbox" => nil, "disable-gpu" => nil })
    browser.go_to("#{base}/songs/#{id}")
    wait(browser, "!!document.querySelector('[data-testid=ruler]')", 60)
    # What the page posts would come along in the log of the network, through the socket that drives the browser:
    # whole sounds break it.
    browser.page.command("Network.disable")
    job = { from_tick: @options["from_tick"] || 0, to_tick: @options["to_tick"] || song.length_ticks,
            rate: @options.fetch("rate") }
    browser.execute(PAGE, id, path, job, @options.fetch("bits"))
    finished(browser)
  ensure
    browser&.quit
  end

  def finished(browser)
    progress = Progress.new($stderr)
    wait(browser, "!!window.done", LONGEST_SECONDS) { progress.tell(browser.evaluate("window.share")) }
    progress.done
    done = browser.evaluate("window.done")
    done["fault"] ? raise(done["fault"]) : done["measured"]
  end

  def wait(browser, what, seconds)
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
    until browser.evaluate(what)
      raise "The browser took too long." if Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline

      sleep 0.5
      yield if block_given?
    end
  end
end

return unless $PROGRAM_NAME == __FILE__

begin
  puts JSON.generate(Mixdown.new(JSON.parse(ARGV.fetch(0))).call)
rescue KindSatchel::InvalidInput => e
  warn e.faults.join("\n")
  exit 1
rescue RuntimeError, Ferrum::Error, SystemCallError => e
  warn e.message
  exit 1
end
