# frozen_string_literal: true

require_relative "scroll"

# Frames while a point is dragged in Chromium, and how fast the finder answers a key.
class DragFrames < Scroll
  WATCH = <<~JS
    window.frames_seen = []; let last = performance.now();
    const step = (now) => { window.frames_seen.push(now - last); last = now; requestAnimationFrame(step); };
    requestAnimationFrame(step);
  JS
  KEYS = <<~JS
    const done = arguments[0]; const input = document.querySelector('#finder'); const times = [];
    const write = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
    const words = ['p','pa','par','part','partial','partial 4','partial 40','partial 40 l','','d','dr','level 2'];
    (async () => { for (let round = 0; round < 4; round++) for (const word of words) {
      const start = performance.now(); write.call(input, word); input.dispatchEvent(new Event('input', { bubbles: true }));
      await new Promise((next) => setTimeout(next)); document.body.offsetHeight; times.push(performance.now() - start); }
      done(times); })();
  JS

  # @return [Hash] frame times while a point in the middle of the view is dragged up and down
  def drag(song_id, envelope_id)
    visit(song_id, rows: 1)
    @session.click_button("Unfold Bass") if @session.has_button?("Unfold Bass", wait: 2)
    @session.find_all("[data-testid='ground-#{envelope_id}']", minimum: 1, visible: :all)
    left, top, = box_of("[data-testid=\"ground-#{envelope_id}\"]")
    x, y = [left, 188].max + 300, top + 40
    mouse = @session.driver.browser.mouse
    @session.find("[role=toolbar] [aria-label='Lasso']").click
    sleep 1
    mouse.move(x:, y: y - 30).down.move(x: x + 30, y: y - 30).move(x: x + 30, y: y + 40).move(x:, y: y + 40).up
    @session.find("[role=toolbar] [aria-label='Points']").click
    @session.find(".mark.chosen", match: :first, visible: :all)
    left, top, width, height = box_of(".mark.chosen")
    place = [left + (width / 2), top + (height / 2)]
    mouse.click(x: place[0], y: place[1])
    @session.has_css?(".mark.chosen", count: 1, visible: :all)
    mouse.move(x: place[0], y: place[1]).down
    @session.execute_script(WATCH)
    120.times { |i| mouse.move(x: place[0] + (i % 3), y: place[1] + ((i % 20) - 10)) }
    frames = @session.evaluate_script("window.frames_seen")
    mouse.up
    Measure.summary(frames.drop(3))
  end

  def box_of(selector)
    @session.evaluate_script("(() => { const b = document.querySelector('#{selector}').getBoundingClientRect(); return [b.x, b.y, b.width, b.height]; })()")
  end

  # @return [Hash] milliseconds from a change of the words to the list drawn anew
  def keystrokes(song_id)
    visit(song_id, rows: 1)
    @session.find_all("[role=tab]").find { |tab| tab.text == "Finder" }.click
    @session.find("#finder")
    Measure.summary(Capybara.using_wait_time(60) { @session.evaluate_async_script(KEYS) })
  end
end
