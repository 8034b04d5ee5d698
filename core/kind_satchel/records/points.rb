# frozen_string_literal: true

module KindSatchel
  # Points, and all that is made of them: moves, snippets, kept moves.
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
  end
end
