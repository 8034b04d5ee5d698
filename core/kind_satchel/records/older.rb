# frozen_string_literal: true

module KindSatchel
  # Records as older versions wrote them, brought to today's form, one by one. Logs and patches of old still hold
  # them; a record of today comes back as it is.
  module Older
    # Targets that begin with what is kept for other things than tracks, and mean those: effects of clips, settings of
    # moves, the tempo.
    TODAY = %r{\A(?:#{Address::CHAIN}|#{Address::MOVE}/[^/]+/(?:#{Settings::NAMES.join('|')})\z|#{Address.tempo}\z)}

    module_function

    # @param kind [String] track, clip, envelope; others are as they were
    # @param record [Hash]
    # @param chains [Boolean] whether targets may be effects of clips and settings of moves, which version 1 did not
    #   have
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
      changes = { "id" => record.key?("devices") ? free(record["id"]) : record["id"],
                  "output" => record["output"] && free(record["output"]),
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

    # Versions 1 and 2 had a range in place of limits: `low + value (high - low)`, for a shift too. Where that leads
    # to limits which cannot be, it is taken into the points.
    def limited(record, low, high)
      return record if low.zero? && high == 1
      return record.merge("limits" => [low, high]) unless record["role"] == "shift"

      least = (2 * low) - high
      return record.merge("limits" => [least, high]) if least.between?(-1, 1)

      record.merge("points" => Baked.points(record["points"], low, high).map { |point| Records.point(point) })
    end
    private_class_method :renamed, :target, :free, :track, :device, :clip, :kind, :envelope, :limited

    # A range of a shift taken into its points. Where that leads past what a shift may hold, points stand where the
    # curve leaves and comes back, to the tick, and it stays at the end in between, which is heard alike where nothing
    # else shifts.
    module Baked
      MOST = (-1.0..1.0)

      module_function

      # @param records [Array<Hash>] points
      # @return [Array<Point>]
      def points(records, low, high)
        list = records.map do |record|
          [record["tick"], low + (record["value"] * (high - low)), Shapes.of(record).scaled(high - low)]
        end
        parts = list.each_cons(2).map { |one, two| segment(one, two) }
        Splice.chain([*parts, [edge(*list.last.first(2))]].reject(&:empty?))
      end

      # @return [Array<Point>] of one segment, with both its ends
      def segment((from, first, shape), (to, last))
        return [] if to == from

        ends = Shapes::Ends.new(first, last, to - from)
        inside = MOST.cover?(first) && MOST.cover?(last) && !shape.is_a?(Shapes::Cycle)
        return [Point.new(tick: from, value: first, shape:), edge(to, last)] if inside

        value = ->(tick) { tick == to ? last : Shapes.value_at(shape, ends, (tick - from).fdiv(to - from)) }
        runs = (from..to).chunk_while do |one, two|
          MOST.cover?(value.call(one)) == MOST.cover?(value.call(two))
        end.map { |run| [run.first, run.last] }
        place = ->(tick) { (tick - from).fdiv(ends.ticks) }
        runs.flat_map { |run| part(run, shape, ends, place, value) }
      end

      # Stays in or out: cut from the segment, or level at the end.
      def part((start, finish), shape, ends, place, value)
        a, b = [start, finish].map { |tick| value.call(tick).clamp(MOST) }
        return [edge(start, a, Shapes::Straight::PLAIN)] if start == finish
        return [edge(start, a), edge(finish, a, Shapes::Straight::PLAIN)] unless MOST.cover?(value.call(start))

        cut = shape.cut(place.call(start), place.call(finish), ends, Shapes::Ends.new(a, b))
        [Point.new(tick: start, value: a, shape: cut), edge(finish, b, Shapes::Straight::PLAIN)]
      end

      def edge(tick, value, shape = Shapes::Hold::PLAIN) = Point.new(tick:, value: value.clamp(MOST), shape:)
      private_class_method :segment, :part, :edge
    end
    private_constant :Baked
  end
end
