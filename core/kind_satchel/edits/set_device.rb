# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts all knobs of a device on values at once, those not named on their defaults: a preset, say. What a hand holds is let go
    # of; what moves the device goes on moving it.
    module SetDevice
      def self.call(song, input)
        track = Moves.at("/track_id") { song.track(input[:track_id]) }
        device = Moves.at("/device_id") { track.device(input[:device_id]) }
        values = Chains.values!(device.type_rules, input[:values], "/values")
        sends = device.values.select { |id, _| id.start_with?(Devices::SEND_PREFIX) }
        devices = track.devices.map { |other| other.equal?(device) ? device.with(values: sends.merge(values), held: {}) : other }
        [song.with_track(track.with(devices:)), "set #{device.type_rules.name.downcase} of #{track.name}#{" to #{input[:name]}" if input[:name]}"]
      end
    end
  end
end
