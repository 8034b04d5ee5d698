# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts a whole chain in the place of a track's: its instrument, if the new one has one, and all its effects; the
    # channel stays. Devices of a type that stands there already keep their id, and so what moves them.
    module SetChain
      def self.call(song, input)
        owner = Chains.owner!(song, input)
        if owner.kind == "carrier"
          raise InvalidInput.of("wrong_device", "/track_id",
                                "A carrier track makes no sound, so it has no devices.")
        end

        fresh, left_out = devices(song, owner, input[:devices])
        chain = in_order([*fresh, *instrument(owner, fresh)]) + owner.devices.drop(owner.end_of_effects)
        next_song, notices = Chains.on_one_track(song, owner.with(devices: chain))
        lost = owner.devices.reject { |device| chain.any? { |other| other.id == device.id } }
        [next_song, "give #{owner.name} #{input[:name] ? "the chain #{input[:name]}" : 'another chain'}",
         notices + left_out + undriven(next_song, lost) + RemoveDevice.waiting(lost.flat_map { |device|
           Chains.moves_of(song, owner, device.id)
         })]
      end

      # What stays where the new chain has no instrument.
      def self.instrument(track, fresh)
        fresh.any? { |device| device.type_rules.role == "instrument" } ? [] : [track.instrument].compact
      end

      # Note effects, the instrument, effects; each as they stood.
      def self.in_order(devices)
        devices.sort_by.with_index { |device, i| [Devices::Type::ROLES.index(device.type_rules.role), i] }
      end

      # What strips that go drove.
      def self.undriven(song, lost)
        targets = lost.flat_map(&:macros).flat_map(&:drives).map(&:target).select { |target| song.parameter?(target) }
        return [] if targets.empty?

        [Notice.new("undriven", targets.map(&:to_s), "#{targets.map do |target|
          song.parameter_name(target)
        end.join(', ')} rest on their own knobs again")]
      end

      # @return [Array(Array<Device>, Array<Notice>)]
      def self.devices(song, track, list)
        free = track.devices.group_by(&:type)
        ids = track.devices.map(&:id)
        notices = []
        made = list.each_with_index.map do |entry, i|
          type = Chains.type!(track, entry["type"], "/devices/#{i}/type")
          device = free[type.id]&.shift || Chains.fresh(ids, type.id)
          ids |= [device.id]
          macros, left = Chains.macros(song, track, device, entry["macros"], "/devices/#{i}/macros")
          notices.concat(left)
          device.with(values: Chains.values!(type, entry.fetch("values", {}), "/devices/#{i}/values"), held: {},
                      sound: entry["sound"], macros:)
        end
        [made, notices]
      end
      private_class_method :instrument, :undriven, :devices
    end
  end
end
