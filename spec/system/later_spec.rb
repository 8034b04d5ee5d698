# frozen_string_literal: true

# Panels come when they are opened, or while nothing else is done.
RSpec.describe "Parts of the page that come later" do
  include Hands

  let(:id) { plant }

  it "says when a panel cannot be had, and shows it once it can", :long do
    Capybara.current_driver = :desk
    page.driver.browser.network.blocklist = [/VersionsPanel/]
    open_song(id)
    open_panel(Hands::ALL.fetch(:mouse), "Versions")
    expect(page).to have_css("[role='alert']", text: "could not be loaded")
    page.driver.browser.network.blocklist = []
    click_on "Try again"
    expect(page).to have_css("section[aria-label='Versions']")
    expect(page).to have_no_css("[role='alert']")
  end

  it "has them all at hand while nobody asks" do
    open_song(id)
    wanted = %w[ClipPanel EndsPanel Finder Mixer SatchelPanel VersionsPanel]
    names = "performance.getEntriesByType('resource').map(({ name }) => name).join(' ')"
    expect(20.times.any? { wanted.all? { |one| page.evaluate_script(names).include?(one) } || !sleep(0.5) }).to be true
  end
end

# What the server says in a way the page does not know makes a panel fail: the rest of the page stays.
RSpec.describe "A panel that fails" do
  let(:id) { plant }

  it "says so in its place, leaves the song as it is, and is shown again" do
    open_song(id)
    page.execute_script(<<~JS)
      window.asked = window.fetch;
      const nothing = () => new Response("[null]", { headers: { "Content-Type": "application/json" } });
      window.fetch = async (...all) => String(all[0]).includes("/versions") ? nothing() : window.asked(...all);
    JS
    show_panel("Versions")
    expect(page).to have_css("[role=alert]", text: "This panel could not be shown")
    expect(page).to have_button("Rope Bass", exact: true)
    page.execute_script("window.fetch = window.asked")
    show_panel("Track")
    expect(page).to have_css("section[aria-label^='Track']")
  end
end
