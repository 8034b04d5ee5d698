# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts a whole chain in the place of a track's: its instrument, if the new one has one, and all its effects; the channel stays.
    # Devices of a type that stands there already keep their id, and so what moves them.
    module SetChain
      def self.call(song, input)
        track = Moves.at("/track_id") { song.track(input[:track_id]) }
        raise InvalidInput.of("wrong_device", "/track_id", "A carrier track makes no sound, so it has no devices.") if track.kind == "carrier"

        fresh = devices(track, input[:devices])
        next_song = song.with_track(track.with(devices: [*instrument(track, fresh), *fresh, track.channel]))
        lost = track.devices.reject { |device| next_song.track(track.id).devices.any? { |other| other.id == device.id } }
        [next_song, "give #{track.name} #{input[:name] ? "the chain #{input[:name]}" : 'another chain'}",
         RemoveDevice.waiting(lost.flat_map { |device| Chains.moves_of(song, track, device.id) })]
      end

      # What stays where the new chain has no instrument.
      def self.instrument(track, fresh)
        return [] if fresh.first&.type_rules&.role == "instrument"

        track.devices.select { |device| device.type_rules.role == "instrument" }
      end

      def self.devices(track, list)
        free = track.devices.group_by(&:type)
        ids = track.devices.map(&:id)
        list.each_with_index.map do |entry, i|
          type = Chains.type!(track, entry["type"], "/devices/#{i}/type")
          device = free[type.id]&.shift || Chains.fresh(ids, type.id)
          ids |= [device.id]
          device.with(values: Chains.values!(type, entry.fetch("values", {}), "/devices/#{i}/values"), held: {})
        end
      end
      private_class_method :instrument, :devices
    end
  end
end
