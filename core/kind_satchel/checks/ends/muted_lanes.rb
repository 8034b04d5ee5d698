# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Lanes of tracks of which every region is muted.
      module MutedLanes
        module_function

        def title = "A lane under muted regions"
        def meaning = "Nothing of its track is heard, so neither is the lane."

        def find(song, _outside)
          song.tracks.select { |track| track.regions.any? && track.regions.all?(&:muted) }.flat_map do |track|
            track.lanes.select { |lane| lane.acts? && lane.target.owner_id == track.id }.map { |lane| [lane.id] }
          end
        end

        def tell(song, id)
          track = song.directory.envelope(id).track
          End.new("#{Words.envelope(song, id)}: every region of #{track.name} is muted.",
                  { "envelope_id" => id, "track_id" => track.id },
                  [Fix.new("Hear them again", "mute_regions",
                           { "region_ids" => track.regions.map(&:id), "muted" => false })])
        end

        def entangled? = true
      end
    end
  end
end
