# frozen_string_literal: true

module KindSatchel
  module Perform
    # Parameters that a hand holds given back to what moves them.
    module HandBack
      # @param addresses [Array<Address>] held or not
      # @return [Song]
      def self.call(song, addresses)
        addresses.select { |address| song.held?(address) }.reduce(song) do |now, address|
          owner = now.owner(address)
          devices = owner.devices.map { |device| device.id == address.device_id ? device.with(held: device.held.except(address.parameter_id)) : device }
          now.with_owner(owner.with(devices:))
        end
      end
    end
  end
end
