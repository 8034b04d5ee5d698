# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Carrier clips that carry nothing.
      module EmptyCarriers
        module_function

        def title = "An empty carrier"
        def meaning = "It lies in the song and moves nothing."

        def of(song)
          song.clips.each_value.select { |clip| clip.carrier? && clip.envelopes.none?(&:acts?) }.filter_map do |clip|
            regions = song.directory.regions_of_clip(clip.id).map { |placed| placed.region.id }
            next if regions.empty?

            End.new(nil, clip.id, "#{clip.name} carries no move.", { "clip_id" => clip.id, "region_ids" => regions },
                    [Fix.new("Take it away", "remove_regions", { "region_ids" => regions })])
          end
        end
      end
    end
  end
end
