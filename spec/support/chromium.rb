# frozen_string_literal: true

# The real browser, for the interface and for its audio engine as an outside reference.
module ChromiumHelpers
  SIZES = { desk: [1280, 800], phone: [390, 844] }.freeze

  def self.start
    return if @started

    require "capybara/rspec"
    require "capybara/cuprite"
    SIZES.each { |name, size| register(name, size) }
    Capybara.configure do |config|
      config.app = Server
      config.server = :puma, { Silent: true, Threads: "2:6" }
      config.server_host = "127.0.0.1"
      config.default_max_wait_time = 20
      config.enable_aria_label = true
      config.default_driver = config.javascript_driver = :desk
    end
    @started = true
  end

  def self.register(name, size)
    Capybara.register_driver(name) do |app|
      Capybara::Cuprite::Driver.new(
        app, window_size: size, browser_path: "/usr/bin/chromium", timeout: 90, process_timeout: 60, js_errors: true,
        browser_options: { "no-sandbox" => nil, "disable-gpu" => nil, "disable-background-networking" => nil, "disable-quic" => nil,
                           "autoplay-policy" => "no-user-gesture-required" }
      )
    end
  end
end

# What examples leave in a browser, taken back. The tab stays: a page comes up a third sooner in it than in a new one.
module TabHelpers
  UNLIMITED = { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: -1 }.freeze

  module_function

  def clear_all
    Capybara.send(:session_pool).each_value { |session| clear(session) if session.driver.instance_variable_get(:@browser) }
  end

  def clear(session)
    tab = session.driver.browser.page
    tab.command("Network.emulateNetworkConditions", **UNLIMITED)
    session.visit "/satchel.svg"
    tab.command("Storage.clearDataForOrigin", origin: session.evaluate_script("location.origin"), storageTypes: "all")
    tab.command("Emulation.setTouchEmulationEnabled", enabled: false)
    tab.command("Emulation.setEmulatedMedia", media: "", features: [])
    session.driver.resize(*ChromiumHelpers::SIZES.fetch(session.mode))
  rescue Ferrum::Error
    session.reset!
  end
end

RSpec.configure do |config|
  config.define_derived_metadata(file_path: %r{/spec/reference/chromium}) { |data| data[:app] = data[:browser] = true }
  config.define_derived_metadata(file_path: %r{/spec/system/}) { |data| data[:browser] = true }
  config.before(:context, :browser) do
    ChromiumHelpers.start
    extend Capybara::DSL
  end
  config.include(Module.new { def page = Capybara.current_session }, :browser)
  config.after(:each, :browser) do |example|
    example.exception || Capybara.send(:session_pool).any? { |name, _| name.include?("far") } ? Capybara.reset_sessions! : TabHelpers.clear_all
    Capybara.use_default_driver
  end
end
