# frozen_string_literal: true

require_relative "devices/type"
require_relative "devices/types/channel"
require_relative "devices/types/mono_synth"
require_relative "devices/types/pad_synth"
require_relative "devices/types/pluck"
require_relative "devices/types/partial_bank"
require_relative "devices/types/drum_kit"
require_relative "devices/types/loop_player"
require_relative "devices/types/filter"
require_relative "devices/types/drive"
require_relative "devices/types/chorus"
require_relative "devices/types/delay"
require_relative "devices/types/reverb"
require_relative "devices/types/equaliser"
require_relative "devices/types/phaser"
require_relative "devices/types/compressor"
require_relative "devices/types/bit_reducer"
require_relative "devices/types/tremolo"
require_relative "devices/types/stereo_width"
require_relative "devices/types/gain"

module KindSatchel
  # Every device a track can hold. A new device is one file under `types/`, one line here, and its sound in
  # `web/src/sound/devices/`.
  module Devices
    TYPES = Registry.new("device", [
      CHANNEL, MONO_SYNTH, PAD_SYNTH, PLUCK, PARTIAL_BANK, DRUM_KIT, LOOP_PLAYER, FILTER, DRIVE, CHORUS, DELAY, REVERB,
      EQUALISER, PHASER, COMPRESSOR, BIT_REDUCER, TREMOLO, STEREO_WIDTH, GAIN
    ].to_h { |type| [type.id, type] })

    # What stands for a type that this version does not know.
    def self.unknown(id) = Type.new(id:, name: "Unknown device #{id}", role: "effect", plays: nil, parameters: {}.freeze)
  end
end
