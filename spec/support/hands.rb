# frozen_string_literal: true

# The hands of a walk through the studio: by mouse on a desk, by finger on a phone.
module Hands
  ALL = {
    mouse: { size: :desk, press: ->(spec, place) { spec.mouse.click(x: place[0], y: place[1]) }, drag: ->(spec, from, dx, dy) { spec.drag(from, dx, dy) } },
    finger: { size: :phone, press: ->(spec, place) { spec.tap(place) }, drag: ->(spec, from, dx, dy) { spec.swipe(from, dx, dy) } }
  }.freeze

  def feel_for(name) = name == :finger && page.driver.browser.page.command("Emulation.setTouchEmulationEnabled", enabled: true)

  # Scrolls a node into the middle of what shows it, then presses it.
  def press_on(hand, node)
    page.execute_script("arguments[0].scrollIntoView({ block: 'center', inline: 'center' })", node)
    sleep 0.15
    hand[:press].call(self, place_of(node))
  end

  def press_button(hand, words) = press_on(hand, page.find(:button, words, match: :first, visible: :all))

  def from_menu(hand, button, words)
    press_on(hand, page.find("[aria-label='#{button}']"))
    press_on(hand, page.find("[role=menuitem]", text: words, match: :prefer_exact))
  end

  def open_panel(hand, name)
    open = page.has_css?("[role=tab][aria-selected='true'], nav [aria-expanded='true']", text: name, wait: 0.3)
    open ||= page.has_css?(".sheet[aria-label='#{name}']", wait: 0)
    open || press_on(hand, to_far_sheet(name) || page.find(StudioHelpers::PANEL_BUTTONS, text: name))
  end

  # A sheet hides half the song of a phone; a press on its name lets it down.
  def close_sheet(hand)
    return unless hand[:size] == :phone && page.has_css?(".sheet", wait: 0.2)

    press_on(hand, page.find("nav [aria-expanded='true']"))
    expect(page).to have_no_css(".sheet")
  end

  # What stands at the foot of the desk is a sheet on the phone.
  def at_foot(hand, name)
    return yield unless hand[:size] == :phone

    open_panel(hand, name)
    yield
    close_sheet(hand)
  end

  # What was just made is being named, where no finger would need a keyboard on the screen.
  def done_naming(hand)
    return unless hand[:size] == :desk

    page.find("input:focus")
    page.driver.browser.keyboard.type(:Escape)
  end
end
