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
    it "is there in the studio and in the list of songs, in the #{colours} theme", long: colours == "dark" do
      open_song(id)
      theme(colours)
      found = ["At hand", "Finder", "Clip", "Track", "Ends", "Versions", "Hand over"].to_h do |panel|
        show_panel(panel)
        [panel, violations]
      end
      click_on "Help"
      found["help"] = violations
      press_keys("y")
      expect(page).to have_css("[aria-label='Mixer'] section")
      found["mixer"] = violations
      press_keys("y")
      press_keys([:shift, "y"])
      expect(page).to have_css("[aria-label='Keys of Rope Bass']")
      found["keys to play"] = violations
      press_keys([:shift, "y"])
      click_on "Bars"
      expect(page).to have_css("[role=menuitem]")
      found["menu"] = violations
      press_keys(:Escape)
      press_keys("?")
      expect(page).to have_css("[role=dialog]")
      found["keys"] = violations
      visit "/docs/guide/performing.md"
      found["guide"] = violations
      visit "/"
      expect(page).to have_css("[aria-label='Songs'] li")
      expect(found.merge("songs" => violations).transform_values(&:first).compact).to eq({})
    end

    it "is there on the phone, in every sheet, in the #{colours} theme", :long do
      open_song(id, size: :phone)
      theme(colours)
      found = ["Knobs", "Mixer", "Keys", "At hand", "Finder", "Clip", "Track", "Ends", "Versions", "Hand over", "Song"].to_h do |sheet|
        show_panel(sheet)
        [sheet, violations]
      end
      expect(found.transform_values(&:first).compact).to eq({})
    end
  end

  it "says of a point what it is, where it is in its clip and in the song, and how the line goes on" do
    open_song(id)
    mark = page.first("[data-testid='point-#{snapshot(id).song.clip('mooring').envelopes.first.id}-1']", visible: :all)
    expect(mark["aria-label"]).to eq "Cutoff in Mooring, point 2 of 4"
    expect(mark["aria-valuetext"]).to eq "+42 %, in the clip 2.2.0, in the song 6.2.0, straight"
  end

  def focused = page.evaluate_script("document.activeElement.getAttribute('aria-label') || document.activeElement.textContent")

  it "stops once at each track; arrows walk over what stands beside it and over its regions in order of time, drawn or not" do
    open_song(id)
    page.find_button("Crate Kit").then { |name| page.execute_script("arguments[0].focus()", name) }
    names = snapshot(id).song.tracks.first(4).map(&:name)
    walked = names.each_index.map { |i| i.zero? ? focused : (press_keys(:Tab) && focused) }
    expect(walked.map { |text| text[/\A#{Regexp.union(names)}/] }).to eq names
    press_keys(%i[shift Tab], %i[shift Tab])
    3.times { press_keys(:Right) }
    regions = snapshot(id).song.track("rope-bass").regions
    steps = Array.new(regions.size + 10) { focused.tap { press_keys(:Right) } }.grep(/region at/)
    expect(steps.first(regions.size).map { |text| text[/region at (.*)/, 1] }).to eq(regions.map { |one| snapshot(id).song.meters.text(one.start_tick) })
    press_keys(:Enter)
    expect(page).to have_css("[data-testid='#{regions.last.id}'][aria-pressed=true]")
  end

  it "goes down from a region to the points in hand, and up again" do
    open_song(id)
    first = snapshot(id).song.track("rope-bass").regions.first
    focus(first.id)
    press_keys(:Down)
    expect(page).to have_css(".mark.chosen", visible: :all)
    expect(focused).to eq "Cutoff in Mooring, point 1 of 4"
    press_keys(:Escape)
    expect(focused).to start_with "Mooring"
  end

  # Source: WCAG 2.2, success criteria 1.4.11 and 2.4.11: 3:1 against what lies around; relative luminance as defined there.
  it "rings what the keyboard is on, 3:1 in both themes" do
    open_song(id)
    luminance = lambda do |hex|
      parts = hex.delete("#").scan(/../).map { |pair| pair.hex / 255.0 }.map { |c| c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055)**2.4 }
      (0.2126 * parts[0]) + (0.7152 * parts[1]) + (0.0722 * parts[2])
    end
    %w[light dark].each do |colours|
      theme(colours)
      ring, *grounds = %w[--ring --strip --color-base-100 --color-base-200 --color-base-300].map do |name|
        luminance.call(page.evaluate_script("getComputedStyle(document.documentElement).getPropertyValue('#{name}').trim()"))
      end
      ratios = grounds.map { |ground| ([ring, ground].max + 0.05) / ([ring, ground].min + 0.05) }
      expect(ratios.min).to be >= 3
    end
    page.find_button("Rope Bass").then { |name| page.execute_script("arguments[0].focus()", name) }
    press_keys(:Right)
    expect(page.evaluate_script("getComputedStyle(document.activeElement).outlineStyle")).to eq "solid"
  end

  it "keeps lines and choices in colours the system forces" do
    open_song(id)
    page.driver.browser.page.command("Emulation.setEmulatedMedia", features: [{ name: "forced-colors", value: "active" }])
    text, line, ground = page.evaluate_script(<<~JS)
      (() => { const of = (selector, name) => getComputedStyle(document.querySelector(selector))[name];
               return [of('body', 'color'), of('.stitched', 'stroke'), of('body', 'backgroundColor')]; })()
    JS
    chosen, other = %w[true false].map do |pressed|
      page.evaluate_script("getComputedStyle(document.querySelector('[role=toolbar] [aria-pressed=#{pressed}]')).backgroundColor")
    end
    expect(line).to eq text
    expect([line == ground, chosen == other]).to eq [false, false]
  end

  # Source: WCAG 2.2, success criterion 1.4.11 (non-text contrast).
  it "tells icons, thin lines and the edges of fields from what lies under them, 3:1 in both themes" do
    open_song(id)
    show_panel("Clip")
    mouse.click(**%i[x y].zip(name_row(snapshot(id).song.track("rope-bass").regions.first.id)).to_h)
    page.find_field("Name of the clip")
    %w[light dark].each do |colours|
      theme(colours)
      # Colours glide from theme to theme.
      low = -> { page.evaluate_script(<<~JS).select { |_, ratio| ratio < 3 } }
        (() => {
          const pen = document.createElement("canvas").getContext("2d", { willReadFrequently: true });
          const rgba = (colour) => { pen.clearRect(0, 0, 1, 1); pen.fillStyle = colour; pen.fillRect(0, 0, 1, 1); return [...pen.getImageData(0, 0, 1, 1).data]; };
          const linear = (c) => { c /= 255; return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4; };
          const luminance = ([r, g, b]) => 0.2126 * linear(r) + 0.7152 * linear(g) + 0.0722 * linear(b);
          const under = (node) => { for (let at = node.parentElement; at; at = at.parentElement) {
            const colour = rgba(getComputedStyle(at).backgroundColor); if (colour[3] > 250) return colour; } return [255, 255, 255, 255]; };
          const opacity = (node) => { let all = 1; for (let at = node; at; at = at.parentElement) all *= Number(getComputedStyle(at).opacity); return all; };
          const ratio = (node, colour) => {
            const ground = under(node), share = opacity(node) * colour[3] / 255;
            const seen = [0, 1, 2].map((i) => colour[i] * share + ground[i] * (1 - share));
            const [a, b] = [luminance(seen), luminance(ground)].sort((one, other) => other - one);
            return (a + 0.05) / (b + 0.05);
          };
          const all = (css, name) => [...document.querySelectorAll(css)].filter((node) => node.getClientRects().length > 0)
            .map((node) => [css, ratio(node, rgba(getComputedStyle(node)[name]))]);
          return [...all(".listen:not(.listen-on), .btn.embed", "color"), ...all(".input:not(.input-ghost), .select", "borderTopColor"),
                  ...all("svg .aside-line, svg .off-line, svg .limit-line", "stroke")];
        })()
      JS
      last = nil
      expect(watch(-> { last = low.call }, ->(seen) { seen.last == [] }, seconds: 8)).to(be(true), last.inspect)
    end
  end

  it "sets no text smaller than 12 px, and all of it grows with the text of the browser" do
    open_song(id)
    sizes = lambda do
      page.evaluate_script(<<~JS)
        (() => { const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT), found = [];
                 while (walk.nextNode()) { const node = walk.currentNode.parentElement;
                   if (walk.currentNode.data.trim() && node.getClientRects().length > 0) found.push([walk.currentNode.data.trim().slice(0, 20), parseFloat(getComputedStyle(node).fontSize)]); }
                 return found; })()
      JS
    end
    ["At hand", "Clip", "Satchel", "Finder", "Track", "Hand over"].each do |panel|
      show_panel(panel)
      expect(sizes.call.select { |_, size| size < 12 }).to eq []
    end
    usual = sizes.call.to_h
    page.execute_script("document.documentElement.style.fontSize = '200%'")
    grown = sizes.call.to_h
    same = usual.keys & grown.keys
    expect(same.size).to be > 40
    expect(same.reject { |words| (grown[words] / usual[words]).between?(1.9, 2.1) }).to eq []
  end
end
