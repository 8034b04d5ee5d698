# frozen_string_literal: true

require "capybara"
require "capybara/cuprite"

# What playing costs: processor time of the page, and of its sound alone, as shares of one core.
class Playing
  SECONDS = 10
  TICKS = Etc.sysconf(Etc::SC_CLK_TCK).to_f
  # Threads of a page that make sound.
  SOUND = /audio/i

  Capybara.register_driver(:playing) do |app|
    options = { "no-sandbox" => nil, "disable-gpu" => nil, "autoplay-policy" => "no-user-gesture-required" }
    Capybara::Cuprite::Driver.new(app, window_size: [1280, 800], browser_path: "/usr/bin/chromium", timeout: 60, process_timeout: 60, browser_options: options)
  end

  def initialize(server)
    @server = server
    @session = Capybara::Session.new(:playing)
  end

  # @return [Hash] shares of one core
  def measure(song_id, mixer: true)
    @session.visit("http://127.0.0.1:#{@server.port}/songs/#{song_id}")
    @session.find("[data-testid='ruler']")
    @session.driver.browser.keyboard.type("y") if mixer
    @session.click_on("Play")
    sleep 4
    before = used
    sleep SECONDS
    after = used
    page, sound = after.zip(before).map { |now, then_| now - then_ }
    { "page_percent" => share(page), "sound_percent" => share(sound) }
  end

  def quit = @session.driver.quit

  private

  def share(ticks) = (ticks / TICKS / SECONDS * 100).round(1)

  # Processor time of the page's process, and of those of its threads that make sound, in clock ticks.
  def used
    stats = Dir["/proc/#{page_process}/task/*/stat"].filter_map { |path| stat(path) }
    [stats.sum { |_, ticks| ticks }, stats.select { |name, _| SOUND.match?(name) }.sum { |_, ticks| ticks }]
  end

  def stat(path)
    match = /\((.*)\) \S (?:\S+ ){10}(\d+) (\d+)/.match(File.read(path))
    [match[1], match[2].to_i + match[3].to_i]
  rescue SystemCallError
    nil
  end

  # The renderer that used most.
  def page_process
    root = @session.driver.browser.process.pid
    parents = Dir["/proc/[0-9]*/stat"].filter_map { |path| parent(path) }
    below = ->(pid) { [pid, *parents.select { |_, parent| parent == pid }.flat_map { |child, _| below.call(child) }] }
    below.call(root).select { |pid| File.read("/proc/#{pid}/cmdline").include?("--type=renderer") }.max_by { |pid| stat("/proc/#{pid}/stat")[1] }
  end

  def parent(path)
    File.read(path).match(/\A(\d+) \(.*\) \S (\d+)/).captures.map(&:to_i)
  rescue SystemCallError
    nil
  end
end
