# frozen_string_literal: true

module KindSatchel
  module Transfer
    # Moves once more, under ids of their own. What moves their settings is drawn for the copies too.
    module Copies
      module_function

      # @param envelopes [Array<Envelope>]
      # @param ids [Hash{String=>String}] new ids by old ones
      # @return [Array<Envelope>] under their new ids where they have one; what moved a setting of an old one moves
      #   that of the new
      def renamed(envelopes, ids)
        retargeted(envelopes.map { |envelope| envelope.with(id: ids.fetch(envelope.id, envelope.id)) }, ids)
      end

      # @return [Array<Envelope>] those for settings of old ones turned to the new ones
      def retargeted(envelopes, ids)
        envelopes.map do |envelope|
          copy = envelope.target.setting? && ids[envelope.target.device_id]
          copy ? envelope.with(target: envelope.target.with(device_id: copy)) : envelope
        end
      end

      # Devices with what their macros drive turned to something else.
      # @yieldparam target [Address]
      # @yieldreturn [Address, nil] nil where it is driven no more
      # @return [Array<Device>]
      def redriven(devices)
        devices.map do |device|
          next device if device.macros.empty?

          device.macros.reduce(device) do |now, macro|
            drives = macro.drives.filter_map { |drive| yield(drive.target)&.then { |target| drive.with(target:) } }
            drives == macro.drives ? now : now.with_macro(macro.with(drives:))
          end
        end
      end

      # Lanes, carriers and macros outside of a clip that move settings of its moves move those of a copy as well.
      # @param ids [Hash{String=>String}] new ids by old ones
      # @return [Song]
      def followed(song, ids)
        moved = song.directory.moved_settings
        while (ids = ids.slice(*moved.keys)).any?
          added = {}
          song = lanes(song, ids, added)
          song = carriers(song, ids, added)
          song = drives(song, ids)
          ids = added
        end
        song
      end

      def lanes(song, ids, added)
        song.tracks.reduce(song) do |now, track|
          more = again(track.lanes, ids, now.next_id, added)
          if more.empty?
            now
          else
            now.with(next_id: now.next_id + more.size).with_track(track.with(lanes: [*track.lanes, *more]))
          end
        end
      end

      def drives(song, ids)
        song.tracks.select { |track| track.devices.any? { |device| device.macros.any? } }.reduce(song) do |now, track|
          devices = now.track(track.id).devices.map do |device|
            device.macros.reduce(device) { |one, macro| one.with_macro(driving_too(macro, ids)) }
          end
          now.with_track(now.track(track.id).with(devices:))
        end
      end

      def driving_too(macro, ids)
        more = macro.drives.select { |drive| drive.target.setting? && ids.key?(drive.target.device_id) }
        more.reduce(macro) do |now, drive|
          target = drive.target.with(device_id: ids.fetch(drive.target.device_id))
          now.driving(target, drive.with(target:))
        end
      end

      # What is inside the clip itself has gone along.
      def carriers(song, ids, added)
        song.clips.each_value.select(&:carrier?).reject do |clip|
          clip.envelopes.any? { |envelope| ids.key?(envelope.id) }
        end.reduce(song) do |now, clip|
          more = again(clip.envelopes, ids, now.next_id, added)
          if more.empty?
            now
          else
            now.with(next_id: now.next_id + more.size).with_clip(clip.with(envelopes: [
              *clip.envelopes, *more
            ]))
          end
        end
      end

      def again(envelopes, ids, next_id, added)
        list = envelopes.select { |envelope| envelope.target.setting? && ids.key?(envelope.target.device_id) }
        list.each_with_index.map do |envelope, i|
          added[envelope.id] = "envelope-#{next_id + i}"
          envelope.with(id: added[envelope.id],
                        target: envelope.target.with(device_id: ids.fetch(envelope.target.device_id)))
        end
      end
      private_class_method :lanes, :carriers, :drives, :driving_too, :again
    end
  end
end
