# frozen_string_literal: true

# The page itself, the documents of the project, and the schemas for whoever wants to write songs by program.
module Pages
  # What makes the page keep itself and the last song in the browser.
  INSTALLABLE = ' data-installable="yes"'

  # @return [String] the page
  def self.page(settings)
    text = File.read(File.join(settings.public_folder, "index.html"))
    settings.installable ? text : text.sub(INSTALLABLE, "")
  end

  # The page of a song asks for the song while its script is still on the way.
  def self.opening(page, id)
    links = ["/api/songs/#{id}", "/api/catalogue"].map do |path|
      %(<link rel="preload" as="fetch" crossorigin href="#{path}">)
    end
    page.sub("</head>", "#{links.join}</head>")
  end

  # The address of the page's styles, which the build names.
  def self.styles(settings) = page(settings)[%r{/assets/[\w-]+\.css}].to_s

  def self.registered(app)
    app.mime_type :webmanifest, "application/manifest+json"
    app.get("/") { Pages.page(settings) }
    app.get("/songs/:id") { Pages.opening(Pages.page(settings), asked!(:id)) }

    documents(app)
    app.get("/schemas/*") do
      name = asked!(:splat)
      file = Schemas::FOLDER.join(name).cleanpath
      unless name.match?(%r{\A[a-z_/]+\.json\z}) && file.file?
        halt_with(404, "unknown_schema",
                  "There is no such schema.")
      end
      send_file file.to_s, type: :json
    end
  end

  # Pictures of documents change as seldom as the app.
  def self.documents(app)
    app.get("/api/help") { json(Guide.help) }
    app.get("/docs/?") { redirect to("/docs/#{Guide::CONTENTS}") }
    app.get("/docs/*") do
      name = asked!(:splat)
      file = Guide.file(name) or halt_with(404, "unknown_page", "There is no such page.")
      next send_file(file.to_s) if file.extname == ".png"

      content_type :html
      Guide.page(name, styles: Pages.styles(settings))
    end
  end
  private_class_method :documents
end
