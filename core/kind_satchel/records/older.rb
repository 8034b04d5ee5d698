# frozen_string_literal: true

module KindSatchel
  # Records as older versions wrote them, brought to today's form, one by one. Logs and patches of old still hold them; a record
  # of today comes back as it is.
  module Older
    module_function

    # @param kind [String] track, clip, envelope; others are as they were
    # @param record [Hash]
    # @param chains [Boolean] whether targets that begin with `clip-` may be effects of clips, which version 1 did not have
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
                  "target" => record["target"]&.sub(%r{\A[^/]+}) { |id| chains && id.start_with?(Address::CHAIN) ? id : free(id) }, "owner" => record["owner"]&.sub(%r{(?<=\Atrack/).+\z}) { |id| free(id) } }
      changes = changes.slice(*record.keys).reject { |name, text| record[name] == text }
      changes.empty? ? record : record.merge(changes)
    end

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
      own && own < Timing::SHORTEST_TICKS ? record.merge("own_length_ticks" => Timing::SHORTEST_TICKS) : record
    end
    private_class_method :renamed, :free, :track, :device, :clip, :kind, :envelope
  end
end
