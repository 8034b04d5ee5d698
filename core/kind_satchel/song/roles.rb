# frozen_string_literal: true

require_relative "roles/set"
require_relative "roles/scale"
require_relative "roles/shift"
require_relative "roles/trim"

module KindSatchel
  # How an envelope acts. For one parameter one value is set, then everything scales it, then everything shifts it,
  # wherever the envelopes live; {ALL} lists the roles in that order. Each answers
  #
  # - `apply(scale, before, amount)` the normalised value afterwards, not yet limited
  # - `values`  the range its points may lie in, `neutral` the amount that changes nothing
  # - `amount(scale, before, wanted)` the amount that makes `wanted` of `before`, not yet limited
  # - `amount_text(scale, amount)` the amount in its unit, and `parse(scale, text)` back
  # - `id` its name for programs, `verb` the one for people
  # - `unit(scale)`, `natural(scale, amount)` and `from_natural(scale, natural)` that unit, and the amount counted in
  #   it
  module Roles
    ALL = Registry.new("role", "set" => Set, "scale" => Scale, "shift" => Shift)
    FULL = ALL.to_h { |id, rules| [id, [rules.values.min.to_f, rules.values.max.to_f].freeze] }.freeze

    # @example
    #   Roles.full("shift") #=> [-1.0, 1.0]
    # @return [Array(Float, Float)] the least and the most an amount may be
    # @raise [NotFound]
    def self.full(role) = FULL[role] || ALL.fetch(role)
  end
end
