# frozen_string_literal: true

# The real browser, for the interface and for its audio engine as an outside reference.
module ChromiumHelpers
  SIZES = { desk: [1280, 800], phone: [390, 844] }.freeze

  # Between examples the page goes and all it stored with it, while the browser keeps the scripts that it fetched and
  # compiled: a page opens in half the time.
  module KeptContext
    def reset
      context = default_context
      before = context.pages
      @page = attach_page(context.create_target.id)
      before.each(&:close)
      wait_until_closed(before)
      @page.command("Storage.clearDataForOrigin", origin: Capybara.current_session.server.base_url, storageTypes: "all")
      @options.reset_window_size
    rescue Ferrum::Error
      super
    end

    private

    # What a page writes as it goes is cleared with the rest.
    def wait_until_closed(pages)
      ids = pages.map(&:target_id)
      100.times { default_context.targets.keys.intersect?(ids) ? sleep(0.01) : break }
    end
  end

  def self.start
    return if @started

    require "capybara/rspec"
    require "capybara/cuprite"
    Capybara::Cuprite::Browser.prepend(KeptContext)
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

RSpec.configure do |config|
  config.define_derived_metadata(file_path: %r{/spec/reference/chromium}) { |data| data[:app] = data[:browser] = true }
  config.define_derived_metadata(file_path: %r{/spec/system/}) { |data| data[:browser] = true }
  config.before(:context, :browser) do
    ChromiumHelpers.start
    extend Capybara::DSL
  end
  config.include(Module.new { def page = Capybara.current_session }, :browser)
  config.after(:each, :browser) do
    Capybara.reset_sessions!
    Capybara.use_default_driver
  end
end
