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
    when "envelope" then record.merge("acts" => record["on"] && !record["points"].empty?, "points" => written(song, record))
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

  # How many ticks a beat and a bar have.
  def head(record)
    meter = KindSatchel::Timing::Meter.new(beats: record["meter"]["beats"], unit: record["meter"]["unit"])
    record.merge("meter" => record["meter"].merge("beat_ticks" => meter.beat_ticks, "bar_ticks" => meter.bar_ticks))
  end
end
