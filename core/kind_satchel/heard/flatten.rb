# frozen_string_literal: true

require_relative "flatten/chain"
require_relative "flatten/crowd"
require_relative "flatten/outline"
require_relative "flatten/tempo_breaks"
require_relative "flatten/ramps"
require_relative "flatten/step_clock"
require_relative "flatten/step_gate"
require_relative "flatten/note_effects"
require_relative "flatten/beat"
require_relative "flatten/events"
require_relative "flatten/own_chain"
