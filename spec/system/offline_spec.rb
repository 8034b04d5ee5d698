# frozen_string_literal: true

# The page kept in the browser: it can be installed, and shows and plays the last song while the server is away.
RSpec.describe "While the server is away" do
  around do |example|
    Server.set :installable, true
    example.run
  ensure
    Server.set :installable, false
    page.driver.browser.page.command("Storage.clearDataForOrigin", origin: page.server.base_url, storageTypes: "all")
  end

  let(:id) { plant }

  # Requests end unanswered, as where nobody listens.
  def away
    allow(Server).to receive(:call) { |env| env["rack.hijack"].call.close && [-1, {}, []] }
    yield
  ensure
    allow(Server).to receive(:call).and_call_original
  end

  def awaited(script) = page.evaluate_async_script("(async () => { #{script} })().then(arguments[0])")
  def kept_revision = awaited("return (await (await caches.match('/kept-song'))?.json())?.offline.revision ?? 0")
  def kept?(wanted = revision(id)) = watch(-> { kept_revision }, ->(seen) { seen.last == wanted })

  def turn(by)
    focus("knob-rope-bass/synth/cutoff")
    page.find("[data-testid='knob-rope-bass/synth/cutoff'] [role=slider]").tap(&:click).send_keys(by)
  end

  it "shows and plays the last song, says so and changes nothing; and goes on by itself when the server is back", :long do
    open_song(id)
    click_on "Rope Bass", exact: true
    expect(kept?).to be true
    before = revision(id)
    turn(:up)
    eventually(id) { revision(id) > before }
    expect(kept?).to be true
    away do
      visit "/songs/#{id}"
      expect(page).to have_css("[role=status]", text: "Offline: as kept on")
      expect(page).to have_css("[data-testid^='heard-'] path", minimum: 1)
      page.find("body").send_keys(:space)
      expect(sounds?).to be true
      page.find("body").send_keys(:space)
      turn(:down)
      expect(page).to have_css("[role=alert]", text: "nothing was changed")
      visit "/"
      expect(page).to have_css("li[aria-label='Low Tide Market']", text: "kept for offline")
      click_on "Open"
      expect(page).to have_text("Rope Bass")
    end
    expect(page).to have_no_css("[role=status]", text: "Offline")
    edit(id, "set_tempo", { tick: 0, bpm: 81 })
    expect(page).to have_field("Tempo", with: /81/)
  end

  it "says of a song that is too large that it will not open then" do
    stub_const("OfflineCopy::LARGEST", 1024)
    open_song(id)
    expect(page).to have_css("[role=alert]", text: "This song will not open while the server is away. What shows and plays this song comes to 1 MB")
    expect(kept_revision).to eq 0
  end

  it "can be installed, and gives way to a newer build" do
    open_song(id)
    expect(awaited("return (await navigator.serviceWorker.ready).active.state")).to match(/activat/)
    manifest = page.driver.browser.page.command("Page.getAppManifest")
    expect(manifest["errors"]).to be_empty
    # A browser without a profile installs nothing; there is no other objection.
    objections = page.driver.browser.page.command("Page.getInstallabilityErrors")["installabilityErrors"]
    expect(objections.map { |one| one["errorId"] } - ["in-incognito"]).to be_empty
    Dir.mktmpdir do |folder|
      FileUtils.cp_r("#{Server.public_folder}/.", folder)
      File.write("#{folder}/service-worker.js", "// newer\n", mode: "a")
      File.write("#{folder}/index.html", File.read("#{folder}/index.html").sub("<title>Kind Satchel", "<title>Newer Kind Satchel"))
      stood = Server.public_folder
      Server.set :public_folder, folder
      awaited("await (await navigator.serviceWorker.ready).update()")
      expect(page).to have_css("[role=status]", text: "A newer Kind Satchel is here")
      click_on "Go on"
      expect(page).to have_title("Newer Kind Satchel", wait: 20)
      expect(page).to have_text("Rope Bass")
      expect(awaited("return (await navigator.serviceWorker.getRegistration()).waiting")).to be_nil
    ensure
      Server.set :public_folder, stood
    end
  end
end
