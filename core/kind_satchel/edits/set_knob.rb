# frozen_string_literal: true

module KindSatchel
  module Edits
    # Turns a knob, fader or switch to a resting value.
    module SetKnob
      def self.call(song, input)
        address = Moves.at("/address") { Address.parse(input[:address]).tap { |a| song.parameter(a) } }
        parameter = song.parameter(address)
        track = song.track(address.track_id)
        devices = track.devices.map do |device|
          device.id == address.device_id ? device.with(values: device.values.merge(address.parameter_id => parameter.scale.heard(input[:value]))) : device
        end
        [song.with_track(track.with(devices:)), "turn #{parameter.name} of #{track.name} to #{parameter.text(input[:value])}"]
      end
    end
  end
end
