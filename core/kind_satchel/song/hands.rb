# frozen_string_literal: true

module KindSatchel
  # What of a song is held by hand.
  module Hands
    # Whether a parameter is held by hand.
    # @param address [Address]
    def held?(address) = !held_value(address).nil?

    # @return [Float, nil] the value a hand holds a parameter at; nil where none does
    def held_value(address) = owned(address).held_value

    # Addresses of everything held by hand.
    # @return [Array<Address>]
    def held
      of_devices = chains.flat_map do |owner|
        owner.devices.flat_map do |device|
          device.held.keys.map { |id| Address.new(owner_id: owner.chain_id, device_id: device.id, parameter_id: id) }
        end
      end
      of_song = held_bpm ? [Address.tempo] : []
      of_song + of_devices + directory.envelopes.each_value.map(&:envelope).reject { |one| one.held.empty? }
                                      .flat_map { |one| one.held.keys.map { |name| Address.setting(one.id, name) } }
    end
  end
end
