# frozen_string_literal: true

module KindSatchel
  module Edits
    # Turns the first effects of a track, up to one of them, into effects of a clip that sounds there, before those it
    # has. Envelopes of the clip and carriers go on moving them; lanes and other clips no longer do, and wait as loose
    # ends.
    module ChainToClip
      def self.call(song, input)
        clip = Chains.owner!(song, input.slice(:clip_id))
        track = song.track(input[:track_id])
        sounds_there!(song, clip, track)
        devices = taken(track, Chains.device!(track, input[:device_id], "/device_id"))
        ids = Chains.free_ids(clip, devices)
        next_song, notices = next_song(song, track, clip, devices, ids)
        words = devices.size == 1 ? devices.first.type_rules.name.downcase : "#{devices.size} effects"
        [next_song, "turn #{words} of #{track.name} into effects of #{clip.name}",
         notices + waiting(song, track, clip, ids)]
      end

      def self.sounds_there!(song, clip, track)
        return if song.directory.regions_of_clip(clip.id).any? { |placed| placed.track.id == track.id }

        raise InvalidInput.of("out_of_reach", "/clip_id", "#{clip.name} does not sound on #{track.name}.")
      end

      # All effects up to one, so that what is heard of the clip stays in its order.
      def self.taken(track, device)
        unless device.type_rules.role == "effect"
          raise InvalidInput.of("wrong_device", "/device_id",
                                "A clip's own chain holds effects; #{device.type_rules.name} is none.")
        end

        track.effects.take(track.effects.index(device) + 1)
      end

      def self.next_song(song, track, clip, devices, ids)
        bare = song.with_track(track.with(devices: track.devices - devices))
        moved = Chains.retargeted(bare, movers(song, track, clip, ids), clip.chain_id, ids)
        chain = devices.map { |device| device.with(id: ids.fetch(device.id)) } + clip.devices
        done, notices = Chains.on_one_track(moved, moved.clip(clip.id).with(devices: chain))
        [Chains.redriven(done, track.id, clip.chain_id, ids), notices]
      end

      # What can go on moving them.
      def self.movers(song, track, clip, ids)
        ids.keys.flat_map do |id|
          Chains.moves_of(song, track, id)
        end.select { |home| home.clip && (home.clip.carrier? || home.clip.id == clip.id) }
      end

      def self.waiting(song, track, clip, ids)
        RemoveDevice.waiting(ids.keys.flat_map do |id|
          Chains.moves_of(song, track, id)
        end - movers(song, track, clip, ids))
      end
      private_class_method :sounds_there!, :taken, :next_song, :movers, :waiting
    end
  end
end
