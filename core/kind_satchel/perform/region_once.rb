# frozen_string_literal: true

module KindSatchel
  module Perform
    # Whether what is played runs once over a region instead of each loop: where that is asked for, or where a move is
    # made and played over a seam of the clip. The region then gets a clip of its own where others share it.
    module RegionOnce
      module_function

      # @param pass [WrittenPass]
      # @param stroke [Stroke] within the region
      # @param always [Boolean] whether it is asked for
      # @return [Array(WrittenPass, Boolean)]
      def of(pass, region_id, address, role, stroke, always:)
        region = pass.song.directory.region(region_id).region
        clip = pass.song.clip(region.clip_id)
        envelope = clip.envelope_for(address, role)
        once = always ? envelope&.clock != "once" : envelope.nil? && seam?(region, clip, stroke)
        return [pass, once] if !once || pass.song.directory.regions_of_clip(clip.id).size < 2
        # Of a copy they would have other addresses.
        return [pass, false] if address.setting? || address.clip_id

        [with_own_clip(pass, region_id, clip), true]
      end

      # Whether the material begins again under a stroke.
      def seam?(region, clip, stroke)
        Clocks.enum_for(:each_material_pass, region, clip, stroke.from, stroke.to).count > 1
      end

      def with_own_clip(pass, region_id, clip)
        copy, song = Transfer::Clips.own_copy(pass.song, clip)
        track = song.track(pass.song.directory.region(region_id).track.id)
        regions = track.regions.map { |region| region.id == region_id ? region.onto(clip, copy) : region }
        pass.noting(apart: [clip.name]).with(song: song.with_clip(copy).with_track(track.with(regions:)))
      end
      private_class_method :seam?, :with_own_clip
    end
  end
end
