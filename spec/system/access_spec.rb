# frozen_string_literal: true

# Source: axe-core's rules for WCAG 2.0 to 2.2, levels A and AA, run in the page.
RSpec.describe "Access" do
  let(:id) { plant }

  axe = File.read(File.expand_path("../../node_modules/axe-core/axe.min.js", __dir__))
  # What the theme changes is colours alone, so in the dark just their contrast is looked at.
  run = <<~JS
    const [rules, done] = arguments;
    axe.run(document, { resultTypes: ["violations"], runOnly: rules })
       .then((found) => done(found.violations.flatMap((one) => one.nodes.slice(0, 3).map((node) => `${one.id}: ${node.html.slice(0, 160)}`))));
  JS

  rules = { "light" => %w[wcag2a wcag2aa wcag21a wcag21aa wcag22aa], "dark" => { type: "rule", values: ["color-contrast"] } }

  define_method(:violations) do
    page.execute_script(axe) unless page.evaluate_script("'axe' in window")
    Capybara.using_wait_time(30) { page.evaluate_async_script(run, rules.fetch(@colours)) }
  end

  def theme(name)
    @colours = name
    page.driver.browser.page.command("Emulation.setEmulatedMedia", features: [{ name: "prefers-color-scheme", value: name }])
  end

  after { theme("light") }

  %w[light dark].each do |colours|
    it "is there in the studio and in the list of songs, in the #{colours} theme" do
      open_song(id)
      theme(colours)
      found = %w[Sum Edit Finder Clip Track].to_h do |panel|
        show_panel(panel)
        [panel, violations]
      end
      click_on "Bars"
      expect(page).to have_css("[role=menuitem]")
      found["menu"] = violations
      press_keys(:Escape)
      press_keys("?")
      expect(page).to have_css("[role=dialog]")
      found["keys"] = violations
      visit "/"
      expect(page).to have_button("New song")
      expect(found.merge("songs" => violations).transform_values(&:first).compact).to eq({})
    end

    it "is there on the phone, in every sheet, in the #{colours} theme" do
      open_song(id, size: :phone)
      theme(colours)
      found = %w[Knobs Sum Edit Finder Clip Track Song].to_h do |sheet|
        show_panel(sheet)
        [sheet, violations]
      end
      expect(found.transform_values(&:first).compact).to eq({})
    end
  end

  it "says of a point what it is, where it is in its clip and in the song, and how the line goes on" do
    open_song(id)
    mark = page.first("[data-testid='point-#{standing(id).song.clip('mooring').envelopes.first.id}-1']", visible: :all)
    expect(mark["aria-label"]).to eq "Cutoff in Mooring, point 2 of 4"
    expect(mark["aria-valuetext"]).to eq "+42 %, in the clip 2.2.0, in the song 6.2.0, straight"
  end
end
