# frozen_string_literal: true

module KindSatchel
  module Owners
    # A device in the chain of a track, or of a clip's own effects.
    class OfDevice
      def initialize(song, address)
        @song = song
        @address = address
      end

      def name = (clip_id ? @song.clips[clip_id] : @song.directory.tracks[@address.owner_id])&.name || @address.owner_id

      def parameter
        part, return_id = Devices.send_parts(device, @address.parameter_id)
        return own_parameter unless return_id && chain.sounds_itself?

        to = @song.returns.find { |track| track.id == return_id } or
          raise NotFound.of("unknown_parameter", "", "There is no return #{return_id.inspect} to send to.")
        Devices::SEND.with(id: @address.parameter_id,
                           name: part ? "#{Devices.part_name(part)}: to #{to.name}" : "Send to #{to.name}")
      end

      def knob = device.values.fetch(@address.parameter_id) { parameter.default }
      def held_value = device.held[@address.parameter_id]

      def turned(value) = changed { |device| device.with(values: device.values.merge(@address.parameter_id => value)) }

      def held(value)
        changed do |device|
          id = @address.parameter_id
          device.with(held: value ? device.held.merge(id => value) : device.held.except(id))
        end
      end

      # Its track, or those on which its clip sounds.
      def tracks = clip_id ? @song.directory.regions_of_clip(clip_id).map(&:track).uniq(&:id) : [chain]

      # Effects of a clip have none.
      def lanes = clip_id ? [] : chain.lanes.select { |lane| lane.target == @address }

      def lane_track = clip_id ? nil : chain

      private

      def clip_id = @address.clip_id
      def chain = @song.owner(@address)
      def device = chain.device(@address.device_id)

      def changed
        chain, device = self.chain, self.device
        @song.with_owner(chain.with(devices: chain.devices.map do |other|
          other.equal?(device) ? yield(device) : other
        end))
      end

      # What a type has; the limiter is the master's.
      def own_parameter
        other = device.type == "channel" && chain.kind != "master" &&
                Devices::MASTER_ONLY.include?(@address.parameter_id)
        raise NotFound.of("unknown_parameter", "", "Only the master has #{@address.parameter_id}.") if other

        parameter = device.type_rules.parameter(@address.parameter_id)
        device.macros.empty? ? parameter : parameter.with(name: device.macro(@address.parameter_id).name)
      end
    end
  end
end
