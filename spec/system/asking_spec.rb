# frozen_string_literal: true

# How often a page asks the server.
RSpec.describe "What a page asks for" do
  include Hands

  let(:id) { plant }

  # A page that is open with sum, settings and knobs all in view, and nobody's hand on it.
  it "is all it shows while it plays, in one request, twice a second at most", :long do
    open_song(id)
    move = snapshot(id).song.clip("mooring").envelopes.first
    press_on(Hands::ALL[:mouse], page.find("[data-testid='point-#{move.id}-0']", match: :first, visible: :all))
    at_hand("Value")
    click_on "Play"
    sleep 3
    page.execute_script("performance.clearResourceTimings(); performance.setResourceTimingBufferSize(2000)")
    before = page.evaluate_script("performance.now()")
    sleep 4
    names = page.evaluate_script("performance.getEntriesByType('resource').map((one) => new URL(one.name).pathname)")
    seconds = page.evaluate_script("(performance.now() - #{before}) / 1000")
    click_on "Stop"
    asked = names.grep(%r{\A/api/}).map { |name| name.split("/").last }.tally
    # Blocks of what plays are fetched a few bars ahead.
    expect(asked.except("playback").values.sum).to be_between(1, (2 * seconds) + 1)
    expect(asked.keys - %w[at_playhead playback]).to eq []
    expect(asked.fetch("playback", 0)).to be <= seconds
  end

  # As where a page hears of no changes any more: what comes is always of a song that is further on.
  it "is not asked for without a pause: drawings that are never of the song as it has it" do
    page.driver.browser.page.command("Page.addScriptToEvaluateOnNewDocument", source: <<~JS)
      const asked = window.fetch;
      window.drawings = 0;
      window.fetch = async (address, ...more) => {
        const answer = await asked(address, ...more);
        if (!String(address.url ?? address).includes("/drawing")) return answer;
        window.drawings += 1;
        const drawing = await answer.json();
        return Response.json({ ...drawing, revision: drawing.revision + 5 });
      };
    JS
    visit "/songs/#{id}"
    expect(page).to have_css("[data-testid='ruler']")
    sleep 4
    expect(page.evaluate_script("window.drawings")).to be_between(2, 10)
  end
end
