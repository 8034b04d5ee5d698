# frozen_string_literal: true

module KindSatchel
  # Records as older versions wrote them, brought to today's form, one by one. Logs and patches of old still hold them; a record
  # of today comes back as it is.
  module Older
    # Targets that begin with what is kept for other things than tracks, and mean those: effects of clips, settings of moves, the tempo.
    TODAY = %r{\A(?:#{Address::CHAIN}|#{Address::MOVE}/[^/]+/(?:#{Settings::NAMES.join('|')})\z|#{Address.tempo}\z)}

    module_function

    # @param kind [String] track, clip, envelope; others are as they were
    # @param record [Hash]
    # @param chains [Boolean] whether targets may be effects of clips and settings of moves, which version 1 did not have
    # @return [Hash]
    def record(kind, record, chains: false)
      case kind
      when "track" then track(renamed(record))
      when "clip" then clip(record)
      when "envelope" then envelope(renamed(record, chains:))
      when "region" then renamed(record)
      else record
      end
    end

    # The key of a part, see {Parts}.
    def key(kind, id) = [kind, kind == "track" ? free(id) : id]

    # Tracks whose ids are kept for other things now have others, wherever they are named.
    def renamed(record, chains: false)
      changes = { "id" => record.key?("devices") ? free(record["id"]) : record["id"], "output" => record["output"] && free(record["output"]),
                  "target" => record["target"] && target(record["target"], chains),
                  "owner" => record["owner"]&.sub(%r{(?<=\Atrack/).+\z}) { |id| free(id) } }
      changes = changes.slice(*record.keys).reject { |name, text| record[name] == text }
      changes.empty? ? record : record.merge(changes)
    end

    def target(text, chains) = chains && TODAY.match?(text) ? text : text.sub(%r{\A[^/]+}) { |id| free(id) }

    def free(id) = Address::RESERVED.match?(id) ? "track-#{id}" : id

    # Held values were kept in the place of resting ones; the hand's value is taken for both.
    def track(record)
      return record unless record["devices"].any? { |device| !device["held"].is_a?(Hash) }

      record.merge("devices" => record["devices"].map { |device| device(device) })
    end

    def device(record)
      held = record.fetch("held", [])
      return record if held.is_a?(Hash)

      values = record["values"]
      defaults = Devices::TYPES.fetch(record["type"]).parameters
      record.merge("held" => held.to_h { |id| [id, values.fetch(id) { defaults[id]&.default || 0.0 }] })
    end

    # A clip's kind was guessed from what it held.
    def clip(record)
      length = [record["length_ticks"], Clip::SHORTEST_TICKS].max
      return record if record["kind"] && length == record["length_ticks"]

      { **record.slice("id", "name"), "kind" => record["kind"] || kind(record), **record, "length_ticks" => length }
    end

    def kind(record)
      return "audio" if record["audio"]

      record["notes"].empty? ? "carrier" : "notes"
    end

    def envelope(record)
      own = record["own_length_ticks"]
      record = record.merge("own_length_ticks" => Timing::SHORTEST_TICKS) if own && own < Timing::SHORTEST_TICKS
      record.key?("range") ? limited(record.except("range"), *record["range"]) : record
    end

    # Versions 1 and 2 had a range in place of limits: `low + value (high - low)`, for a shift too. Where that leads to limits which
    # cannot be, it is taken into the points.
    def limited(record, low, high)
      return record if low.zero? && high == 1
      return record.merge("limits" => [low, high]) unless record["role"] == "shift"

      least = (2 * low) - high
      return record.merge("limits" => [least, high]) if least.between?(-1, 1)

      record.merge("points" => record["points"].map { |point| scaled(point, low, high) })
    end

    def scaled(record, low, high)
      shape = Shapes.of(record).scaled(high - low)
      value = (low + (record["value"] * (high - low))).clamp(-1.0, 1.0)
      Records.point(Point.new(tick: record["tick"], value:, shape:))
    end
    private_class_method :renamed, :target, :free, :track, :device, :clip, :kind, :envelope, :limited, :scaled
  end
end
