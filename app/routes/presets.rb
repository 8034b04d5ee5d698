# frozen_string_literal: true

# Settings of devices and chains under names: listed, kept, let go of.
module PresetRoutes
  def self.registered(app)
    app.error(PresetShelf::Missing) { halt_with(404, "unknown_preset", "There is no such preset.") }
    app.get("/api/presets") { json(settings.presets.list) }
    app.post("/api/presets") do
      status 201
      data = body_json
      json(settings.presets.keep(*data.values_at("name", "device", "devices")))
    end
    app.delete("/api/presets/:id") do
      settings.presets.remove(asked!(:id))
      json({})
    end
  end
end
