# frozen_string_literal: true

module KindSatchel
  module Transfer
    # Which parameter of one track, or of one clip's own effects, answers to a parameter of another: the same one of a
    # device of the same type, best of the same id; else one with the same id and scale in another device.
    class Match
      # @param song [Song]
      # @param from [Track, Clip]
      # @param to [Track, Clip]
      def initialize(song, from, to)
        @song = song
        @from = from
        @to = to
      end

      # @param address [Address]
      # @return [Address, nil] itself when it lies elsewhere than on the track it comes from
      def address(address)
        return address if address.owner_id != @from.chain_id || @from.chain_id == @to.chain_id

        return unless @song.parameter?(address)

        devices(address).each do |device|
          found = Address.new(owner_id: @to.chain_id, device_id: device.id, parameter_id: address.parameter_id)
          return found if answers?(found, address)
        end
        nil
      end

      private

      # Devices of the other track, the likeliest first.
      def devices(address)
        source = @from.device(address.device_id)
        @to.devices.sort_by.with_index do |device, i|
          [device.type == source.type ? 0 : 1, device.id == source.id ? 0 : 1, i]
        end
      end

      def answers?(found, address) = @song.parameter?(found)&.scale == @song.parameter(address).scale
    end
  end
end
