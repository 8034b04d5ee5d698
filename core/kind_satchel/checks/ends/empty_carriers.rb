# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Carrier clips that carry nothing.
      module EmptyCarriers
        module_function

        def title = "An empty carrier"
        def meaning = "It lies in the song and moves nothing."

        def find(song, _outside)
          song.clips.each_value.select do |clip|
            clip.carrier? && clip.envelopes.none?(&:acts?) && regions(song, clip.id).any?
          end.map { |clip| [clip.id] }
        end

        def tell(song, id)
          regions = regions(song, id)
          End.new("#{song.clip(id).name} carries no move.", { "clip_id" => id, "region_ids" => regions },
                  [Fix.new("Take it away", "remove_regions", { "region_ids" => regions })])
        end

        def regions(song, id) = song.directory.regions_of_clip(id).map { |placed| placed.region.id }
        private_class_method :regions
      end
    end
  end
end
