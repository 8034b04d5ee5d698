# frozen_string_literal: true

module KindSatchel
  module Edits
    # What edits of a track's chain share: an instrument stands first, the channel last, effects between.
    module Chains
      module_function

      # @param ids [Array<String>] that are taken
      # @return [Device] at its defaults, with an id that is free
      def fresh(ids, type)
        free = [type, *(2..(ids.size + 2)).map { |i| "#{type}-#{i}" }].find { |id| !ids.include?(id) }
        Device.new(id: free, type:, values: {}, held: {})
      end

      # @return [Devices::Type] that may stand in a track's chain
      # @raise [InvalidInput] for the channel, and for an instrument on a track that holds nothing to play it
      def type!(track, id, path)
        type = Moves.at(path) { Devices::TYPES.fetch(id) }
        return type if type.role == "effect" && track.kind != "carrier"
        return type if type.role == "instrument" && type.plays == track.kind

        raise InvalidInput.of("wrong_device", path, refusal(track, type))
      end

      # @raise [InvalidInput] for the channel, which ends every chain
      def device!(track, id, path)
        device = Moves.at(path) { track.device(id) }
        return device unless device.type == "channel"

        raise InvalidInput.of("channel_stays", path, "The channel ends the chain of #{track.name}; it stays.")
      end

      # Puts a device into a chain: before another one, or before the channel.
      # @return [Song]
      def put(song, track, device, before)
        rest = track.devices.reject { |other| other.id == device.id }
        song.with_track(track.with(devices: rest.insert(place(track, rest, device, before), device)))
      end

      def place(track, rest, device, before)
        return 0 if device.type_rules.role == "instrument"

        goal = before ? Moves.at("/before") { rest.index(track.device(before)) || (rest.size - 1) } : rest.size - 1
        instrument = rest.first&.type_rules&.role == "instrument" ? 1 : 0
        goal.clamp(instrument, rest.size - 1)
      end

      # Values of a type's parameters, normalised; those on their default are left out.
      # @raise [NotFound] for a parameter it does not have
      # @raise [InvalidInput] for a value outside 0..1
      def values!(type, values, path)
        faults = values.filter_map do |id, value|
          next if type.parameters.key?(id) && value.is_a?(Numeric) && value.between?(0, 1)

          known = type.parameters.key?(id)
          Fault.new(known ? "out_of_range" : "unknown_parameter", "#{path}/#{id}",
known ? "A value lies between 0 and 1." : "#{type.name} has no parameter #{id.inspect}.")
        end
        raise InvalidInput, faults unless faults.empty?

        values.reject { |id, value| value == type.parameters[id].default }
      end

      # Envelopes that move a device, wherever they live.
      # @return [Array<Directory::Home>]
      def moves_of(song, track, device_id)
        song.directory.envelopes.each_value.select { |home| home.envelope.target.track_id == track.id && home.envelope.target.device_id == device_id }
      end

      def refusal(track, type)
        return "A carrier track makes no sound, so it has no devices." if track.kind == "carrier"
        return "#{type.name} plays #{type.plays}; #{track.name} is a track of #{track.kind}." if type.role == "instrument"

        "#{type.name} ends every chain by itself; it is not put in."
      end
      private_class_method :refusal, :place
    end
  end
end
