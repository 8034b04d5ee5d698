# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Moves of what is not there, or not in reach of where they lie.
      module LostTargets
        module_function

        def title = "A move of nothing"
        def meaning = "What it moves is not there, or not on the tracks its clip sounds on; it waits."

        def find(song, _outside)
          missing = Hash.new { |known, target| known[target] = song.parameter?(target).nil? }
          song.directory.envelopes.each_value.filter_map do |home|
            target = home.envelope.target
            [home.envelope.id] if missing[target] || out_of_reach?(song, home.clip, target)
          end
        end

        def tell(song, id)
          home = song.directory.envelope(id)
          target = home.envelope.target
          why = song.parameter?(target) ? "#{home.clip.name} does not sound where that is" : "#{target} is missing"
          End.new("#{Words.envelope(song, id)}: #{why}.", { "envelope_id" => id }, [Words.remove(id)])
        end

        def out_of_reach?(song, clip, target)
          return false if clip.nil? || clip.carrier?

          placed = song.directory.regions_of_clip(clip.id)
          placed.any? && placed.none? { |one| clip.reaches?(target, one.track) }
        end
        private_class_method :out_of_reach?
      end
    end
  end
end
