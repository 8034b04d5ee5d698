# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Jumps of the tempo inside loops whose pitch is kept.
      module TempoJumps
        LEAST_BPM = 0.5

        module_function

        def title = "A tempo that jumps inside a loop"
        def meaning = "The loop is stretched, and a jump in the middle of it can be heard as a seam."

        def find(song, _outside)
          stretched = song.clips.each_value.select { |clip| clip.audio&.stretched }
          stretched.flat_map do |clip|
            song.directory.regions_of_clip(clip.id).filter_map { |placed| found(song, placed.region) }
          end
        end

        def found(song, region)
          return if region.muted

          jump = song.tempo.changes(region.start_tick, region.end_tick).find do |tick|
            (song.tempo.bpm_at(tick) - song.tempo.bpm_before(tick)).abs > LEAST_BPM
          end
          [region.id, jump.round] if jump
        end

        def tell(song, id, tick)
          placed = song.directory.region(id)
          End.new("The tempo jumps at #{song.meters.text(tick)}, inside #{song.clip(placed.region.clip_id).name} on " \
                  "#{placed.track.name}.",
                  { "region_ids" => [id], "track_id" => placed.track.id, "from_tick" => tick,
                    "address" => Address.tempo.to_s }, [])
        end
        private_class_method :found
      end
    end
  end
end
