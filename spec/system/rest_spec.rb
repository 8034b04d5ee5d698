# frozen_string_literal: true

# The sound engine takes nothing of a processor once all has rung out.
RSpec.describe "Sound that is over" do
  let(:id) { plant }

  # Every context that the page makes, for what it is doing.
  def watch_contexts
    page.driver.browser.page.command("Page.addScriptToEvaluateOnNewDocument", source: <<~JS)
      window.contexts = [];
      window.AudioContext = class extends AudioContext { constructor(options) { super(options); window.contexts.push(this); } };
    JS
  end

  def states = page.evaluate_script("window.contexts.map(({ state }) => state)")
  def becomes?(wanted) = 80.times.any? { states == wanted || !sleep(0.25) }

  it "rests some seconds after playing has stopped, not while it plays, and plays on at the next press", :long do
    Capybara.current_driver = :desk
    watch_contexts
    open_song(id)
    press_keys([:space])
    expect(becomes?(["running"])).to be true
    sleep 6
    expect(states).to eq ["running"]
    press_keys([:space])
    expect(becomes?(["suspended"])).to be true
    before = page.find("[data-testid='position']").text
    press_keys([:space])
    expect(becomes?(["running"])).to be true
    expect(page).to have_no_css("[data-testid='position']", exact_text: before)
  end
end
