# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts another clip into regions, which keep their place, length and offset. A clip from another track has its
    # envelopes turned to what answers on this one.
    module SwapClip
      def self.call(song, input)
        placed = Regions.named(song, input[:region_ids])
        clip = song.clip(input[:clip_id])
        fits!(clip, placed)
        travelling = Transfer::Clips.new(song)
        ids = placed.to_h { |one| [one.region.id, clip_on(travelling, clip, one.track)] }
        next_song = Regions.change(travelling.song, placed) do |one|
          one.region.with(clip_id: ids[one.region.id], phases: Region::NO_PHASES)
        end
        [next_song, "swap #{Regions.words(song, placed)} for #{clip.name}", notices(travelling)]
      end

      def self.notices(travelling)
        [*(Carrying.lost(travelling.lost) if travelling.lost.any?),
         *(LayOut.separated(travelling.separated) if travelling.separated.any?)]
      end

      def self.fits!(clip, placed)
        faults = placed.each_with_index.filter_map do |one, i|
          unless one.track.fits?(clip)
            Fault.new("wrong_kind", "/region_ids/#{i}",
                      "#{one.track.name} takes no clip of #{clip.kind}, and #{clip.name} is one.")
          end
        end
        raise InvalidInput, faults unless faults.empty?
      end

      # A clip that is nowhere else comes from wherever its envelopes point.
      def self.clip_on(travelling, clip, track)
        song = travelling.song
        homes = song.directory.regions_of_clip(clip.id).map(&:track)
        return clip.id if homes.any? { |home| home.id == track.id }

        from = homes.first || clip.envelopes.filter_map do |envelope|
          song.directory.tracks[envelope.target.owner_id]
        end.first || track
        travelling.on(clip.id, from, track, alone: homes.empty?)
      end

      private_class_method :notices, :fits!, :clip_on
    end
  end
end
