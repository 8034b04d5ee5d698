# frozen_string_literal: true

require "capybara"
require "capybara/cuprite"

# How the big song opens and scrolls in Chromium.
class Scroll
  SCRIPT = <<~JS
    const done = arguments[0];
    const box = document.querySelector('[data-testid="table"]');
    const frames = []; let last = performance.now(); let count = 0;
    function step(now) {
      frames.push(now - last); last = now;
      box.scrollLeft += 24; if (count % 60 === 59) box.scrollTop += 88;
      if (++count < 300) requestAnimationFrame(step); else done(frames.slice(5));
    }
    requestAnimationFrame(step);
  JS

  def initialize(port)
    Capybara.register_driver(:bench) do |app|
      Capybara::Cuprite::Driver.new(app, window_size: [1280, 800], browser_path: "/usr/bin/chromium", timeout: 60, process_timeout: 60,
                                         browser_options: { "no-sandbox" => nil, "disable-gpu" => nil })
    end
    Capybara.run_server = false
    Capybara.enable_aria_label = true
    @session = Capybara::Session.new(:bench)
    @base = "http://127.0.0.1:#{port}"
  end

  # @return [Float] milliseconds from asking for the page to the first rows drawn
  def visit(song_id, rows: 10)
    start = Measure.now
    @session.visit("#{@base}/songs/#{song_id}")
    @session.find_all("[data-testid^='region-']", minimum: rows, wait: 30)
    ((Measure.now - start) * 1000).round
  end

  # @return [Integer] milliseconds from the start of the navigation to the first rows drawn, by the page's own clock
  def first_rows(song_id)
    visit(song_id)
    @session.evaluate_script("performance.getEntriesByName('rows drawn')[0].startTime").round
  end

  def session = yield(@session)
  def frames = Measure.summary(Capybara.using_wait_time(90) { @session.evaluate_async_script(SCRIPT) })
  def quit = @session.driver.quit
end
