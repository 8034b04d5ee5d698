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

  def part(song, kind, record)
    case kind
    when "song" then head(record)
    when "envelope" then record.merge("acts" => record["on"] && !(record["points"].empty? && record["source"].nil?), "points" => written(song, record))
    else record
    end
  end

  # The points, each with its value as people write it.
  def written(song, record)
    points = record["points"]
    scale = song.parameter?(KindSatchel::Address.parse(record["target"]))&.scale
    return points if scale.nil? || points.size > MOST_WRITTEN

    rules = KindSatchel::Roles::ALL.fetch(record["role"])
    points.map { |point| point.merge("text" => rules.amount_text(scale, point["value"])) }
  end

  # The time signatures in one list, with the tick and the bar each begins at, and how many ticks a beat and a bar have.
  def head(record)
    sections = KindSatchel::Records.read_meters(record).sections.map do |one|
      { "bar" => one.bar, "tick" => one.tick, **KindSatchel::Records.meter(one.meter), "beat_ticks" => one.meter.beat_ticks, "bar_ticks" => one.meter.bar_ticks }
    end
    record.except("meter", "meter_changes").merge("meters" => sections)
  end
end
