# frozen_string_literal: true

require_relative "sources/drawn"
require_relative "sources/lfo"
require_relative "sources/lfo_points"
require_relative "sources/followed"

module KindSatchel
  # Where what an envelope gives over time comes from. A new source is one file, one line here and its settings in
  # `schemas/song.json` and `schemas/wire.json`. Every source is a frozen value that answers, for an envelope `e` that
  # has it:
  #
  # - `acts?(e)` whether it gives anything; `line(e)` factor and offset that make an amount of what it gives (see
  #   {Limits})
  # - `at(e, position)` the amount at a position
  # - `each_segment(e, run)` yields [run, segment] for every smooth stretch that reaches into a run, in order: the
  #   segment lies in the own time of the run yielded
  # - `points(e, from, to)` the same as points in amounts, from tick 0, the first at `from`, the last at `to`
  # - `check_with(e)` what must hold between the two; `swing(e)` least and most of all it can give, nil where its
  #   points tell
  # - `settings`, and `of(settings)` on the class
  module Sources
    ALL = Registry.new("source", "drawn" => Drawn, "lfo" => Lfo, "followed" => Followed)

    # @param record [Hash, nil] `"kind"` and that source's own settings; nil for drawn points
    # @raise [InvalidInput]
    def self.of(record) = record ? ALL.fetch(record["kind"]).of(record) : Drawn::PLAIN

    # @example
    #   Sources.record(Drawn::PLAIN) #=> nil
    # @return [Hash, nil] nil for drawn points
    def self.record(source) = source.is_a?(Drawn) ? nil : { "kind" => ALL.id_of(source.class), **source.settings }
  end

  # What limits and depth make of a value: it runs from `low` to `high`, then is drawn towards rest.
  module Limits
    module_function

    # @param envelope [Envelope]
    # @param least [Float] the value that comes to the lower limit
    # @param most [Float] the value that comes to the upper one
    # @return [Array(Float, Float)] amount = value * factor + offset
    def line(envelope, least, most)
      low, high = envelope.limits
      factor = (high - low) / (most - least)
      offset = low - (least * factor)
      rest = envelope.role_rules.neutral || ((low + high) / 2)
      [factor * envelope.depth, rest + (envelope.depth * (offset - rest))]
    end
  end
end
