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
          known, lost = song.directory.missing_targets, []
          song.tracks.each { |track| track.lanes.each { |lane| lost << lane if missing?(song, known, lane.target) } }
          song.clips.each_value do |clip|
            far = out_of_reach(song, clip)
            clip.envelopes.each do |envelope|
              lost << envelope if missing?(song, known, envelope.target) || far&.include?(envelope.target.owner_id)
            end
          end
          lost.map { |envelope| [envelope.id] }
        end

        def tell(song, id)
          home = song.directory.envelope(id)
          target = home.envelope.target
          why = song.parameter?(target) ? "#{home.clip.name} does not sound where that is" : Words.gone(song, target)
          End.new("#{Words.envelope(song, id)}: #{why}.", { "envelope_id" => id }, [Words.remove(id)])
        end

        # What moves have settings is seen from the moves each time.
        def missing?(song, known, target)
          return song.parameter?(target).nil? if target.setting?

          found = known[target]
          found.nil? ? known[target] = song.parameter?(target).nil? : found
        end

        # The owners of what a clip moves that are on no track where it lies; nil for none.
        # @return [Array<String>, nil]
        def out_of_reach(song, clip)
          return if clip.carrier?

          placed = song.directory.regions_of_clip(clip.id)
          far = clip.memo(:foreign) { foreign(clip) }.reject { |id| placed.any? { |one| one.track.id == id } }
          far unless placed.empty? || far.empty?
        end

        # Owners of what it moves besides itself.
        def foreign(clip)
          targets = clip.envelopes.map(&:target).reject do |target|
            target.owner_id == clip.chain_id || clip.own_setting?(target)
          end
          targets.map(&:owner_id).uniq
        end
        private_class_method :missing?, :out_of_reach, :foreign
      end
    end
  end
end
