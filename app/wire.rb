# frozen_string_literal: true

# What the client gets of parts beyond what is stored: numbers it would else work out itself.
module Wire
  module_function

  # @param parts [Array<Array>] [kind, id, record]
  # @return [Array<Array>]
  def parts(parts) = parts.map { |kind, id, record| [kind, id, record && part(kind, record)] }

  def part(kind, record)
    case kind
    when "song" then head(record)
    when "envelope" then record.merge("acts" => record["on"] && !record["points"].empty?)
    else record
    end
  end

  # How many ticks a beat and a bar have.
  def head(record)
    meter = KindSatchel::Timing::Meter.new(beats: record["meter"]["beats"], unit: record["meter"]["unit"])
    record.merge("meter" => record["meter"].merge("beat_ticks" => meter.beat_ticks, "bar_ticks" => meter.bar_ticks))
  end
end
