# frozen_string_literal: true

module KindSatchel
  # Plain records (hashes with text keys) of each value, and back. One place for the song document, the database
  # rows, the edit log and the wire; keys come in one order, so equal values give equal text.
  module Records
    module_function

    def point(value) = { "tick" => value.tick, "value" => value.value, **Shapes.record(value.shape) }

    def read_point(record)
      Form.point!(record)
      Point.new(tick: record["tick"], value: record["value"], shape: Shapes.of(record))
    end

    def snippet(value)
      { "role" => value.role, "length_ticks" => value.length_ticks, "points" => value.points.map { |entry| point(entry) } }
    end

    def read_snippet(record)
      Snippet.new(role: record["role"], length_ticks: record["length_ticks"], points: each(record["points"], "/points") { |entry| read_point(entry) })
    end

    def tempo_point(value) = value.to_h.transform_keys(&:to_s)
    def read_tempo_point(record) = Timing::TempoPoint.new(tick: record["tick"], bpm: record["bpm"], shape: record["shape"])

    def envelope(value)
      { "id" => value.id, "target" => value.target.to_s, "role" => value.role, "clock" => value.clock,
        "own_length_ticks" => value.own_length_ticks, "range" => value.range, "on" => value.on, "fader" => value.fader,
        "points" => value.points.map { |entry| point(entry) } }
    end

    def read_envelope(record)
      Envelope.new(id: record["id"], target: Address.parse(record["target"]), role: record["role"],
                   clock: record["clock"], own_length_ticks: record["own_length_ticks"], range: record["range"],
                   on: record["on"], fader: record.fetch("fader", "follow"), points: each(record["points"], "/points") { |entry| read_point(entry) })
    end

    def note(value)
      { "tick" => value.tick, "length_ticks" => value.length_ticks, "pitch" => value.pitch, "velocity" => value.velocity }
    end

    def read_note(record)
      Form.note!(record)
      Note.new(tick: record["tick"], length_ticks: record["length_ticks"], pitch: record["pitch"], velocity: record["velocity"])
    end

    # A clip without its envelopes.
    def clip(value)
      { "id" => value.id, "name" => value.name, "kind" => value.kind, "length_ticks" => value.length_ticks,
        "notes" => value.notes.map { |entry| note(entry) },
        "audio" => value.audio && { "sound" => value.audio.sound, "bpm" => value.audio.bpm } }
    end

    def read_clip(record, envelopes)
      faults = Faults.new
      notes = faults.within("") { each(record["notes"], "/notes") { |entry| read_note(entry) } }
      audio = record["audio"] && faults.within("/audio") { Audio.new(sound: record["audio"]["sound"], bpm: record["audio"]["bpm"]) }
      clip = faults.within("") { clip_of(record, notes || [], audio, envelopes) } if notes
      faults.raise_any
      clip
    end

    def clip_of(record, notes, audio, envelopes)
      Clip.new(id: record["id"], name: record["name"], kind: record["kind"], length_ticks: record["length_ticks"], notes:, audio:, envelopes:)
    end

    def region(value) = value.to_h.transform_keys(&:to_s)

    def read_region(record)
      Region.new(id: record["id"], clip_id: record["clip_id"], start_tick: record["start_tick"],
                 length_ticks: record["length_ticks"], offset_ticks: record["offset_ticks"],
                 span_ticks: record["span_ticks"], looped: record["looped"], muted: record.fetch("muted", false))
    end

    # A track without its lanes and regions.
    def track(value)
      { "id" => value.id, "name" => value.name, "kind" => value.kind, "hue" => value.hue, "output" => value.output,
        "devices" => value.devices.map { |d| { "id" => d.id, "type" => d.type, "values" => d.values.sort.to_h, "held" => d.held.sort.to_h } } }
    end

    def read_track(record, lanes, regions)
      devices = each(record["devices"], "/devices") { |d| Device.new(id: d["id"], type: d["type"], values: d["values"], held: d["held"]) }
      Track.new(id: record["id"], name: record["name"], kind: record["kind"], hue: record["hue"],
                output: record["output"], devices:, lanes:, regions:)
    end

    # A song without its tracks and clips.
    def head(song)
      { "name" => song.name, "meter" => { "beats" => song.meter.beats, "unit" => song.meter.unit },
        "tempo" => song.tempo.points.map { |entry| tempo_point(entry) },
        "range" => song.range.to_h.transform_keys(&:to_s), "points_follow" => song.points_follow, "next_id" => song.next_id }
    end

    def read_head(record)
      meter, range = record["meter"], record["range"]
      tempo = each(record["tempo"], "/tempo") { |entry| read_tempo_point(entry) }
      { name: record["name"], meter: Timing::Meter.new(beats: meter["beats"], unit: meter["unit"]),
        tempo: Timing::TempoMap.new(points: tempo),
        range: Song::PlayRange.new(on: range["on"], start_tick: range["start_tick"], end_tick: range["end_tick"]),
        points_follow: record.fetch("points_follow", false), next_id: record["next_id"] }
    end

    # Reads a list; the faults of all its entries come back at once, each under its place.
    def each(list, path)
      faults = Faults.new
      values = list.each_with_index.map { |entry, i| faults.full? ? break : faults.within("#{path}/#{i}") { yield entry } }
      faults.raise_any
      values
    end
  end
end
