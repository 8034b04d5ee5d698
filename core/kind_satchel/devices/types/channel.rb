# frozen_string_literal: true

module KindSatchel
  module Devices
    # The end of every track: volume, pan, mute, and one switch for all effects before it. Sends come with the song's returns (see {SEND}).
    CHANNEL = Type.define("channel", "Channel", "channel") do |p|
      p.fader "volume", "Volume", 2, "0 dB"
      p.bipolar "pan", "Pan", -100..100, Units::SIDES, "C"
      p.switch "mute", "Mute", "off"
      p.switch "effects", "Effects", "on"
    end

    # The send from a channel to one return; its id is `send-` and the return's id.
    SEND = Parameter.new(id: "send", name: "Send", scale: Scales::Fader.new(peak: 1), default: 0.0, automatable: true, reason: nil)
    SEND_PREFIX = "send-"
  end
end
