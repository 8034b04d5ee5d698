# frozen_string_literal: true

module KindSatchel
  # Plain records (hashes with text keys) of each value, and back. One place for the song document, the database
  # rows, the edit log and the wire; keys come in one order, so equal values give equal text.
  #
  # For each kind of value there are two: its own name makes the record, `read_` before it reads one, and raises
  # {InvalidInput} with the place of each fault.
  module Records
    module_function

    # @example
    #   point = Point.new(tick: 0, value: 1.0, shape: Shapes::Hold::PLAIN)
    #   Records.point(point) #=> {"tick"=>0, "value"=>1.0, "shape"=>"hold"}
    # @return [Hash]
    def point(value) = { "tick" => value.tick, "value" => value.value, **Shapes.record(value.shape) }

    # @return [Point]
    # @raise [InvalidInput]
    def read_point(record)
      Form.point!(record)
      Point.new(tick: record["tick"], value: record["value"], shape: Shapes.of(record))
    end

    # @return [Hash]
    def snippet(value)
      { "role" => value.role, "length_ticks" => value.length_ticks,
        "points" => value.points.map { |entry| point(entry) } }
    end

    # @return [Snippet]
    # @raise [InvalidInput]
    def read_snippet(record)
      Snippet.new(role: record["role"], length_ticks: record["length_ticks"],
                  points: each(record["points"], "/points") { |entry| read_point(entry) })
    end

    # @return [Hash]
    def kept_move(value)
      { "name" => value.name, "tags" => value.tags, "role" => value.role, "length_ticks" => value.length_ticks,
        **(value.limits == KeptMove::FULL ? {} : { "limits" => value.limits }), **source(value),
        "points" => value.points.map { |entry| point(entry) } }
    end

    # @return [KeptMove]
    # @raise [InvalidInput]
    def read_kept_move(record)
      KeptMove.new(name: record["name"], tags: record.fetch("tags", []), role: record["role"],
                   length_ticks: record["length_ticks"],
                   limits: record.fetch("limits", KeptMove::FULL), source: Sources.of(record["source"]),
                   points: each(record["points"], "/points") { |entry| read_point(entry) })
    end

    # @return [Timing::TempoPoint]
    # @raise [InvalidInput]
    def read_tempo_point(record)
      Timing::TempoPoint.new(tick: record["tick"], bpm: record["bpm"], shape: record["shape"])
    end

    # @return [Hash]
    def envelope(value)
      { "id" => value.id, "target" => value.target.to_s, "role" => value.role, "clock" => value.clock,
        "own_length_ticks" => value.own_length_ticks, **limits(value), **source(value), **held(value),
        "on" => value.on, "fader" => value.fader,
        "points" => value.points.map { |entry| point(entry) } }
    end

    # Only where they are not full.
    def limits(value)
      limits = value.full_limits? ? {} : { "limits" => value.limits }
      value.depth == 1 ? limits : limits.merge("depth" => value.depth)
    end

    # @return [Envelope]
    # @raise [InvalidInput]
    def read_envelope(record)
      Envelope.new(id: record["id"], target: Address.parse(record["target"]), role: record["role"],
                   clock: record["clock"],
                   own_length_ticks: record["own_length_ticks"], **read_limits(record), on: record["on"],
                   fader: record.fetch("fader", "follow"),
                   source: read_source(record), held: record.fetch("held", Envelope::NOTHING),
                   points: each(record["points"], "/points") { |entry| read_point(entry) })
    end

    # Only where a hand holds some.
    def held(value) = value.held.empty? ? {} : { "held" => value.held.sort.to_h }

    # Only of what is not drawn; what points were made from stands apart.
    def source(value)
      record = Sources.record(value.source) or return {}
      value.lfo? ? { "source" => record } : { "followed" => record.except("kind") }
    end

    # @return [Sources]
    # @raise [InvalidInput]
    def read_source(record)
      record.key?("followed") ? Sources::Followed.of(record["followed"]) : Sources.of(record["source"])
    end

    # @return [Array(Float, Float)]
    # @raise [InvalidInput]
    def read_limits(record)
      { limits: record.fetch("limits") { Roles.full(record["role"]) }, depth: record.fetch("depth", 1.0) }
    end

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

    # @return [Hash]
    def device(value)
      { "id" => value.id, "type" => value.type, "values" => value.values.sort.to_h, "held" => value.held.sort.to_h,
        **(value.sound ? { "sound" => value.sound } : {}), **macros(value) }
    end

    # @return [Array<Hash>]
    def macros(value) = value.macros.empty? ? {} : { "macros" => value.macros.map { |one| macro(one) } }

    # @return [Hash]
    def macro(value)
      { "id" => value.id, "name" => value.name, "drives" => value.drives.map do |one|
        { "target" => one.target.to_s, "stops" => one.stops }
      end }
    end

    # @return [Macro]
    # @raise [InvalidInput]
    def read_macro(record)
      drives = each(record["drives"], "/drives") do |one|
        Drive.new(target: Address.parse(one["target"]), stops: one["stops"])
      end
      Macro.new(id: record["id"], name: record["name"], drives:)
    end

    # @return [Device]
    # @raise [InvalidInput]
    def read_device(record)
      macros = record.key?("macros") ? each(record["macros"], "/macros") { |one| read_macro(one) } : Device::NO_MACROS
      Device.new(id: record["id"], type: record["type"], values: record["values"], held: record["held"],
                 sound: record["sound"], macros:)
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

    # A song without its tracks and clips.
    def head(song)
      { "name" => song.name, "meter" => meter(song.meters.changes.first.meter), **meter_changes(song),
        "bpm" => song.bpm, **(song.held_bpm ? { "held_bpm" => song.held_bpm } : {}),
        "range" => song.range.to_h.transform_keys(&:to_s), "points_follow" => song.points_follow,
        "next_id" => song.next_id,
        **(if song.markers.empty?
             {}
           else
             { "markers" => song.markers.map { |marker| marker.to_h.transform_keys(&:to_s) } }
           end),
        **(song.set_aside.empty? ? {} : { "set_aside" => song.set_aside.map { |one| aside(one) } }) }
    end

    # Heads of older versions have a list of tempos; the first is the resting one, see {Older}.
    def read_head(record)
      range = record["range"]
      { name: record["name"], meters: read_meters(record),
        bpm: record.fetch("bpm") { record["tempo"][0]["bpm"] }, held_bpm: record["held_bpm"],
        range: Song::PlayRange.new(on: range["on"], start_tick: range["start_tick"], end_tick: range["end_tick"]),
        points_follow: record.fetch("points_follow", false), next_id: record["next_id"],
        markers: each(record.fetch("markers", []), "/markers") do |entry|
          Marker.new(id: entry["id"], tick: entry["tick"], name: entry["name"])
        end,
        set_aside: each(record.fetch("set_aside", []), "/set_aside") { |entry| read_aside(entry) } }
    end

    # @return [Hash]
    def aside(value) = { "check" => value.check_id, "key" => value.key, "reason" => value.reason }

    # @return [Hash]
    # @raise [InvalidInput]
    def read_aside(record) = Song::SetAside.new(check_id: record["check"], key: record["key"], reason: record["reason"])

    # @return [Hash]
    def meter(value) = { "beats" => value.beats, "unit" => value.unit }

    # @return [Timing::Meter]
    # @raise [InvalidInput]
    def read_meter(record) = Timing::Meter.new(beats: record["beats"], unit: record["unit"])

    # Only where the signature changes.
    def meter_changes(song)
      later = song.meters.changes.drop(1).map { |change| { "bar" => change.bar, **meter(change.meter) } }
      later.empty? ? {} : { "meter_changes" => later }
    end

    # @return [Timing::Meters]
    # @raise [InvalidInput]
    def read_meters(record)
      first = Timing::MeterChange.new(bar: 1, meter: read_meter(record["meter"]))
      later = each(record.fetch("meter_changes", []), "/meter_changes") do |entry|
        Timing::MeterChange.new(bar: entry["bar"], meter: read_meter(entry))
      end
      Timing::Meters.new(changes: [first, *later])
    end

    # Reads a list; the faults of all its entries come back at once, each under its place.
    def each(list, path)
      faults = Faults.new
      values = list.each_with_index.map do |entry, i|
        break if faults.full?

        faults.within("#{path}/#{i}") do
          yield entry
        end
      end
      faults.raise_any
      values
    end
  end
end
