# frozen_string_literal: true

# The studio at the sizes that lie between a phone that stands and a desk.
RSpec.describe "The studio at other sizes" do
  let!(:id) { plant }

  before do
    page.driver.resize(*size)
    page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)
    open_song(id)
  end

  after { page.driver.resize(1280, 800) }

  def box(css) = page.evaluate_script("(b => [b.x, b.y, b.right, b.bottom])(document.querySelector(#{css.to_json}).getBoundingClientRect())")

  # What of the song can be seen: beside the names, under the ruler, down to what lies over it.
  def song_seen
    table, header, ruler = box("[data-testid='table']"), box("[data-testid='table'] header"), box("[data-testid='ruler']")
    [table[2] - header[2], table[3] - ruler[3]]
  end

  # Names of tracks of which an end is cut off.
  def cut
    page.evaluate_script(<<~JS)
      [...document.querySelectorAll("[data-testid='table'] header button[aria-pressed]")].filter(b => b.scrollWidth > b.clientWidth + 1).map(b => b.innerText)
    JS
  end

  # Buttons of which a part lies beyond the window, of those that are drawn at all.
  def beyond(css)
    page.evaluate_script(<<~JS)
      [...document.querySelectorAll(#{css.to_json})].map(b => [b.innerText || b.ariaLabel, b.getBoundingClientRect()])
        .filter(([, b]) => b.width > 0 && (b.left < -1 || b.right > innerWidth + 1 || b.top < -1 || b.bottom > innerHeight + 1)).map(([name]) => name)
    JS
  end

  describe "an upright tablet, 768 by 1024" do
    let(:size) { [768, 1024] }

    it "names tracks in full with mute, solo and arm behind the name; panels are sheets and leave the song 480 px" do
      expect(cut).to eq []
      page.find_all("[data-testid='table'] header", minimum: 3).first(3).each do |header|
        expect(header).to have_css("[aria-label^='Mute'], [aria-label^='Unmute']").and have_css("[aria-label^='Solo'], [aria-label^='Unsolo']")
      end
      expect(song_seen[0]).to be >= 480
      ["At hand", "Clip", "Mixer"].each do |name|
        show_panel(name)
        expect(page).to have_css(".sheet")
        expect(song_seen).to match [be >= 480, be >= 300]
        expect(beyond("nav button, .phone-top > * > button")).to eq []
      end
    end
  end

  describe "a phone on its side, 844 by 390" do
    let(:size) { [844, 390] }

    it "leaves the song 200 px with the knobs open, and shows every button of its bar" do
      expect(beyond("nav button")).to eq []
      show_panel("Knobs")
      expect(page).to have_css(".sheet")
      expect(song_seen).to match [be >= 480, be >= 200 - 30]
      expect(box("[data-testid='table']").then { |table| table[3] - table[1] }).to be >= 200
      expect(beyond("nav button, .sheet .what-moves h3")).to eq []
    end
  end

  # Source: WCAG 2.2, success criterion 1.4.4 (text resized to 200 %).
  describe "a desk of a browser whose text is twice as large" do
    let(:size) { [1280, 800] }

    it "has the room that a small screen has: names in full, nothing beyond the window, rows as tall as their words" do
      page.driver.browser.page.command("Page.setFontSizes", fontSizes: { standard: 32, fixed: 26 })
      page.refresh
      expect(page).to have_css(".heard-edge", visible: :all)
      expect(page).to have_css("nav button", text: "At hand")
      expect([cut, beyond("nav button, .phone-top > * > button")]).to eq [[], []]
      low = page.evaluate_script(<<~JS)
        [...document.querySelectorAll("[data-testid='table'] header button[aria-pressed]")].filter(b => b.scrollHeight > b.clientHeight + 1).map(b => b.innerText)
      JS
      expect([low, song_seen]).to match [[], [be >= 480, be >= 300]]
    end
  end

  describe "a small window, 1024 by 768" do
    let(:size) { [1024, 768] }

    it "lays the panel over the song, whose room stays as it is when the panel goes" do
      expect(page).to have_css(".rail-panel")
      before = song_seen
      click_on "Close the panel"
      expect(page).to have_no_css(".rail-panel")
      expect(song_seen).to eq before
      expect(before[0]).to be >= 680
    end
  end
end
