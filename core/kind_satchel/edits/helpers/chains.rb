# frozen_string_literal: true

module KindSatchel
  module Edits
    # What edits of a chain share. In a track's an instrument stands first, the channel last, effects between; a
    # clip's own holds effects only.
    module Chains
      module_function

      # Whose chain an edit is about.
      # @param input [Hash] `:track_id` or `:clip_id`
      # @return [Track, Clip]
      # @raise [InvalidInput] for both, or neither
      # @raise [NotFound]
      def owner!(song, input)
        named = %i[track_id clip_id].select { |key| input[key] }
        raise InvalidInput.of("bad_request", "", "Say which track, or which clip.") unless named.size == 1

        named == [:clip_id] ? clip!(song.clip(input[:clip_id])) : song.track(input[:track_id])
      end

      def clip!(clip)
        return clip unless clip.carrier?

        raise InvalidInput.of("wrong_device", "/clip_id",
                              "#{clip.name} is a carrier clip; it makes no sound, so it has no devices.")
      end

      # @param ids [Array<String>] that are taken
      # @return [Device] at its defaults, with an id that is free
      def fresh(ids, type)
        free = [type, *(2..(ids.size + 2)).map { |i| "#{type}-#{i}" }].find { |id| !ids.include?(id) }
        Device.new(id: free, type:, values: {}, held: {})
      end

      # @return [Devices::Type] that may stand in a chain
      # @raise [InvalidInput] for the channel, and for an instrument on a track that holds nothing to play it, or in a
      #   clip
      def type!(owner, id, path)
        type = InvalidInput.under(path) { Devices::TYPES.fetch(id) }
        return type if type.role == "effect" && owner.kind != "carrier"
        return type if type.role == "macros" && owner.is_a?(Track) && owner.kind != "carrier"
        return type if type.plays && owner.is_a?(Track) && type.plays == owner.kind

        raise InvalidInput.of("wrong_device", path, refusal(owner, type))
      end

      # @raise [InvalidInput] for the channel, which ends every chain
      def device!(owner, id, path)
        device = InvalidInput.under(path) { owner.device(id) }
        return device unless device.type == "channel"

        raise InvalidInput.of("channel_stays", path, "The channel ends the chain of #{owner.name}; it stays.")
      end

      # Puts a device into a chain: before another one, or at the end of its effects.
      # @return [Array(Song, Array<Notice>)]
      def put(song, owner, device, before)
        rest = owner.with(devices: owner.devices.reject { |other| other.id == device.id })
        at = place(owner, rest, device, before)
        on_one_track(song, owner.with(devices: rest.devices.dup.insert(at, device)))
      end

      def place(owner, rest, device, before)
        goal = before ? InvalidInput.under("/before") { rest.devices.index(owner.device(before)) } : nil
        case device.type_rules.role
        when "macros" then (goal || rest.macro_strips.size).clamp(0, rest.macro_strips.size)
        when "instrument" then rest.macro_strips.size + rest.note_effects.size
        when "note-effect"
          first = rest.macro_strips.size
          (goal || (first + rest.note_effects.size)).clamp(first, first + rest.note_effects.size)
        else (goal || rest.end_of_effects).clamp(rest.first_effect, rest.end_of_effects)
        end
      end

      # The song with a chain in it. A clip with effects of its own sounds on one track: on every other track its
      # regions get a copy of it.
      # @return [Array(Song, Array<Notice>)]
      def on_one_track(song, owner)
        next_song = song.with_owner(owner)
        return [next_song, []] unless owner.is_a?(Clip) && owner.devices.any?

        others = song.directory.regions_of_clip(owner.id).group_by { |placed| placed.track.id }.values.drop(1)
        return [next_song, []] if others.empty?

        apart = others.reduce(next_song) { |now, placed| separated(now, owner, placed) }
        [apart, [Notice.new("separated", [owner.id], "#{owner.name} is made separate on every other track")]]
      end

      def separated(song, clip, placed)
        copy, song = Transfer::Clips.own_copy(song, clip)
        Regions.change(song.with_clip(copy), placed) { |one| one.region.onto(clip, copy) }
      end

      # Names and drives that a strip is given. What another macro drives already stays with that.
      # @param records [Array<Hash>, nil] nil leaves them as they are
      # @return [Array(Array<Macro>, Array<Notice>)]
      # @raise [InvalidInput]
      def macros(song, owner, device, records, path)
        return [device.macros, []] unless records
        unless device.type_rules.role == "macros" || records.empty?
          raise InvalidInput.of("no_macro", path,
                                "#{device.type_rules.name} is no macro strip.")
        end

        taken, lost = {}, []
        list = InvalidInput.under(path) { records.map { |one| Records.read_macro(one) } }.map do |macro|
          free, other = macro.drives.partition do |drive|
            free?(song, owner, device, drive.target) && !taken.key?(drive.target)
          end
          free.each { |drive| taken[drive.target] = true }
          lost.concat(other)
          macro.with(drives: free)
        end
        words = "#{PlainText.count(lost.size, 'drive')} left out, driven by other macros"
        [list, lost.empty? ? [] : [Notice.new("left_out", lost.map { |drive| drive.target.to_s }, words)]]
      end

      def free?(song, owner, device, target)
        song.directory.drivers(target).all? do |one|
          one.macro.owner_id == owner.chain_id && one.macro.device_id == device.id
        end
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
      def moves_of(song, owner, device_id)
        song.directory.envelopes.each_value.select do |home|
          home.envelope.target.owner_id == owner.chain_id && home.envelope.target.device_id == device_id
        end
      end

      # Lets macros that drive some devices of one chain drive those of another.
      # @param ids [Hash{String=>String}] devices, old id => new id
      # @return [Song]
      def redriven(song, from, to, ids)
        driven = ->(target) { target.owner_id == from && ids.key?(target.device_id) }
        return song if song.directory.driven.none?(&driven)

        song.tracks.select { |track| track.devices.any? { |device| device.macros.any? } }.reduce(song) do |now, track|
          devices = Transfer::Copies.redriven(now.track(track.id).devices) do |target|
            driven.call(target) ? target.with(owner_id: to, device_id: ids.fetch(target.device_id)) : target
          end
          now.with_track(now.track(track.id).with(devices:))
        end
      end

      # Lets what moves some devices of one chain move those of another.
      # @param ids [Hash{String=>String}] devices, old id => new id
      # @return [Song]
      def retargeted(song, homes, to, ids)
        homes.reduce(song) do |now, home|
          Envelopes.change(now, home.envelope.id) do |envelope|
            envelope.with(target: envelope.target.with(owner_id: to, device_id: ids.fetch(envelope.target.device_id)))
          end
        end
      end

      # Free ids for devices that come into another chain.
      # @return [Hash{String=>String}] old id => new id
      def free_ids(owner, devices)
        taken = owner.devices.map(&:id)
        devices.to_h { |device| [device.id, fresh(taken, device.type).id.tap { |id| taken << id }] }
      end

      def refusal(owner, type)
        return "A carrier track makes no sound, so it has no devices." if owner.kind == "carrier"
        if type.plays && owner.is_a?(Clip)
          return "A clip's own chain holds effects; #{type.name} is an instrument or works on notes."
        end
        return "#{type.name} plays #{type.plays}; #{owner.name} is a track of #{owner.kind}." if type.plays

        "#{type.name} ends every chain by itself; it is not put in."
      end
      private_class_method :clip!, :refusal, :place, :separated
    end
  end
end
