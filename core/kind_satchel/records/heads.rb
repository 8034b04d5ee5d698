# frozen_string_literal: true

module KindSatchel
  # What a song has beside its tracks and clips.
  module Records
    module_function

    # A song without its tracks and clips.
    def head(song)
      { "name" => song.name, "meter" => meter(song.meters.changes.first.meter), **meter_changes(song),
        "bpm" => song.bpm, **(song.held_bpm ? { "held_bpm" => song.held_bpm } : {}),
        "range" => song.range.to_h.transform_keys(&:to_s), "points_follow" => song.points_follow,
        "next_id" => song.next_id,
        **some("markers", song.markers) { |marker| marker.to_h.transform_keys(&:to_s) },
        **some("set_aside", song.set_aside) { |entry| aside(entry) } }
    end

    # A list under its key; nothing where it is empty.
    def some(key, list, &) = list.empty? ? {} : { key => list.map(&) }

    # Heads of older versions have a list of tempos; the first is the resting one, see {Older}.
    def read_head(record)
      range = record["range"]
      { name: record["name"], meters: read_meters(record),
        bpm: record.fetch("bpm") { record["tempo"][0]["bpm"] }, held_bpm: record["held_bpm"],
        range: PlayRange.new(on: range["on"], start_tick: range["start_tick"], end_tick: range["end_tick"]),
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
    def read_aside(record) = SetAside.new(check_id: record["check"], key: record["key"], reason: record["reason"])

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
  end
end
