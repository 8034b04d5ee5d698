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

        def of(song)
          song.tracks.flat_map { |track| track.regions.filter_map { |region| found(song, track, region) } }
        end

        def found(song, track, region)
          clip = song.clips[region.clip_id]
          return if region.muted || !clip&.audio&.stretched

          jumps = song.tempo.changes(region.start_tick, region.end_tick).select do |tick|
            (song.tempo.bpm_at(tick) - song.tempo.bpm_before(tick)).abs > LEAST_BPM
          end
          return if jumps.empty?

          End.new(nil, region.id, "The tempo jumps at #{song.meters.text(jumps[0].round)}, inside #{clip.name} on #{track.name}.",
                  { "region_ids" => [region.id], "track_id" => track.id, "from_tick" => jumps[0].round, "address" => Address.tempo.to_s }, [])
        end
        private_class_method :found
      end
    end
  end
end
