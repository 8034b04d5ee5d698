# frozen_string_literal: true

require_relative "../app/one_song"
require_relative "../app/mixdown"
require_relative "../db/demo_song"

# The pictures of the guide, each taken of a demo song of its own.
class Pictures
  FOLDER = File.expand_path("screenshots", __dir__)
  SIZES = { desk: [1280, 800], phone: [390, 844] }.freeze
  # Which picture is of which size; each is a method below.
  ALL = { "studio" => :desk, "studio-lamplight" => :desk, "edit" => :desk, "finder" => :desk, "macros" => :desk, "satchel" => :desk, "clip" => :desk,
          "notes" => :desk, "playing-in" => :desk, "track" => :desk, "mixer" => :desk, "recording" => :desk, "hands" => :desk, "hand-over" => :desk,
          "versions" => :desk, "songs" => :desk, "phone" => :phone, "phone-sum" => :phone, "phone-surface" => :phone }.freeze
  SETTLED = "!!document.querySelector('.heard-edge') && document.querySelectorAll('.stitched').length > 2"

  # @param names [Array<String>] which
  # @param folder [String] where they go
  # @yieldparam name [String] each, before it is taken
  # @raise [RuntimeError] when something that is to be pressed is not there
  def self.take(names, folder = FOLDER)
    FileUtils.mkdir_p(folder)
    Dir.mktmpdir do |work|
      document = File.join(work, "song.json")
      File.write(document, JSON.generate(KindSatchel::Document.dump(DemoSong.build)))
      OneSong.new(document, work).served { |_, _, base| names.each { |name| yield name or new(name, base, folder).call } }
    end
  end

  def initialize(name, base, folder)
    @folder = folder
    @name = name
    @base = base
    @id = Server.shelf.add(DemoSong.build)["id"]
  end

  def call
    @browser = browser(ALL.fetch(@name))
    open_song
    send(@name.tr("-", "_"))
    sleep 0.6
    @browser.screenshot(path: File.join(@folder, "#{@name}.png"))
  ensure
    [@browser, @desk].each { |one| one&.quit }
    Server.shelf.remove(@id)
    Server.shelf.empty_bin
  end

  private

  def studio = choose(region_of("mooring"))

  def studio_lamplight
    studio
    press "Lamplight"
  end

  def edit
    @browser.mouse.click(**middle("[data-testid^='point-'][data-testid$='-1']"))
    press "At hand"
    press "Level"
  end

  def finder = press("Finder")

  def macros
    change("add_device", "track_id" => "rope-bass", "type" => "macro-strip")
    macro = "rope-bass/macro-strip/macro-1"
    { "rope-bass/synth/resonance" => ["1 dB", "9 dB"], "fog-pad/synth/spread" => ["0 ct", "50 ct"] }.each do |target, (low, high)|
      change("set_drive", "macro" => macro, "target" => target, "low" => low, "high" => high)
    end
    change("set_macro", "address" => macro, "name" => "Tide")
    change("set_knob", "address" => macro, "value" => 0.4)
    open_song
    @browser.mouse.click(**dial(macro))
    press "At hand"
  end

  def satchel
    press "Satchel"
    press "Plank gate"
  end

  def clip
    choose(region_of("mooring"))
    press "Clip"
  end

  def notes = key("d")

  def playing_in
    key("d")
    press "Keys", ".foot-tab"
    press "type to play"
  end

  def track = press("Track")
  def mixer = key("y")

  def recording
    press "Record"
    sleep 3.2
    place = dial("rope-bass/synth/cutoff")
    @browser.mouse.move(**place).down
    30.times do |i|
      @browser.mouse.move(x: place[:x], y: place[:y] - (40 * Math.sin(i / 5.0)))
      sleep 0.04
    end
  end

  def hands
    press "Hands", ".foot-tab"
    select "What the pad turns across", "Cutoff"
    select "What the pad turns up", "Resonance"
  end

  def hand_over
    Server.hand_over_shelf.choose(@id, { "limits" => Server.hand_over_shelf.sets.first["limits"] })
    open_song
    press "Hand over"
    sleep 3
  end

  def versions
    VersionShelf.keep(@id, "Before the fog")
    lane = Server.open_songs.fetch(@id).song.track("rope-bass").lanes.find { |one| one.target.parameter_id == "cutoff" }
    change("scale_points", "envelope_id" => lane.id, "runs" => [[0, 1]], "factor" => 0.5)
    VersionShelf.keep(@id, "Dry")
    press "Versions"
    press "Before the fog"
    press "Hear it"
    press "Cutoff of Mono synth on Rope Bass"
  end

  def songs
    ["Gulls at noon", "Ebb, second try"].each { |name| Server.shelf.add(DemoSong.build.with(name:)) }
    @browser.go_to(@base)
    sleep 1.5
  end

  def phone = nil
  def phone_sum = press("At hand", ".sheet-button")

  # The sound comes from a page of its own, whose knobs the surface turns.
  def phone_surface
    phone, @browser = @browser, @desk = browser(:desk)
    open_song
    press "Hands", ".foot-tab"
    press "Add a phone"
    @browser = phone
    @browser.go_to("#{@base}/songs/#{@id}/surface")
    sleep 3
  end

  def browser(size)
    width, height = SIZES.fetch(size)
    Ferrum::Browser.new(browser_path: Mixdown.browser, window_size: [width, height], timeout: 60, process_timeout: 60,
                        browser_options: { "no-sandbox" => nil, "disable-gpu" => nil, "autoplay-policy" => "no-user-gesture-required" }).tap do |made|
      phone = size == :phone
      made.page.command("Emulation.setTouchEmulationEnabled", enabled: phone)
      made.page.command("Emulation.setDeviceMetricsOverride", width:, height:, deviceScaleFactor: 1, mobile: phone)
    end
  end

  def change(name, inputs) = Server.edit_log.edit(@id, Server.open_songs.fetch(@id).revision, name, inputs)

  def open_song
    @browser.go_to("#{@base}/songs/#{@id}")
    100.times { @browser.evaluate(SETTLED) ? break : sleep(0.1) }
    sleep 0.8
  end

  def press(words, among = "button, [role=tab]")
    found = %i[== include?].lazy.filter_map do |fits|
      @browser.css(among).find { |one| [one.text.strip, one.attribute("aria-label").to_s].any? { |text| text.public_send(fits, words) } }
    end.first
    raise "There is no #{words} to press for #{@name}." unless found

    found.scroll_into_view
    found.click
    sleep 0.6
  end

  def key(letter)
    @browser.keyboard.type(letter)
    sleep 0.8
  end

  # By the words of the choice.
  def select(label, words)
    box = @browser.at_css("[aria-label='#{label}']") or raise "There is no #{label} for #{@name}."
    @browser.execute(<<~JS, box, words)
      const [box, words] = arguments;
      box.value = [...box.options].find(({ text }) => text.includes(words)).value;
      box.dispatchEvent(new Event("change", { bubbles: true }));
    JS
    sleep 0.6
  end

  def dial(address) = middle("[data-testid='knob-#{address}']").then { |at| { x: at[:x], y: at[:y] - 26 } }

  def middle(css)
    x, y = @browser.evaluate("(b => [b.x + b.width / 2, b.y + b.height / 2])(document.querySelector(#{css.to_json}).getBoundingClientRect())")
    { x:, y: }
  end

  def region_of(clip) = Server.open_songs.fetch(@id).song.track("rope-bass").regions.find { |one| one.clip_id == clip && one.start_tick.positive? }.id

  # By its name.
  def choose(region)
    x, y = @browser.evaluate("(b => [b.x, b.y])(document.querySelector('[data-testid=\"#{region}\"]').getBoundingClientRect())")
    @browser.mouse.click(x: [x, 190].max + 40, y: y + 8)
    sleep 0.6
  end
end
