# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts a whole chain in the place of a track's: its instrument, if the new one has one, and all its effects; the channel stays.
    # Devices of a type that stands there already keep their id, and so what moves them.
    module SetChain
      def self.call(song, input)
        owner = Chains.owner!(song, input)
        raise InvalidInput.of("wrong_device", "/track_id", "A carrier track makes no sound, so it has no devices.") if owner.kind == "carrier"

        fresh = devices(owner, input[:devices])
        chain = in_order([*fresh, *instrument(owner, fresh)]) + owner.devices.drop(owner.end_of_effects)
        next_song, tells = Chains.on_one_track(song, owner.with(devices: chain))
        lost = owner.devices.reject { |device| chain.any? { |other| other.id == device.id } }
        [next_song, "give #{owner.name} #{input[:name] ? "the chain #{input[:name]}" : 'another chain'}",
         tells + RemoveDevice.waiting(lost.flat_map { |device| Chains.moves_of(song, owner, device.id) })]
      end

      # What stays where the new chain has no instrument.
      def self.instrument(track, fresh)
        fresh.any? { |device| device.type_rules.role == "instrument" } ? [] : [track.instrument].compact
      end

      # Note effects, the instrument, effects; each as they stood.
      def self.in_order(devices) = devices.sort_by.with_index { |device, i| [Devices::Type::ROLES.index(device.type_rules.role), i] }

      def self.devices(track, list)
        free = track.devices.group_by(&:type)
        ids = track.devices.map(&:id)
        list.each_with_index.map do |entry, i|
          type = Chains.type!(track, entry["type"], "/devices/#{i}/type")
          device = free[type.id]&.shift || Chains.fresh(ids, type.id)
          ids |= [device.id]
          device.with(values: Chains.values!(type, entry.fetch("values", {}), "/devices/#{i}/values"), held: {}, sound: entry["sound"])
        end
      end
      private_class_method :instrument, :devices
    end
  end
end
