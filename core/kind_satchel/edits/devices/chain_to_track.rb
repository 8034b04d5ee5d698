# frozen_string_literal: true

module KindSatchel
  module Edits
    # Turns the effects of a clip into the first effects of the track it sounds on; what moves them goes on moving
    # them from where it lives. Nothing changes in what is heard where only that clip sounds; other clips of the track
    # are heard through them too.
    module ChainToTrack
      def self.call(song, input)
        clip = Chains.owner!(song, input.slice(:clip_id))
        if clip.devices.empty?
          raise InvalidInput.of("nothing_there", "/clip_id",
                                "#{clip.name} has no effects of its own.")
        end

        track = track!(song, clip)
        ids = Chains.free_ids(track, clip.devices)
        devices = clip.devices.map { |device| device.with(id: ids.fetch(device.id)) }
        homes = ids.keys.flat_map { |id| Chains.moves_of(song, clip, id) }
        moved = Chains.retargeted(song.with_clip(clip.with(devices: [], tails: "ring")), homes, track.id, ids)
        moved = moved.with_track(track.with(devices: track.devices.dup.insert(track.first_effect, *devices)))
        moved = Chains.redriven(moved, clip.chain_id, track.id, ids)
        [moved, "turn the effects of #{clip.name} into effects of #{track.name}", heard_by_others(track, clip)]
      end

      def self.track!(song, clip)
        placed = song.directory.regions_of_clip(clip.id).first
        return placed.track if placed

        raise InvalidInput.of("nowhere", "/clip_id", "#{clip.name} lies on no track that could take its effects.")
      end

      def self.heard_by_others(track, clip)
        others = track.regions.map(&:clip_id).uniq.size - 1
        if others.zero?
          []
        else
          [Notice.new("along", [clip.id],
                      "#{others == 1 ? 'another clip is' : "#{others} other clips are"} heard through them too")]
        end
      end
      private_class_method :track!, :heard_by_others
    end
  end
end
