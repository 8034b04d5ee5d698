# frozen_string_literal: true

require_relative "parameter/units"
require_relative "parameter/scales"
require_relative "parameter/address"
require_relative "parameter/marks"

module KindSatchel
  # Something that can be moved: what a knob, fader or switch stands for.
  #
  # Its values are normalised: 0..1 is the whole travel of the knob, and the scale maps that to natural units.
  # `default` is normalised. Where `automatable` is false, `reason` says why in a sentence.
  class Parameter < Value.of(:id, :name, :scale, :default, :automatable, :reason)
    def check = number!("/default", default, 0..1)

    # @param value [Float] normalised
    # @return [String] the value in its own unit, as people write it
    def text(value) = scale.text(value)

    # Switches and choices can only be set.
    # @param role [String]
    # @raise [InvalidInput]
    def role_fits!(role, path)
      return if role == "set" || !scale.set_only?

      kind = scale.steps == 1 ? "switch" : "choice"
      fault!("set_only", path, "#{name} is a #{kind}: an envelope can set it, not #{role} it.")
    end

    # @raise [InvalidInput] when nothing may move this parameter
    def automatable!(path = "/address")
      fault!("not_automatable", path, "#{name} cannot be automated: #{reason}") unless automatable
    end
  end
end
