# frozen_string_literal: true

require_relative "scale"
require_relative "scales/linear"
require_relative "scales/bipolar"
require_relative "scales/log"
require_relative "scales/fader"
require_relative "scales/steps"
require_relative "scales/note_length"
require_relative "scales/switch"
require_relative "scales/amount"
require_relative "scales/tempo"

module KindSatchel
  # From normalised 0..1 to natural units and back. A new scale is one file and one line here.
  module Scales
    ALL = Registry.new("scale",
                       "linear" => Linear, "bipolar" => Bipolar, "log" => Log,
                       "fader" => Fader, "steps" => Steps, "note_length" => NoteLength, "switch" => Switch,
                       "amount" => Amount, "tempo" => Tempo)
  end
end
