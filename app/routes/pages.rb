# frozen_string_literal: true

# The page itself, the sounds, and the schemas for whoever wants to write songs by program.
module Pages
  def self.registered(app)
    page = -> { send_file File.join(settings.public_folder, "index.html"), type: :html }
    app.get("/") { instance_exec(&page) }
    app.get("/songs/:id") { instance_exec(&page) }

    app.get("/sounds/:name.wav") do
      halt_with(404, "unknown_sound", "There is no such sound.") unless params[:name].match?(/\A[a-z0-9-]+\z/)
      file = File.join(settings.sounds_folder, "#{params[:name]}.wav")
      halt_with(404, "unknown_sound", "There is no sound #{params[:name]}.") unless File.exist?(file)
      cache_control :public, max_age: 3600
      send_file file
    end

    app.get("/schemas/*") do
      name = params[:splat].first
      file = Schemas::FOLDER.join(name).cleanpath
      halt_with(404, "unknown_schema", "There is no such schema.") unless name.match?(%r{\A[a-z_/]+\.json\z}) && file.file?
      send_file file.to_s, type: :json
    end
  end
end
