# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives a knob of a macro strip a name: `address` is the knob's, `name` of 1 to {Macro::MOST_NAME} characters.
    module SetMacro
      def self.call(song, input)
        address = Macros.address!(song, input[:address], "/address")
        name = Inputs.name!(input[:name])
        [Macros.change(song, address) { |macro| macro.with(name:) }, "name #{song.parameter_name(address)} #{name}"]
      end
    end
  end
end
