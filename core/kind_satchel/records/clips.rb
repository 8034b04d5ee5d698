# frozen_string_literal: true

module KindSatchel
  # Clips, notes, regions and tracks.
  module Records
    module_function

    # Remembered, since an edit leaves most of a clip's many notes as they are.
    def note(value)
      value.memo(:record) do
        { "tick" => value.tick, "length_ticks" => value.length_ticks, "pitch" => value.pitch,
          "velocity" => value.velocity }.freeze
      end
    end

    # @return [Note]
    # @raise [InvalidInput]
    def read_note(record)
      Form.note!(record)
      Note.new(tick: record["tick"], length_ticks: record["length_ticks"], pitch: record["pitch"],
               velocity: record["velocity"])
    end

    # A clip without its envelopes.
    # @param notes [Boolean] whether its notes are there
    def clip(value, notes: true)
      { "id" => value.id, "name" => value.name, "kind" => value.kind, "length_ticks" => value.length_ticks,
        **(notes ? { "notes" => value.notes.map { |entry| note(entry) } } : {}),
        "audio" => value.audio && audio(value.audio), **own_chain(value), **(value.hue ? { "hue" => value.hue } : {}),
        **(value.meter ? { "meter" => meter(value.meter) } : {}) }
    end

    # @return [Hash]
    def audio(value)
      { "sound" => value.sound, "bpm" => value.bpm,
        **(value.start_seconds.zero? ? {} : { "start_seconds" => value.start_seconds }),
        **%w[stretched backwards].select { |way| value[way] }.to_h { |way| [way, true] } }
    end

    # @return [AudioMaterial]
    # @raise [InvalidInput]
    def read_audio(record)
      Audio.new(sound: record["sound"], bpm: record["bpm"], start_seconds: record.fetch("start_seconds", 0.0),
                stretched: record.fetch("stretched", false), backwards: record.fetch("backwards", false))
    end

    # Only for a clip that has one.
    def own_chain(clip)
      return {} if clip.devices.empty? && clip.tails == "ring"

      { "devices" => clip.devices.map { |entry| device(entry) }, "tails" => clip.tails }
    end

    # @return [Clip]
    # @raise [InvalidInput]
    def read_clip(record, envelopes)
      faults = Faults.new
      notes = faults.within("") { each(record["notes"], "/notes") { |entry| read_note(entry) } }
      audio = record["audio"] && faults.within("/audio") { read_audio(record["audio"]) }
      devices = faults.within("") { each(record.fetch("devices", []), "/devices") { |entry| read_device(entry) } }
      clip = faults.within("") { clip_of(record, notes, audio, envelopes, devices) } if notes && devices
      faults.raise_any
      clip
    end

    # @return [Clip]
    def clip_of(record, notes, audio, envelopes, devices)
      Clip.new(id: record["id"], name: record["name"], kind: record["kind"], length_ticks: record["length_ticks"],
               notes:, audio:, envelopes:,
               devices:, tails: record.fetch("tails", "ring"), hue: record["hue"],
               meter: record["meter"] && read_meter(record["meter"]))
    end

    # @return [Hash]
    def region(value) = value.to_h.reject { |name, field| name == :phases && field.empty? }.transform_keys(&:to_s)

    # @return [Region]
    # @raise [InvalidInput]
    def read_region(record)
      Region.new(id: record["id"], clip_id: record["clip_id"], start_tick: record["start_tick"],
                 length_ticks: record["length_ticks"], offset_ticks: record["offset_ticks"],
                 span_ticks: record["span_ticks"], looped: record["looped"], muted: record.fetch("muted", false),
                 phases: record.fetch("phases", Region::NO_PHASES))
    end

    # A track without its lanes and regions.
    def track(value)
      { "id" => value.id, "name" => value.name, "kind" => value.kind, "hue" => value.hue, "output" => value.output,
        "devices" => value.devices.map { |entry| device(entry) } }
    end

    # @return [Track]
    # @raise [InvalidInput]
    def read_track(record, lanes, regions)
      devices = each(record["devices"], "/devices") { |entry| read_device(entry) }
      Track.new(id: record["id"], name: record["name"], kind: record["kind"], hue: record["hue"],
                output: record["output"], devices:, lanes:, regions:)
    end
  end
end
