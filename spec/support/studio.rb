# frozen_string_literal: true

# What a hand does in the studio, and what an eye reads there.
module StudioHelpers
  def open_song(id, size: :desk)
    Capybara.current_driver = size
    visit "/songs/#{id}"
    expect(page).to have_css("[data-testid='ruler']", wait: 40)
    expect(page).to have_css(".heard-edge", visible: :all)
    expect(page).to have_css(".stitched", minimum: 3, visible: :all)
  end

  # The same in a browser that does not count in.
  def open_uncounted(id, size: :desk)
    Capybara.current_driver = size
    visit "/satchel.svg"
    page.execute_script("localStorage.setItem('kind-satchel-play-in', JSON.stringify({ countIn: 0 }))")
    open_song(id, size:)
  end

  def mouse = page.driver.browser.mouse

  # Of everything that a selector finds right now an attribute, or what it says; read at once, since the page may draw it again meanwhile.
  def told(css, attribute = nil)
    read = attribute ? "one.getAttribute('#{attribute}')" : "one.innerText"
    page.evaluate_script("[...document.querySelectorAll(#{css.to_json})].map((one) => #{read})")
  end

  # A press lands only once its button stays where it is: panels that are fetched when first shown move what lies under them.
  def click_on(name, **options)
    button = page.find(:link_or_button, name, **options)
    places = [nil]
    20.times do
      places << page.evaluate_script("(b => [b.x, b.y])(arguments[0].getBoundingClientRect())", button)
      break if places[-1] == places[-2]
    end
    button.click
  end

  # The middle of the nth thing with a test id, in pixels.
  def middle(test_id, nth = 0)
    page.find_all("[data-testid='#{test_id}']", minimum: nth + 1, visible: :all)
    page.evaluate_script(<<~JS)
      (() => { const box = document.querySelectorAll('[data-testid="#{test_id}"]')[#{nth}].getBoundingClientRect();
               return [box.x + box.width / 2, box.y + box.height / 2]; })()
    JS
  end

  # The place on an envelope's first line that lies above a pixel across.
  def on_line(envelope_id, x)
    page.find_all("[data-testid='line-#{envelope_id}']", minimum: 1, visible: :all)
    page.evaluate_script(<<~JS)
      (() => { const line = document.querySelector('[data-testid="line-#{envelope_id}"]');
               const box = line.ownerSVGElement.getBoundingClientRect();
               let [low, high] = [0, line.getTotalLength()];
               for (let i = 0; i < 40; i++) { const middle = (low + high) / 2;
                 if (line.getPointAtLength(middle).x + box.x < #{x}) low = middle; else high = middle; }
               const at = line.getPointAtLength(low); return [at.x + box.x, at.y + box.y]; })()
    JS
  end

  # The pixel across at which a bar of the song starts.
  def bar_x(bar)
    page.evaluate_script(<<~JS)
      (() => { const table = document.querySelector('[data-testid="table"]');
               return table.getBoundingClientRect().x + 188 + #{(bar - 1) * 3840 * 0.027} - table.scrollLeft; })()
    JS
  end

  # Brings a bar of the song to the left of the view, with a little room before it.
  def show_bar(bar) = page.execute_script("document.querySelector('[data-testid=\"table\"]').scrollLeft = #{((bar - 1) * 3840 * 0.027) - 14}")

  # Presses the ruler at a pixel across; the playhead goes there.
  def press_ruler(x) = mouse.click(x:, y: middle("ruler")[1] - 6)

  # The dial of a knob, in pixels; its card is scrolled to it.
  def dial(address)
    show_knob(address)
    page.execute_script("arguments[0].scrollIntoView({ block: 'nearest', inline: 'center' })", page.find("[data-testid='knob-#{address}']"))
    x, y = middle("knob-#{address}")
    [x, y - 26]
  end

  # Types a text into a field, and keeps it.
  def type_into(label, text)
    page.find_field(label).set(text)
    press_keys(:Enter)
  end

  # Presses at a place, moves by steps, and lets go unless a block takes over while the hand is down.
  # `control` is pressed before the drop.
  def drag(from, dx, dy, control: false)
    x, y = from
    mouse.move(x:, y:).down
    4.times { |i| mouse.move(x: x + (dx * (i + 1) / 4.0), y: y + (dy * (i + 1) / 4.0)) }
    yield if block_given?
    key = ->(type, modifiers) { page.driver.browser.page.command("Input.dispatchKeyEvent", type:, modifiers:, key: "Control", code: "ControlLeft") }
    key.call("rawKeyDown", 2) if control
    mouse.up
    key.call("keyUp", 0) if control
  end

  # A key held while a block runs: 1 Alt, 2 Control, 8 Shift.
  def holding(modifiers)
    command = ->(type, **more) { page.driver.browser.page.command("Input.dispatchMouseEvent", type:, button: "left", clickCount: 1, modifiers:, **more) }
    yield ->(place) { %w[mousePressed mouseReleased].each { |type| command.call(type, x: place[0], y: place[1]) } }
  end

  # One finger: "touchStart", "touchMove", "touchEnd".
  def touch(type, x = nil, y = nil)
    page.driver.browser.page.command("Input.dispatchTouchEvent", type:, touchPoints: x ? [{ x:, y: }] : [])
  end

  def tap(place)
    touch("touchStart", *place)
    touch("touchEnd")
  end

  # A finger that comes down, goes somewhere by steps, and lifts.
  def swipe(from, dx, dy)
    x, y = from
    touch("touchStart", x, y)
    6.times { |i| touch("touchMove", x + (dx * (i + 1) / 6.0), y + (dy * (i + 1) / 6.0)) }
    yield if block_given?
    touch("touchEnd")
  end

  # The middle of a button or field, by its words.
  def place_of(node)
    box = page.evaluate_script("(b => [b.x + b.width / 2, b.y + b.height / 2])(arguments[0].getBoundingClientRect())", node)
    [box[0], box[1]]
  end

  # The name row of a region, a little right of its start.
  def name_row(region_id, into = 40)
    page.find_all("[data-testid='#{region_id}']", minimum: 1, visible: :all)
    box = page.evaluate_script("(b => [b.x, b.y])(document.querySelector('[data-testid=\"#{region_id}\"]').getBoundingClientRect())")
    [[box[0], 190].max + into, box[1] + 8]
  end

  # A panel at the right, or a sheet on a phone (where a second press puts it away).
  PANEL_BUTTONS = "[role=tab], nav button"
  def show_panel(name) = (to_far_sheet(name) || page.find(StudioHelpers::PANEL_BUTTONS, text: name)).click

  # A part of the panel At hand, unfolded: Value, Envelope or Points.
  def at_hand(part, hand = nil)
    open = page.has_css?(".sheet [data-testid='at-hand'], aside [data-testid='at-hand']", wait: 0.3)
    open || (hand ? open_panel(hand, "At hand") : show_panel("At hand"))
    line = page.find("[data-testid='at-hand'] section[aria-label='#{part}'] > .section-line")
    return if line["aria-expanded"] == "true"

    hand ? press_on(hand, line) : line.click
  end

  # Of a sheet that stands behind *All* on a phone, its button there; nil for others.
  FAR_SHEETS = ["Track", "Satchel", "Finder", "Keys", "Hands", "Takes", "Ends", "Versions", "Hand over", "Song"].freeze
  def to_far_sheet(name)
    return unless Capybara.current_driver == :phone && FAR_SHEETS.include?(name)

    page.has_css?("section[aria-label='All sheets']", wait: 0) || to_all_sheets
    page.find("section[aria-label='All sheets'] button", text: name, exact_text: true)
  end

  # A second press on *All* puts away what was opened from there.
  def to_all_sheets
    all = page.find("nav button", text: "All", exact_text: true)
    all.click
    all.click unless page.has_css?("section[aria-label='All sheets']", wait: 0.3)
  end

  # Opens the device of a parameter at the foot, whose knob is seen then.
  def show_knob(address)
    return if page.has_css?("[data-testid='knob-#{address}']", wait: 1)

    page.find("[data-testid='open-#{address.split('/').first(2).join('/')}']").click
    page.find("[data-testid='knob-#{address}']")
  end

  # In the bar under what is chosen, on a phone above the bottom bar.
  def in_choice_bar(&) = page.within(:css, ".choice-strip, .choice-bar", &)

  # Brings one of the moved parameters of an unfolded track into its strips, by its name or address: by its chip, or from the list.
  def show_parameter(track, wanted)
    group = page.find("[role=group][aria-label='Parameter shown on #{track}']")
    listed = group.all(:css, "option", wait: 0).find { |option| [option.value, option.text].include?(wanted) }
    return listed.select_option if listed

    group.find("[data-testid='chip-#{wanted}'], .chip[title^='#{wanted}:'], .chip[title^='#{wanted}, off']").click
  end

  def parameter_shown?(track, name)
    page.has_css?("[role=group][aria-label='Parameter shown on #{track}'] :is(.chip-shown, option:checked)", text: name)
  end

  # Puts the keyboard on a thing with a test id (or on its group, for marks in a drawing).
  def focus(test_id)
    page.find_all("[data-testid='#{test_id}']", minimum: 1, visible: :all)
    page.execute_script("const it = document.querySelector('[data-testid=\"#{test_id}\"]'); (it.closest('[tabindex]') || it).focus()")
  end

  def press_keys(*keys) = page.driver.browser.keyboard.type(*keys)

  # Ids of tracks that are not listened to.
  def silent(song) = Server.listened_to.silent(id, song)

  # Waits until the song on the server is as a block wants it; a slow machine is given time.
  def eventually(id, seconds: 40)
    last = nil
    deadline = Time.now + seconds
    while Time.now < deadline
      song = snapshot(id).song
      last = yield(song)
      return song if last

      sleep 0.03
    end
    raise "the song never became so (#{last.inspect})"
  end

  # Watches something until a block says of all that was seen that it is enough; a slow machine is given time.
  def watch(what, enough, seconds: 25)
    seen = []
    deadline = Time.now + seconds
    until enough.call(seen) && seen.any?
      return false if Time.now > deadline

      sleep 0.05
      seen << what.call
    end
    true
  end

  def loudness = page.find("[role=meter]")["aria-valuenow"].to_i
  def sounds? = watch(-> { loudness }, ->(seen) { seen.last.to_i > -40 && seen.any? })
  def falls_silent? = watch(-> { loudness }, ->(seen) { seen.size > 6 && seen.last(6).max < -40 })

  def points_of(song, envelope_id) = song.directory.envelope(envelope_id).envelope.points
end

RSpec.configure do |config|
  config.define_derived_metadata(file_path: %r{/spec/system/}) { |data| data[:studio] = true }
  config.include StudioHelpers, :studio
  config.before(:each, :studio) { extend Capybara::DSL, Capybara::RSpecMatchers }
end
