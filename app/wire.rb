# frozen_string_literal: true

# What the client gets of parts beyond what is stored: numbers it would else work out itself.
module Wire
  module_function

  # Of an envelope with more points than this, none is written out.
  MOST_WRITTEN = 5000

  # @param song [KindSatchel::Song] the song they are from
  # @param parts [Array<Array>] [kind, id, record]
  # @return [Array<Array>]
  def parts(song, parts) = parts.map { |kind, id, record| [kind, id, record && part(song, kind, record)] }

  # @param kind [String] of the part, see {KindSatchel::Parts}
  # @return [Hash] the record as the page takes it, with what only the core knows
  def part(song, kind, record)
    case kind
    when "song" then head(record)
    when "envelope" then envelope(song, record)
    else record
    end
  end

  # A part for a first look, or for playing: as {SongRows::SLIM} has it.
  def slim(kind, record)
    case kind
    when "song" then head(record)
    when "envelope" then record.merge("acts" => acts?(record), "points" => [])
    when "clip" then record.merge("notes" => [])
    else record
    end
  end

  def acts?(record) = record["on"] && !(record["points"].empty? && record["source"].nil?)

  # `line` is what makes an amount of a point's value, where limits or depth are not full; `knobs` are its settings,
  # normalised, where they are not as they begin.
  def envelope(song, record)
    line = record.key?("limits") || record.key?("depth") ? line(record) : nil
    points = written(song, record, line || PLAIN)
    record.merge("acts" => acts?(record), "points" => points, **(line ? { "line" => line } : {}), **knobs(record),
                 **followed(record))
  end

  # All that points were made with, also where it is as it begins; and whether they are as they were made.
  def followed(record)
    return {} unless record.key?("followed")

    plain = KindSatchel::Sources::Followed::PLAIN.compact.transform_keys(&:to_s)
    as_made = KindSatchel::Records.read_envelope(record).followed?
    { "followed" => { **plain, **record["followed"], "as_made" => as_made } }
  end

  # Amounts that are the values of points.
  PLAIN = [1.0, 0.0].freeze

  # @return [Array(Float, Float), nil] factor and offset of the amounts of an envelope with points
  def line(record)
    bare = KindSatchel::Records.read_envelope(record.merge("points" => []))
    bare.amount_line unless bare.lfo?
  end

  # @return [Hash] the settings of a move with their texts
  def knobs(record)
    return {} unless record.key?("source") || record.key?("limits") || record.key?("depth")

    bare = KindSatchel::Records.read_envelope(record.merge("points" => []))
    { "knobs" => KindSatchel::Settings.names(bare).to_h { |name| [name, KindSatchel::Settings.knob(bare, name)] } }
  end

  # The points, each with its amount as people write it.
  # @param line [Array(Float, Float)] amount = value * first + second
  def written(song, record, (factor, offset))
    points = record["points"]
    scale = song.parameter?(KindSatchel::Address.parse(record["target"]))&.scale
    return points if scale.nil? || points.size > MOST_WRITTEN

    rules = KindSatchel::Roles::ALL.fetch(record["role"])
    points.map { |point| point.merge("text" => rules.amount_text(scale, (point["value"] * factor) + offset)) }
  end

  # The time signatures in one list, with the tick and the bar each begins at, and how many ticks a beat and a bar have.
  def head(record)
    sections = KindSatchel::Records.read_meters(record).sections.map do |one|
      { "bar" => one.bar, "tick" => one.tick, **KindSatchel::Records.meter(one.meter),
        "beat_ticks" => one.meter.beat_ticks, "bar_ticks" => one.meter.bar_ticks }
    end
    tempo = KindSatchel::Owners::OfSong::TEMPO.scale.normalised(record["held_bpm"] || record["bpm"])
    record.except("meter", "meter_changes", "set_aside").merge("meters" => sections, "tempo_knob" => tempo)
  end
end
