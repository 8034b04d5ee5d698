# frozen_string_literal: true

require_relative "devices/type"
require_relative "devices/types/channel"
require_relative "devices/types/mono_synth"
require_relative "devices/types/pad_synth"
require_relative "devices/types/pluck"
require_relative "devices/types/partial_bank"
require_relative "devices/types/drum_kit"
require_relative "devices/types/sampler"
require_relative "devices/types/loop_player"
require_relative "devices/types/arpeggiator"
require_relative "devices/types/scale_quantiser"
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
require_relative "devices/types/step_gate"
require_relative "devices/types/pitch_shift"
require_relative "devices/types/gain"
require_relative "devices/types/macro_strip"

module KindSatchel
  # Every device a track can hold. A new device is one file under `types/`, one line here, and its sound in
  # `web/src/sound/devices/`.
  module Devices
    TYPES = Registry.new("device", [
      CHANNEL, MONO_SYNTH, PAD_SYNTH, PLUCK, PARTIAL_BANK, DRUM_KIT, SAMPLER, LOOP_PLAYER, ARPEGGIATOR,
      SCALE_QUANTISER, FILTER, DRIVE, CHORUS, DELAY, REVERB,
      EQUALISER, PHASER, COMPRESSOR, BIT_REDUCER, TREMOLO, STEP_GATE, STEREO_WIDTH, PITCH_SHIFT, GAIN, MACRO_STRIP
    ].to_h { |type| [type.id, type] })

    # What a send is called by: of a channel to a return, or of a part of a kit.
    # @param id [String] of a parameter
    # @return [Array(String, String), nil] the part (nil for the whole channel) and the return's id; nil for what is
    #   no send
    def self.send_parts(device, id)
      return ([nil, id.delete_prefix(SEND_PREFIX)] if id.start_with?(SEND_PREFIX)) if device.type == "channel"

      part = device.type_rules.parts.find { |name| id.start_with?("#{name}-#{SEND_PREFIX}") }
      [part, id.delete_prefix("#{part}-#{SEND_PREFIX}")] if part
    end

    # Ids of a device's sends to a return.
    def self.send_ids(device, return_id)
      return [SEND_PREFIX + return_id] if device.type == "channel"

      device.type_rules.parts.map { |part| "#{part}-#{SEND_PREFIX}#{return_id}" }
    end

    # What stands for a type that this version does not know.
    def self.unknown(id)
      Type.new(id:, name: "Unknown device #{id}", role: "effect", plays: nil, parameters: {}.freeze)
    end
  end
end
