# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Moves of what is not there, or not in reach of where they lie.
      module LostTargets
        module_function

        def title = "A move of nothing"
        def meaning = "What it moves is not there, or not on the tracks its clip sounds on; it waits."

        def of(song)
          song.directory.envelopes.each_value.filter_map do |home|
            why = why(song, home) or next
            End.new(nil, home.envelope.id, "#{Words.envelope(song, home)}: #{why}.", { "envelope_id" => home.envelope.id }, [Words.remove(home.envelope.id)])
          end
        end

        def why(song, home)
          envelope, clip = home.envelope, home.clip
          return "#{envelope.target} is missing" unless song.parameter?(envelope.target)
          return if clip.nil? || clip.carrier?

          tracks = song.directory.regions_of_clip(clip.id).map(&:track)
          "#{clip.name} does not sound where that is" if tracks.any? && tracks.none? { |track| clip.reaches?(envelope.target, track) }
        end
        private_class_method :why
      end
    end
  end
end
