# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives a region a copy of its clip, so that edits in it no longer show elsewhere.
    module SeparateRegion
      def self.call(song, input)
        placed = song.directory.region(input[:region_id])
        clip = song.clip(placed.region.clip_id)
        if song.directory.regions_of_clip(clip.id).size < 2
          raise InvalidInput.of("not_shared", "/region_id", "#{clip.name} is in one region only; there is nothing to separate.")
        end

        copy, next_id = own_copy(song, clip)
        regions = placed.track.regions.map { |region| region.equal?(placed.region) ? region.with(clip_id: copy.id) : region }
        [song.with(next_id:).with_clip(copy).with_track(placed.track.with(regions:)), "separate #{clip.name}"]
      end

      def self.own_copy(song, clip)
        next_id = song.next_id
        envelopes = clip.envelopes.map { |envelope| envelope.with(id: "envelope-#{next_id += 1}") }
        [clip.with(id: "clip-#{song.next_id}", name: free_name(song, clip.name), envelopes:), next_id + 1]
      end

      # "Mooring", "Mooring 2", "Mooring 3", ...
      def self.free_name(song, name)
        taken = song.clips.each_value.map(&:name)
        stem = name.sub(/ \d+\z/, "")
        (2..).lazy.map { |i| "#{stem} #{i}" }.find { |candidate| !taken.include?(candidate) }
      end
      private_class_method :own_copy, :free_name
    end
  end
end
