# frozen_string_literal: true

module KindSatchel
  module Devices
    # The end of every track: volume, pan, mute, and one switch for all effects before it. Sends come with the song's
    # returns (see {SEND}). The master's has a limiter besides, after everything else.
    CHANNEL = Type.define("channel", "Channel", "channel") do |p|
      p.fader "volume", "Volume", 2, "0 dB"
      p.bipolar "pan", "Pan", -100..100, Units::SIDES, "C"
      p.switch "mute", "Mute", "off"
      p.switch "effects", "Effects", "on"
      p.switch "limiter", "Limiter", "on"
      p.linear "ceiling", "Ceiling", -12..0, Units::DECIBELS, "-1 dB"
    end

    # The send from a channel to one return; its id is `send-` and the return's id.
    SEND = Parameter.new(id: "send", name: "Send", scale: Scales::Fader.new(peak: 1), default: 0.0, automatable: true,
                         reason: nil)
    SEND_PREFIX = "send-"
    # Parameters that only the channel of the master has.
    MASTER_ONLY = %w[limiter ceiling].freeze
  end
end
