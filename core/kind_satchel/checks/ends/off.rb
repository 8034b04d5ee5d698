# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Moves that are switched off.
      module Off
        module_function

        def title = "A move that is off"
        def meaning = "It is kept, and does nothing."

        def find(song, _outside)
          LooseEnds.by_owner(song, :off) { |_, envelopes| envelopes.reject(&:on).map { |envelope| [envelope.id] } }
        end

        def tell(song, id)
          End.new("#{Words.envelope(song, id)} is switched off.",
                  { "envelope_id" => id, "address" => song.directory.envelope(id).envelope.target.to_s },
                  [Words.switch(id, true, "Switch it on"), Words.remove(id)])
        end
      end
    end
  end
end
