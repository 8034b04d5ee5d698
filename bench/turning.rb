# frozen_string_literal: true

require_relative "playing"

# A macro with many targets turned in the page while the song plays: script for each frame.
class Turning
  FRAMES = 300
  # A hand that goes up and down, a little in every frame.
  HAND = <<~JS
    const [x, y, frames, done] = arguments; let n = 0;
    const step = () => {
      window.dispatchEvent(new PointerEvent("pointermove", { pointerId: 1, clientX: x, clientY: y - 60 * Math.sin(n / 20) }));
      if (++n < frames) requestAnimationFrame(step); else done(n);
    };
    requestAnimationFrame(step);
  JS

  def initialize(server)
    @server = server
    @session = Capybara::Session.new(:playing)
  end

  # @return [Hash] milliseconds a frame, while it is turned, and while the song only plays
  def measure(song_id)
    @session.visit("http://127.0.0.1:#{@server.port}/songs/#{song_id}")
    @session.find(:button, "Crate Kit", exact: true, wait: 30).click
    knob = "[data-testid='knob-#{MovingBench::MACRO}']"
    @session.find(knob, wait: 30)
    @session.click_on("Play")
    sleep 3
    page.command("Performance.enable")
    x, y = @session.evaluate_script("(b => [b.x + b.width / 2, b.y + b.height / 2 - 26])(document.querySelector(#{knob.to_json}).getBoundingClientRect())")
    plain = script { page.evaluate_async(HAND, 60, x, y, FRAMES) }
    @session.driver.browser.mouse.move(x:, y:).down
    turned = script { page.evaluate_async(HAND, 60, x, y, FRAMES) }
    @session.driver.browser.mouse.up
    { "turned_ms_a_frame" => turned, "playing_ms_a_frame" => plain }
  end

  def quit = @session.driver.quit

  private

  def page = @session.driver.browser.page

  def script
    before = seconds
    yield
    ((seconds - before) * 1000 / FRAMES).round(2)
  end

  def seconds = page.command("Performance.getMetrics")["metrics"].find { |one| one["name"] == "ScriptDuration" }["value"]
end
